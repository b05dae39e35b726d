import type { Volume } from '@lithagon/core';
import type { Display } from '../../state/desk';
import type { FieldLook } from '../raster/field';

/** Values at which a volume's colours end: symmetric for amplitudes, from percentiles otherwise; gain narrows them. */
export function lookOf(volume: Pick<Volume, 'quantity' | 'statistics'>, display: Display): FieldLook {
  const { statistics: s } = volume;
  if (volume.quantity === 'amplitude') {
    const end = (s.absolute[String(display.clip)] ?? s.absolute['99'] ?? 1) / display.gain || 1;
    return { map: display.map, low: -end, high: end, reverse: display.reverse };
  }
  const tail = String(100 - display.clip);
  const low = s.percentiles[tail] ?? s.min;
  const high = s.percentiles[String(display.clip)] ?? s.max;
  const middle = (low + high) / 2;
  const half = (high - low) / 2 / display.gain || 1;
  return { map: display.map, low: middle - half, high: middle + half, reverse: display.reverse };
}

/** Percentiles that a clip can be set to: those that statistics keep. */
export const CLIPS = [90, 95, 98, 99, 100];

export function formatValue(value: number): string {
  const size = Math.abs(value);
  if (size >= 1000)
    return value
      .toFixed(0)
      .replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f')
      .replace('-', '−');
  if (size > 0 && size < 0.1) return value.toPrecision(3).replace('-', '−');
  return (size >= 10 ? value.toFixed(1) : value.toFixed(3)).replace('-', '−');
}

/** A coordinate with thin spaces between thousands and one decimal. */
export function formatCoordinate(value: number): string {
  return value.toFixed(1).replace(/\B(?=(\d{3})+(?!\d)(?=.*\.))/g, '\u202f');
}
