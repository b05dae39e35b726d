import {
  type BinGrid,
  type Blend,
  contourInterval,
  domainUnit,
  type EarthObject,
  endsText,
  type Horizon,
  type QuantityMap,
  quantityFacts,
  rotationWeights,
  type TurnedPair,
  type Volume,
} from '@lithagon/core';
import { useMemo } from 'react';
import { turnable } from '../../kinds/define';
import { useBlends, useDrawnBlend } from '../../state/blends';
import { useConversion } from '../../state/conversion';
import { useDisplays } from '../../state/displays';
import { useMapTrial } from '../../state/mapTrial';
import { pageOf, seriesOf, usePages } from '../../state/pages';
import { useProject } from '../../state/project';
import { useTurnedAngle, volumesOfPair } from '../../state/turning';
import { useUnits } from '../../state/units';
import { usePlace, useSettings } from '../../state/views';
import { displayOf } from '../../state/views/display';
import { mixOf } from '../blend/mixOf';
import { useChannelsOf, useMapFields, usePlaneFields } from '../blend/useFields';
import { quantityText } from '../common/ColorBar';
import { domainAxis, domainTitle } from '../common/domains';
import { type PlaneState, useArray, useOnHorizon, usePlane } from '../common/hooks';
import { classLook, lookOf } from '../common/look';
import { indexAt, standsFor } from '../common/survey';
import { useTurnedHorizon } from '../common/useTurnedHorizon';
import type { FieldLook } from '../raster/field';
import type { Mix } from '../raster/mix';
import type { Sum } from '../raster/quad';
import { lookOfPair } from '../turn/look';
import type { Surface } from './surface';

/** What names a ground begins with when it is a horizon's waveform match. */
const MATCH = 'match:';

/** The coloured grid under a map. */
export interface Ground {
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
  /** The surface of time or depth by which faults and wells are cut, where it is of one. */
  surface?: Surface;
  /** The plane of a volume that it is. */
  plane?: PlaneState;
  /** Names of its classes, where it has such. */
  names?: string[];
  /** Where it is a blend: that, how it is mixed, and the values of its channels. */
  blended?: { blend: Blend; mix: Mix; fields: (Float32Array | null)[] };
  /** What is added to its values where it is a turned pair. */
  sum?: Sum;
}

export interface ShownGround {
  ground: Ground | null;
  problem: string | null;
  /** What may be chosen, and what is. */
  options: { value: string; label: string }[];
  chosen: string;
  horizons: Horizon[];
  /** The horizon that is shown, the series that it is a page of, and what it may be coloured by. */
  horizon?: Horizon;
  series: Horizon[];
  upon: { value: string; label: string }[];
  /** The volume whose slice is shown, and which sample. */
  slice?: Volume;
  /** Where a slice lies, in words. */
  at: string;
}

/** What a map opens on: the first horizon that stands for itself, else a slice, else the first map. */
function usualGround(objects: EarthObject[], horizons: Horizon[], maps: QuantityMap[], slice: boolean): string {
  const closed = standsFor(objects);
  return horizons.find((h) => !closed.has(h.id))?.id ?? (slice ? 'slice' : (maps[0]?.id ?? NONE));
}

/** The volumes that colour a horizon. */
function useUpon(painter: Volume | undefined, blend: Blend | undefined, two: Volume[]): Volume[] {
  const of = useChannelsOf(blend, 'volume');
  return painter ? [painter] : two.length > 0 ? two : of;
}

/** Whether a horizon is a track that was closed since: another stands for it. */
const behindTrack = (horizon: Horizon, objects: EarthObject[]) => standsFor(objects).has(horizon.id);

/** Nothing under the outlines. */
const NONE = 'none';

/** Least and greatest of the values that there are. */
function extentOf(values: Float32Array): [number, number] {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  return low <= high ? [low, high] : [0, 1];
}

