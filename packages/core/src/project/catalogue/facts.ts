import { type Units, unitsOf } from '../../earth/display.ts';
import { domainUnit, type EarthObject, type Volume } from '../../earth/objects.ts';
import { outOfDate } from '../../trail/staleness.ts';
import { distances } from '../lines.ts';
import { waitingFor } from '../wells/wells.ts';

/** One line of a project's list. */
export interface Listed {
  id: string;
  kind: string;
  name: string;
  stage: string;
  domain?: string;
  quantity?: string;
  unit?: string;
  outOfDate: boolean;
  waitingFor?: string;
}

/** What a project holds, in the order of the work. */
export function listObjects(objects: EarthObject[]): Listed[] {
  const old = outOfDate(objects);
  const waiting = waitingFor(objects);
  return objects.map((o) => ({
    id: o.id,
    kind: o.kind,
    name: o.name,
    stage: o.stage,
    ...('domain' in o ? { domain: o.domain } : {}),
    ...('quantity' in o ? { quantity: o.quantity } : {}),
    ...('unit' in o ? { unit: o.unit } : {}),
    outOfDate: old.has(o.id),
    ...(waiting.has(o.id) ? { waitingFor: waiting.get(o.id) } : {}),
  }));
}

function polarityOf({ polarity }: Volume): string {
  if (!polarity) return 'not declared';
  return polarity === 'harder-positive' ? '+ is harder' : '− is harder';
}

function samplesOf({ vertical: v, domain }: Pick<Volume, 'vertical' | 'domain'>, units: Units): string {
  const step = domainUnit(domain);
  return `${v.count} from ${Number(units.to(v.first, step).toFixed(2))} by ${Number(units.to(v.step, step).toFixed(4))} ${units.of(step)}`;
}

