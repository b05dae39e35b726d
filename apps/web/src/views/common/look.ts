import { quantityFacts, type Volume } from '@lithagon/core';
import type { Display } from '../../state/views/display';
import { figure } from '../../ui/format';
import type { FieldLook } from '../raster/field';

/** Colours of names, one for each from the least to the greatest. */
export const classLook = (look: Pick<FieldLook, 'map' | 'reverse'>, least: number, greatest: number): FieldLook => ({
  map: look.map,
  reverse: look.reverse,
  low: least - 0.5,
  high: greatest + 0.5,
  steps: Math.max(1, Math.round(greatest - least) + 1),
  whole: true,
});

/** Values at which a volume's colours end: symmetric for amplitudes, from percentiles otherwise; gain narrows them. */
export function lookOf(volume: Pick<Volume, 'quantity' | 'statistics' | 'classes'>, display: Display): FieldLook {
  const { statistics: s } = volume;
  if (display.ends) return { map: display.map, low: display.ends[0], high: display.ends[1], reverse: display.reverse };
  if (quantityFacts(volume.quantity).scale === 'categorical')
    return volume.classes ? classLook(display, 1, volume.classes.length) : classLook(display, s.min, s.max);
  if (quantityFacts(volume.quantity).symmetric) {
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
  if (size >= 1000) return figure(value, 0).replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f');
  if (size > 0 && size < 0.1) return value.toPrecision(3).replace('-', '−');
  return figure(value, size >= 10 ? 1 : 3);
}

/** A coordinate with thin spaces between thousands and one decimal. */
export function formatCoordinate(value: number): string {
  return figure(value).replace(/\B(?=(\d{3})+(?!\d)(?=.*\.))/g, '\u202f');
}