/** What the map shows under all else, read as it is needed. */
export function useGround(objects: EarthObject[], volume: Volume | undefined): ShownGround {
  const units = useUnits();
  const [settings] = useSettings('map');
  const { domain } = settings;
  const place = usePlace();
  const display = useDisplays();
  // with what turns one domain into the other, horizons of both
  const turns = useConversion((s) => s.model !== null);
  const horizons = objects
    .filter(
      (o): o is Horizon =>
        o.kind === 'horizon' &&
        (o.domain === domain || (turns && turnable(o, domain) === null && !behindTrack(o, objects))),
    )
    .sort((a, b) => Number(a.domain !== domain) - Number(b.domain !== domain));
  const maps = objects.filter((o): o is QuantityMap => o.kind === 'map');
  const blends = objects.filter((o): o is Blend => o.kind === 'blend' && (o.of === 'map' || o.domain === domain));
  const pairs = objects.filter((o): o is TurnedPair => o.kind === 'turned pair' && o.domain === domain);
  const sliced = volume?.domain === domain;
  const usual = usualGround(objects, horizons, maps, sliced);
  const there = (id: string) =>
    id === NONE ||
    (id === 'slice' && sliced) ||
    [...horizons, ...maps, ...blends, ...pairs].some(
      (o) => o.id === (id.startsWith(MATCH) ? id.slice(MATCH.length) : id),
    );
  const mapShows = settings.shows !== null && there(settings.shows) ? settings.shows : usual;
  const matchOf = mapShows.startsWith(MATCH) ? mapShows.slice(MATCH.length) : null;
  const chosenHorizon = horizons.find((h) => h.id === (matchOf ?? mapShows));
  usePages();
  const series = seriesOf(chosenHorizon, objects);
  // of a series the page that is turned up stands for all
  const horizon = series.length > 0 ? pageOf(series) : chosenHorizon;
  const map = maps.find((m) => m.id === mapShows);
  const slice = mapShows === 'slice' && sliced ? volume : undefined;
  const upon = horizon && !matchOf ? objects.find((o) => o.id === settings.upon) : undefined;
  const painter = upon?.kind === 'volume' && upon.domain === (horizon?.domain ?? domain) ? upon : undefined;
  const blend = useDrawnBlend(
    blends.find((b) => b.id === (horizon ? (b.of === 'volume' && settings.upon) || '' : mapShows)),
  );
  const pair = pairs.find((o) => o.id === (horizon ? settings.upon : mapShows));
  const angle = useTurnedAngle(pair);
  const two = useMemo(() => volumesOfPair(pair, objects) ?? [], [pair, objects]);
  const source = horizon ?? map ?? blend ?? pair;
  const onIt = useOnHorizon(useUpon(painter, blend, two), horizon);
  const old = useProject((s) => (source ? s.old.has(source.id) : slice ? s.old.has(slice.id) : false));
  const converted = horizon !== undefined && !matchOf && horizon.domain !== domain;
  const turned = useTurnedHorizon(converted ? horizon : undefined, domain);
  const own = useArray(
    source?.id,
    `${source?.revision}${matchOf ? '/match' : ''}`,
    matchOf ? horizon?.confidence : (horizon ?? map)?.values,
  );
  const values = converted ? turned : own;
  const lit = useBlends((s) => s.lit);
  const ofMaps = useMapFields(blend);
  const ofVolumes = usePlaneFields(horizon ? undefined : blend, 'slice', (v) => indexAt(v, 'slice', place));
  const k = slice ? indexAt(slice, 'slice', place) : 0;
  const [turnsOf, turnsWith] = horizon ? [] : two;
  const at = turnsOf ? indexAt(turnsOf, 'slice', place) : 0;
  const [pairA] = usePlane(turnsOf, 'slice', at);
  const [pairB] = usePlane(turnsWith, 'slice', at);
  const [plane, problem] = usePlane(slice, 'slice', k);
  const unit = domainUnit(domain);
  const depthOfSlice = slice ? slice.vertical.first + k * slice.vertical.step : 0;
  const options = [
    { value: NONE, label: 'Outlines only' },
    ...(volume && volume.domain === domain ? [{ value: 'slice', label: `Slice of ${volume.name}` }] : []),
    // a series is one thing to choose
    ...horizons.flatMap((h) => {
      const own = seriesOf(h, objects);
      if (own.length > 0 && pageOf(own).id !== h.id) return [];
      return [{ value: h.id, label: h.domain === domain ? h.name : `${h.name}, converted` }];
    }),
    ...maps.map((m) => ({ value: m.id, label: m.name })),
    ...[...blends, ...pairs].map((b) => ({ value: b.id, label: b.name })),
    ...horizons
      .filter((h) => h.confidence)
      .map((h) => ({ value: `${MATCH}${h.id}`, label: `Confidence of ${h.name}` })),
  ];
  /** A quantity in its colours, between two values. */
  const inColors = (quantity: string, low: number, high: number): FieldLook => {
    const { colors, symmetric, scale } = quantityFacts(quantity);
    if (scale === 'categorical') return classLook(colors, low, high);
    const end = Math.max(Math.abs(low), Math.abs(high));
    return symmetric ? { ...colors, low: -end, high: end } : { ...colors, low, high };
  };
  const turnedGround = (a: Float32Array, b: Float32Array, binGrid: BinGrid, level: number | null): Ground => ({
    binGrid,
    values: a,
    look: lookOfPair(pair as TurnedPair, angle),
    legend: `${(pair as TurnedPair).name} at ${angle}°${horizon ? ` on ${horizon.name}` : ''}`,
    quantity: 'relative impedance',
    unit: '',
    vertical: level,
    interval: null,
    sum: { second: b, weights: rotationWeights(angle) },
  });
  const groundNow = (): Ground | null => {
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
    if (blend && !horizon) {
      const [of, fields] =
        blend.of === 'map' ? [ofMaps.maps[0], ofMaps.fields] : [ofVolumes.volumes[0], ofVolumes.fields];
      const mix = of && mixOf(blend, fields, lit);
      const [first] = fields;
      if (!of || !mix || !first) return null;
      const level = of.kind === 'volume' ? of.vertical.first + ofVolumes.index * of.vertical.step : null;
      return {
        binGrid: of.binGrid,
        values: first,
        look: inColors(of.quantity, 0, 1),
        legend: `blend of ${blend.shade ? 'three and a shade' : 'three'}`,
        quantity: of.quantity,
        unit: of.unit,
        vertical: level,
        interval: null,
        blended: { blend, mix, fields },
      };
    }
    if (pair && !horizon) {
      if (!turnsOf || !pairA || !pairB || pairA.index !== pairB.index || pairA.coarse || pairB.coarse) return null;
      return turnedGround(
        pairA.data,
        pairB.data,
        turnsOf.binGrid,
        turnsOf.vertical.first + pairA.index * turnsOf.vertical.step,
      );
    }
    if (!values) return null;
    if (horizon && !matchOf && pair)
      return (
        onIt && {
          ...turnedGround(onIt[0], onIt[1], horizon.binGrid, null),
          surface: { binGrid: horizon.binGrid, values },
        }
      );
    if (horizon && !matchOf && (painter || blend)) {
      if (!onIt) return null;
      const surface = { binGrid: horizon.binGrid, values };
      if (painter)
        return {
          binGrid: horizon.binGrid,
          values: onIt[0],
          look: lookOf(painter, displayOf(display, painter)),
          legend: `${quantityText(painter, units)} on ${horizon.name}`,
          quantity: painter.quantity,
          unit: painter.unit,
          vertical: null,
          interval: null,
          surface,
        };
      const mix = blend && mixOf(blend, onIt, lit);
      if (!blend || !mix) return null;
      return {
        binGrid: horizon.binGrid,
        values: onIt[0],
        look: inColors('attribute', 0, 1),
        legend: `blend of ${blend.shade ? 'three and a shade' : 'three'} on ${horizon.name}`,
        quantity: blend.name,
        unit: '',
        vertical: null,
        interval: null,
        surface,
        blended: { blend, mix, fields: onIt },
      };
    }
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
      const [low, high] = converted ? extentOf(values) : horizon.range;
      // a round interval in the unit that is shown; what is level has no contours
      const round = high > low ? contourInterval(units.to(low, unit), units.to(high, unit)) : null;
      const interval = round === null ? null : units.from(round, unit);
      return {
        binGrid: horizon.binGrid,
        values,
        look: { map: 'strata', low, high, reverse: false, steps: Math.round((high - low) / (interval ?? 1)) || 1 },
        legend: `${domainAxis(domain, units)}${round === null ? ', level' : `, every ${round}`}`,
        quantity: horizon.name,
        unit,
        vertical: 'values',
        interval,
        surface: { binGrid: horizon.binGrid, values },
      };
    }
    if (!map) return null;
    return {
      binGrid: map.binGrid,
      values,
      look: inColors(map.quantity, ...map.range),
      names: map.classes,
      legend: quantityText(map, units),
      quantity: map.quantity,
      unit: map.unit,
      vertical: null,
      interval: null,
    };
  };
  const trial = useMapTrial((s) => s.map);
  const made = trial
    ? {
        binGrid: trial.binGrid,
        values: trial.values,
        look: inColors(trial.quantity, ...extentOf(trial.values)),
        legend: `${quantityText(trial, units)}, a trial`,
        quantity: trial.quantity,
        unit: trial.unit,
        vertical: null,
        interval: null,
      }
    : groundNow();
  return {
    ground: made && old && !trial ? { ...made, legend: `${made.legend}, out of date` } : made,
    problem: problem ?? ofVolumes.problem,
    options,
    chosen: horizon && !matchOf ? horizon.id : source || slice ? mapShows : NONE,
    horizons,
    horizon: matchOf ? undefined : horizon,
    series: matchOf ? [] : series,
    upon: [
      { value: '', label: domainTitle(domain) },
      ...objects
        .filter((o) => (o.kind === 'volume' || o.kind === 'blend' || o.kind === 'turned pair') && o.domain === domain)
        .map((o) => ({ value: o.id, label: o.name })),
    ],
    slice,
    at: slice
      ? `at ${units.text(depthOfSlice, unit, 0)}`
      : (blend?.of === 'volume' || pair) && typeof made?.vertical === 'number'
        ? `at ${units.text(made.vertical, unit, 0)}`
        : '',
  };
}