/** Facts of one object as labelled lines, the same wherever they are shown. */
export function factsOf(object: EarthObject, units: Units = unitsOf(null)): { label: string; value: string }[] {
  const fixed = (v: number, places: number) => v.toFixed(places);
  const out: { label: string; value: string }[] = [{ label: 'Kind', value: object.kind }];
  if ('domain' in object)
    out.push({
      label: 'Domain',
      value: object.domain === 'twt' ? 'TWT, ms' : object.domain === 'depth' ? `Depth, ${units.of('m')}` : 'Age',
    });
  switch (object.kind) {
    case 'volume': {
      const { lattice: l, statistics: s, traces: t } = object;
      const span = (a: typeof l.inline) =>
        `${a.first} to ${a.first + a.step * (a.count - 1)}${a.step === 1 ? '' : ` by ${a.step}`} (${a.count})`;
      const shown = (value: number) => units.to(value, object.unit).toPrecision(4).replace('-', '−');
      out.push(
        { label: 'Quantity', value: [object.quantity, units.of(object.unit)].filter(Boolean).join(', ') },
        ...(object.quantity === 'amplitude' ? [{ label: 'Polarity', value: polarityOf(object) }] : []),
        { label: 'Inlines', value: span(l.inline) },
        { label: 'Crosslines', value: span(l.crossline) },
        {
          label: 'Bin',
          value: `${fixed(units.to(Math.hypot(...l.perCrossline), 'm'), 2)} × ${units.text(Math.hypot(...l.perInline), 'm', 2)}`,
        },
        ...(l.local ? [{ label: 'Place', value: 'not on the map yet: a grid of its own' }] : []),
        {
          label: 'Samples',
          value: samplesOf(object, units),
        },
        { label: 'Range', value: `${shown(s.min)} to ${shown(s.max)}, rms ${shown(s.rms)}` },
        ...(object.layouts ? [] : [{ label: 'Kept', value: 'live: worked out where it is looked at' }]),
        ...(object.layouts?.inline.scaled
          ? [{ label: 'Kept in', value: `16 bits, to ${(object.layouts.inline.scaled.factor / 2).toPrecision(3)}` }]
          : []),
        { label: 'Traces', value: `${t.live} live, ${t.missing} missing, ${t.duplicate} duplicate` },
      );
      break;
    }
    case 'well':
      out.push(
        { label: 'Head', value: `${fixed(object.x, 2)} E, ${fixed(object.y, 2)} N` },
        { label: 'Kelly bushing', value: `${units.text(object.kbM, 'm', 2)} above mean sea level` },
      );
      if (object.totalMdM) out.push({ label: 'Total depth', value: units.text(object.totalMdM, 'm MD') });
      if (object.status) out.push({ label: 'Status', value: object.status });
      break;
    case 'logs':
      out.push(
        { label: 'Well', value: object.well },
        {
          label: 'Depths',
          value: `${fixed(units.to(object.depth.firstM, 'm'), 2)} to ${units.text(object.depth.firstM + object.depth.stepM * (object.depth.count - 1), 'm MD', 2)} by ${fixed(units.to(object.depth.stepM, 'm'), 4)}`,
        },
        ...object.curves.map((c) => ({
          label: c.mnemonic,
          value: `${c.class}, ${units.of(c.unit)}${c.nulls ? `, ${c.nulls} null` : ''}`,
        })),
      );
      break;
    case 'horizon':
      out.push(
        {
          label: 'Range',
          value: `${fixed(units.to(object.range[0], domainUnit(object.domain)), 1)} to ${units.text(object.range[1], domainUnit(object.domain))}`,
        },
        { label: 'Filled', value: `${fixed(100 * object.filled, 1)} % of its bins` },
      );
      break;
    case 'contacts': {
      const typed = object.misfitPa === undefined;
      const range = (r: [number, number] | null) =>
        r ? ` (${fixed(units.to(r[0], 'm'), 1)} to ${fixed(units.to(r[1], 'm'), 1)})` : typed ? ' (typed)' : '';
      const depth = units.text(object.owcM, 'm TVDSS');
      const noOil = object.gocM !== null && object.gocM === object.owcM;
      if (!noOil)
        out.push({
          label: 'Gas–oil',
          value: object.gocM === null ? 'none' : `${units.text(object.gocM, 'm TVDSS')}${range(object.gocRange)}`,
        });
      out.push({
        label: noOil ? 'Gas–water' : 'Oil–water',
        value:
          object.base === 'at or below'
            ? `at or below ${depth}, the deepest ${noOil ? 'gas' : 'oil'}`
            : `${depth}${range(object.owcRange)}${object.base === 'assumed' ? ', against water that was assumed' : ''}`,
      });
      if (object.misfitPa !== undefined)
        out.push({
          label: 'Misfit',
          value: `${units.text(object.misfitPa, 'Pa', units.of('Pa') === 'psi' ? 0 : 4)} rms`,
        });
      break;
    }
    case 'map':
      out.push(
        { label: 'Quantity', value: `${object.quantity}, ${units.of(object.unit)}` },
        {
          label: 'Range',
          value: `${fixed(units.to(object.range[0], object.unit), 2)} to ${units.text(object.range[1], object.unit, 2)}`,
        },
      );
      break;
    case 'picks':
      out.push(
        { label: 'Event', value: object.event },
        { label: 'Picks', value: String(object.points.length) },
        { label: 'Erased', value: object.erased.length === 1 ? 'one area' : `${object.erased.length} areas` },
      );
      break;
    case 'fault':
      out.push({
        label: 'Sticks',
        value: `${object.sticks.length}, ${object.sticks.reduce((n, s) => n + s.length, 0)} points`,
      });
      break;
    case 'velocity model':
      out.push(
        { label: 'Water', value: units.text(object.waterVelocity, 'm/s', 0) },
        ...object.layers.map((l) => ({
          label: `To ${l.base}`,
          value: `${units.text(l.v0, 'm/s', 0)} + ${l.k.toFixed(3)} /s · z${l.points ? `; ${units.text(l.rms, 'm')} rms at ${l.points} points` : ''}`,
        })),
      );
      break;
    case 'wavelet':
      out.push(
        { label: 'Method', value: object.method },
        {
          label: 'Length',
          value: `${((object.samples.length - 1) * object.stepMs).toFixed(0)} ms by ${object.stepMs} ms`,
        },
        { label: 'Phase', value: `${object.phaseDeg.toFixed(0)}°` },
        ...(object.angleDeg === undefined ? [] : [{ label: 'Angle', value: `${object.angleDeg}°` }]),
        ...(object.estimate
          ? [
              { label: 'Predicts', value: `${(100 * object.estimate.predictability).toFixed(0)} % of the trace` },
              { label: 'From', value: object.estimate.wells.join(', ') },
            ]
          : []),
      );
      break;
    case 'time-depth relation':
      out.push(
        { label: 'Well', value: object.well },
        {
          label: 'Correlation',
          value: `${object.correlation.toFixed(2)}, ${object.windowMs.map((t) => t.toFixed(0)).join(' to ')} ms`,
        },
        { label: 'Shift', value: `${object.shiftMs.toFixed(1)} ms` },
        { label: 'Wavelet phase', value: `${object.phaseDeg.toFixed(0)}°` },
        { label: 'Knees', value: String(object.knees.length) },
      );
      break;
    case 'seismic line': {
      const path = distances(object.path);
      out.push(
        { label: 'Quantity', value: [object.quantity, units.of(object.unit)].filter(Boolean).join(', ') },
        { label: 'Traces', value: String(object.cdps.length) },
        { label: 'CDP', value: `${object.cdps[0]} to ${object.cdps[object.cdps.length - 1]}` },
        ...(object.shotpoints
          ? [
              {
                label: 'Shotpoint',
                value: `${object.shotpoints[0]} to ${object.shotpoints[object.shotpoints.length - 1]}`,
              },
            ]
          : []),
        {
          label: 'Length',
          value: path.length > 0 ? units.text(path[path.length - 1], 'm', 0) : 'from its navigation',
        },
        {
          label: 'Samples',
          value: samplesOf(object, units),
        },
      );
      break;
    }
    case 'navigation':
      out.push(
        { label: 'Line', value: object.line },
        { label: 'Points', value: `${object.points.length}, by ${object.by}` },
      );
      break;
    case 'stratigraphic column':
      out.push(
        { label: 'Units', value: String(object.units.length) },
        ...object.units.map((u) => ({ label: u.top, value: `${u.zone}${u.unconformity ? ', unconformity' : ''}` })),
      );
      break;
    case 'synthetic gather':
      out.push(
        { label: 'Well', value: object.well },
        { label: 'Angles', value: `${object.anglesDeg.join(', ')}°` },
        { label: 'Reflections', value: object.form },
      );
      break;
    case 'crossplot class':
      out.push(
        { label: 'Along', value: `${object.x.of}${object.x.log ? ', logarithmic' : ''}` },
        { label: 'Against', value: `${object.y.of}${object.y.log ? ', logarithmic' : ''}` },
        { label: 'Corners', value: String(object.ring.length) },
      );
      break;
    case 'result table':
      out.push({ label: 'Rows', value: String(object.rows.length) });
      break;
    case 'points':
      out.push({ label: 'Points', value: String(object.points.length) });
      break;
    case 'polygon':
      out.push({ label: 'Points', value: String(object.rings.reduce((n, r) => n + r.length, 0)) });
      break;
    default:
      out.push(
        { label: 'Well', value: object.well || '(field)' },
        { label: 'Rows', value: String(object.rows.length) },
      );
  }
  return out;
}
