import {
  type BinGrid,
  contourInterval,
  type EarthObject,
  endsText,
  type Horizon,
  type QuantityMap,
  quantityFacts,
  type Volume,
} from '@lithagon/core';
import { displayOf, useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { quantityText } from '../common/ColorBar';
import { type PlaneState, useArray, usePlane } from '../common/hooks';
import { lookOf } from '../common/look';
import type { FieldLook } from '../raster/field';

/** What `mapShows` begins with when it is a horizon's waveform match. */
const MATCH = 'match:';

/** The coloured grid under a map. */
export interface MapLayer {
  binGrid: BinGrid;
  values: Float32Array;
  look: FieldLook;
  legend: string;
  quantity: string;
  unit: string;
  /** Whether its values are TWT or depth; else where the map lies, or null. */
  vertical: 'values' | number | null;
  /** Contour interval where it is contoured. */
  interval: number | null;
  /** The plane of a volume that it is. */
  plane?: PlaneState;
}

export interface ShownLayer {
  layer: MapLayer | null;
  problem: string | null;
  /** What may be chosen, and what is. */
  options: { value: string; label: string }[];
  chosen: string;
  horizons: Horizon[];
  /** The volume whose slice is shown, and which sample. */
  slice?: Volume;
  k: number;
  /** Where a slice lies, in words. */
  at: string;
}

/** The layer chosen on the desk, read as it is needed. */
export function useMapLayer(objects: EarthObject[], volume: Volume | undefined, domain: 'twt' | 'depth'): ShownLayer {
  const units = useUnits();
  const { mapShows, lines, display } = useDesk();
  const horizons = objects.filter((o): o is Horizon => o.kind === 'horizon' && o.domain === domain);
  const maps = objects.filter((o): o is QuantityMap => o.kind === 'map');
  const matchOf = mapShows?.startsWith(MATCH) ? mapShows.slice(MATCH.length) : null;
  const horizon = horizons.find((h) => h.id === (matchOf ?? mapShows));
  const map = maps.find((m) => m.id === mapShows);
  const slice = mapShows === 'slice' && volume?.domain === domain ? volume : undefined;
  const source = horizon ?? map;
  const old = useProject((s) => (source ? s.old.has(source.id) : slice ? s.old.has(slice.id) : false));
  const values = useArray(
    source?.id,
    `${source?.revision}${matchOf ? '/match' : ''}`,
    matchOf ? horizon?.confidence : source?.values,
  );
  const k = slice ? Math.max(0, Math.min(slice.vertical.count - 1, lines.slice)) : 0;
  const [plane, problem] = usePlane(slice, 'slice', k);
  const unit = domain === 'twt' ? 'ms' : 'm';
  const depthOfSlice = slice ? slice.vertical.first + k * slice.vertical.step : 0;
  const options = [
    { value: '', label: 'Outlines only' },
    ...(volume && volume.domain === domain ? [{ value: 'slice', label: `Slice of ${volume.name}` }] : []),
    ...horizons.map((h) => ({ value: h.id, label: h.name })),
    ...maps.map((m) => ({ value: m.id, label: m.name })),
    ...horizons
      .filter((h) => h.confidence)
      .map((h) => ({ value: `${MATCH}${h.id}`, label: `Confidence of ${h.name}` })),
  ];
  const layer = (): MapLayer | null => {
    if (slice)
      return (
        plane && {
          binGrid: slice.binGrid,
          values: plane.data,
          look: lookOf(slice, displayOf(display, slice)),
          legend: quantityText(slice, units),
          quantity: slice.quantity,
          unit: slice.unit,
          vertical: depthOfSlice,
          interval: null,
          plane,
        }
      );
    if (!values) return null;
    /** A quantity in its colours, between two values. */
    const inColors = (quantity: string, low: number, high: number): FieldLook => {
      const { colors, symmetric } = quantityFacts(quantity);
      const end = Math.max(Math.abs(low), Math.abs(high));
      return symmetric ? { ...colors, low: -end, high: end } : { ...colors, low, high };
    };
    if (horizon && matchOf)
      return {
        binGrid: horizon.binGrid,
        values,
        look: inColors('confidence', 0, 1),
        legend: `confidence of the track, ${endsText('confidence')}`,
        quantity: 'confidence',
        unit: '',
        vertical: null,
        interval: null,
      };
    if (horizon) {
      const [low, high] = horizon.range;
      // a round interval in the unit that is shown; what is level has no contours
      const round = high > low ? contourInterval(units.to(low, unit), units.to(high, unit)) : null;
      const interval = round === null ? null : units.from(round, unit);
      return {
        binGrid: horizon.binGrid,
        values,
        look: { map: 'strata', low, high, reverse: false, steps: Math.round((high - low) / (interval ?? 1)) || 1 },
        legend: `${domain === 'twt' ? 'TWT (ms)' : `Depth (${units.of('m')})`}${round === null ? ', level' : `, every ${round}`}`,
        quantity: horizon.name,
        unit,
        vertical: 'values',
        interval,
      };
    }
    if (!map) return null;
    return {
      binGrid: map.binGrid,
      values,
      look: inColors(map.quantity, ...map.range),
      legend: quantityText(map, units),
      quantity: map.quantity,
      unit: map.unit,
      vertical: null,
      interval: null,
    };
  };
  const made = layer();
  return {
    layer: made && old ? { ...made, legend: `${made.legend}, out of date` } : made,
    problem,
    options,
    chosen: source || slice ? (mapShows ?? '') : '',
    horizons,
    slice,
    k,
    at: slice ? `at ${units.text(depthOfSlice, unit, 0)}` : '',
  };
}
