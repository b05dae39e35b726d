import type { EarthObject, Volume } from '../earth/objects.ts';
import { outOfDate } from '../trail/staleness.ts';
import { waitingFor } from './wells.ts';

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

/** Facts of one object as labelled lines, the same wherever they are shown. */
export function factsOf(object: EarthObject): { label: string; value: string }[] {
  const fixed = (v: number, places: number) => v.toFixed(places);
  const out: { label: string; value: string }[] = [{ label: 'Kind', value: object.kind }];
  if ('domain' in object)
    out.push({
      label: 'Domain',
      value: object.domain === 'twt' ? 'TWT, ms' : object.domain === 'depth' ? 'Depth, m' : 'Age',
    });
  switch (object.kind) {
    case 'volume': {
      const { lattice: l, vertical: v, statistics: s, traces: t } = object;
      const span = (a: typeof l.inline) =>
        `${a.first} to ${a.first + a.step * (a.count - 1)}${a.step === 1 ? '' : ` by ${a.step}`} (${a.count})`;
      const step = object.domain === 'twt' ? 'ms' : 'm';
      out.push(
        { label: 'Quantity', value: object.unit ? `${object.quantity}, ${object.unit}` : object.quantity },
        ...(object.quantity === 'amplitude' ? [{ label: 'Polarity', value: polarityOf(object) }] : []),
        { label: 'Inlines', value: span(l.inline) },
        { label: 'Crosslines', value: span(l.crossline) },
        {
          label: 'Bin',
          value: `${fixed(Math.hypot(...l.perCrossline), 2)} × ${fixed(Math.hypot(...l.perInline), 2)} m`,
        },
        { label: 'Samples', value: `${v.count} from ${v.first} by ${v.step} ${step}` },
        { label: 'Range', value: `${s.min.toPrecision(4)} to ${s.max.toPrecision(4)}, rms ${s.rms.toPrecision(4)}` },
        { label: 'Traces', value: `${t.live} live, ${t.missing} missing, ${t.duplicate} duplicate` },
      );
      break;
    }
    case 'well':
      out.push(
        { label: 'Head', value: `${fixed(object.x, 2)} E, ${fixed(object.y, 2)} N` },
        { label: 'Kelly bushing', value: `${fixed(object.kbM, 2)} m above mean sea level` },
      );
      if (object.totalMdM) out.push({ label: 'Total depth', value: `${fixed(object.totalMdM, 1)} m MD` });
      if (object.status) out.push({ label: 'Status', value: object.status });
      break;
    case 'logs':
      out.push(
        { label: 'Well', value: object.well },
        {
          label: 'Depths',
          value: `${fixed(object.depth.firstM, 2)} to ${fixed(object.depth.firstM + object.depth.stepM * (object.depth.count - 1), 2)} m MD by ${fixed(object.depth.stepM, 4)}`,
        },
        ...object.curves.map((c) => ({
          label: c.mnemonic,
          value: `${c.class}, ${c.unit}${c.nulls ? `, ${c.nulls} null` : ''}`,
        })),
      );
      break;
    case 'horizon':
      out.push(
        {
          label: 'Range',
          value: `${fixed(object.range[0], 1)} to ${fixed(object.range[1], 1)} ${object.domain === 'twt' ? 'ms' : 'm'}`,
        },
        { label: 'Filled', value: `${fixed(100 * object.filled, 1)} % of its bins` },
      );
      break;
    case 'contacts': {
      const range = (r: [number, number] | null) => (r ? ` (${fixed(r[0], 1)} to ${fixed(r[1], 1)})` : ' (typed)');
      out.push(
        {
          label: 'Gas–oil',
          value: object.gocM === null ? 'none' : `${fixed(object.gocM, 1)} m TVDSS${range(object.gocRange)}`,
        },
        { label: 'Oil–water', value: `${fixed(object.owcM, 1)} m TVDSS${range(object.owcRange)}` },
      );
      if (object.misfitPa !== undefined)
        out.push({ label: 'Misfit', value: `${fixed(object.misfitPa / 1e5, 3)} bar rms` });
      break;
    }
    case 'map':
      out.push(
        { label: 'Quantity', value: `${object.quantity}, ${object.unit}` },
        { label: 'Range', value: `${fixed(object.range[0], 2)} to ${fixed(object.range[1], 2)} ${object.unit}` },
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
        { label: 'Water', value: `${object.waterVelocity} m/s` },
        ...object.layers.map((l) => ({
          label: `To ${l.base}`,
          value: `${l.v0.toFixed(0)} m/s + ${l.k.toFixed(3)} /s · z${l.points ? `; ${l.rms.toFixed(1)} m rms at ${l.points} points` : ''}`,
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
    case 'result table':
      out.push({ label: 'Rows', value: String(object.rows.length) });
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
