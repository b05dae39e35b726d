import { z } from 'zod';
import { LithagonError } from '../../earth/errors.ts';
import type { Horizon, ResultTable, Volume, Well } from '../../earth/objects.ts';
import type { Given, LocalStep } from '../../engine/local.ts';
import {
  probabilityOfClass,
  probabilityOfRange,
  type RockSample,
  type RockStatistics,
  rockStatistics,
} from '../../inversion/probability.ts';
import { sizeOf } from '../../numerics/block.ts';
import { binsAlong, samplesAlong } from '../../project/traces.ts';
import { atSamples, timedLog } from '../../project/wells/timedLogs.ts';
import { onBinsOf } from '../../project/windows.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, number, text, wellsInput } from '../define.ts';

const GIVES = [
  'range of an inversion',
  'rock by wells',
  'range of realizations',
  'mean of realizations',
  'spread of realizations',
] as const;

const params = z.object({
  gives: choice(
    {
      title: 'Gives',
      description:
        'From an inversion and its spread in closed form, or from realizations by counting; rock of a kind as wells have it.',
    },
    [...GIVES],
    'range of an inversion',
  ),
  from: number(
    { title: 'From', description: 'Least value of the range.', among: 'mean' },
    { min: -1e9, max: 1e9, initial: 0 },
  ),
  to: number({ title: 'To', description: 'Greatest.', among: 'mean' }, { min: -1e9, max: 1e9, initial: 1e9 }),
  alsoFrom: number(
    { title: 'And from', description: 'Of the second realizations, which have to lie in their range too.' },
    { min: -1e9, max: 1e9, initial: -1e9 },
  ),
  alsoTo: number({ title: 'And to', description: 'Greatest of those.' }, { min: -1e9, max: 1e9, initial: 1e9 }),
  curve: text(
    { title: 'Rock by', description: 'Curve that tells the kind of rock in wells.', names: 'curve' },
    'net flag',
  ),
  least: number(
    {
      title: 'From the value',
      description: 'Rock of the kind is where the curve is no less: of a net flag 1 is reservoir, 2 pay.',
    },
    { min: -1e6, max: 1e6, step: 0.05, initial: 1 },
  ),
  marginMs: number(
    {
      title: 'Beside the zone',
      description: 'How far above its top and below its base wells count, and probabilities are given.',
      unit: 'ms',
    },
    { min: 0, max: 2000, step: 4, initial: 40 },
  ),
});
type Params = z.infer<typeof params>;

interface Prepared {
  /** Rock inside the zone, and in the margin beside it; null where none is asked for. */
  rock: ReturnType<typeof rockStatistics> | null;
  /** Deviation of the logarithm before data, beside that of the model. */
  expected: number;
  top: Float32Array | null;
  base: Float32Array | null;
  notes: string[];
}

interface Ready extends Prepared {
  volumes: Record<string, Volume>;
}

/** What wells say of rock of the kind and of the rest, where the zone is. */
async function prepareClasses(given: Given, { store, params: p }: { store: Store; params: Params }): Promise<Prepared> {
  const reference = (given.mean ?? (given.volumes as Volume[] | undefined)?.[0]) as Volume | undefined;
  if (!reference)
    throw new LithagonError('input', 'Neither an inversion nor realizations were chosen.', {
      fix: 'Choose one of them. Nothing was changed.',
    });
  const [top, base] = await Promise.all(
    [given.top, given.base].map((h) => (h ? onBinsOf(store, h as Horizon, reference.binGrid) : null)),
  );
  const nothing: Prepared = { rock: null, expected: 0, top, base, notes: [] };
  if (p.gives.endsWith('realizations')) {
    if (!((given.volumes as Volume[] | undefined)?.length ?? 0))
      throw new LithagonError('input', `“${p.gives}” needs realizations.`, {
        fix: 'Draw some, and choose them. Nothing was changed.',
      });
    return nothing;
  }
  if (!given.mean || !given.spread)
    throw new LithagonError('input', `“${p.gives}” needs an inversion and its spread.`, {
      fix: 'Choose both. Nothing was changed.',
    });
  if (p.gives !== 'rock by wells') return nothing;
  const [mean, model] = [given.mean as Volume, given.background as Volume | undefined];
  if (!model)
    throw new LithagonError('input', 'Rock by wells is told against the low-frequency model, and none was chosen.', {
      fix: 'Choose the model of the inversion. Nothing was changed.',
    });
  const objects = await store.list();
  const notes: string[] = [];
  const samples: RockSample[] = [];
  // all that the inversion expected of rock, in the zone and beside it
  const everywhere: number[] = [];
  for (const well of (given.wells ?? []) as Well[]) {
    const [log, rock] = [
      await timedLog(store, objects, well, 'P impedance'),
      await timedLog(store, objects, well, p.curve),
    ];
    if (typeof log === 'string' || typeof rock === 'string') {
      notes.push(`${typeof log === 'string' ? log : rock}; it was left out.`);
      continue;
    }
    const bins = binsAlong(mean, log.place);
    const along = await samplesAlong(store, model, bins);
    const [z, r] = [atSamples(log, mean.vertical), atSamples(rock, mean.vertical)];
    const { first, step } = mean.vertical;
    const columns = mean.binGrid.crossline.count;
    for (let k = 0; k < z.length; k++) {
      const ms = first + k * step;
      const bin = bins[k][0] * columns + bins[k][1];
      const x = Math.log(z[k] / along[k]);
      if (x !== x) continue;
      everywhere.push(x);
      if ((top && !(ms >= top[bin] - p.marginMs)) || (base && !(ms <= base[bin] + p.marginMs))) continue;
      // beyond where the curve is there nothing is of the kind
      samples.push({
        well: well.name,
        value: x,
        own: r[k] >= p.least - 0.5 * Math.min(1, Math.abs(p.least)),
        inside: !((top && ms < top[bin]) || (base && ms > base[bin])),
      });
    }
  }
  const own = samples.filter((s) => s.own).length;
  if (own < 5 || samples.length - own < 5)
    throw new LithagonError(
      'probability',
      `Wells have ${own} samples of the kind and ${samples.length - own} of the rest there; five of each are the least.`,
      { fix: 'Choose more wells, another curve or value, or a greater margin. Nothing was changed.' },
    );
  const expected = Math.sqrt(everywhere.reduce((s, x) => s + x * x, 0) / everywhere.length);
  return { rock: rockStatistics(samples), expected, top, base, notes };
}

const local: LocalStep<Params, Prepared, Ready> = {
  volumes: ['mean', 'spread', 'background', 'deviation', 'volumes', 'also'],
  otherGrids: true,
  halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
  prepareRestsOn: ['gives', 'curve', 'least', 'marginMs'],
  prepare: (given, work) => prepareClasses(given, work),
  ready: (prepared, _, volumes) => ({ ...prepared, volumes }),
  outputOf: (volume, p) =>
    p.gives === 'mean of realizations'
      ? { quantity: volume.quantity, unit: volume.unit }
      : p.gives === 'spread of realizations'
        ? { quantity: 'spread', unit: '1' }
        : { quantity: 'probability', unit: '1' },
  evaluate(blocks, p, { rock, expected, top, base, volumes }, region) {
    const [ni, nj, nk] = sizeOf(region);
    const out = new Float32Array(ni * nj * nk);
    const [reference] = Object.values(volumes);
    const { first, step } = reference.vertical;
    const columns = reference.binGrid.crossline.count;
    const of = (role: string) =>
      Object.keys(blocks)
        .filter((key) => key.startsWith(`${role}/`))
        .map((key) => blocks[key].data);
    const [drawn, also] = [of('volumes'), of('also')];
    const count = also.length > 0 ? Math.min(drawn.length, also.length) : drawn.length;
    for (let n = 0; n < out.length; n++) {
      const t = Math.floor(n / nk);
      const bin = (region.i[0] + Math.floor(t / nj)) * columns + region.j[0] + (t % nj);
      const ms = first + (region.k[0] + (n % nk)) * step;
      if ((top && !(ms >= top[bin] - p.marginMs)) || (base && !(ms <= base[bin] + p.marginMs))) {
        out[n] = Number.NaN;
        continue;
      }
      switch (p.gives) {
        case 'range of an inversion':
          out[n] = probabilityOfRange(blocks.mean.data[n], blocks.spread.data[n], p.from, p.to);
          break;
        case 'rock by wells': {
          const unsure = blocks.deviation?.data[n] ?? 0;
          const { inside, beside } = rock as NonNullable<typeof rock>;
          const here = (top && ms < top[bin]) || (base && ms > base[bin]) ? beside : inside;
          out[n] = probabilityOfClass(
            Math.log(blocks.mean.data[n] / blocks.background.data[n]),
            Math.max(1e-4, blocks.spread.data[n]),
            Math.hypot(expected, unsure),
            here.classes,
            here.part,
          );
          break;
        }
        case 'range of realizations': {
          let inside = 0;
          for (let r = 0; r < count; r++)
            if (
              drawn[r][n] >= p.from &&
              drawn[r][n] <= p.to &&
              (also.length === 0 || (also[r][n] >= p.alsoFrom && also[r][n] <= p.alsoTo))
            )
              inside++;
          out[n] = drawn[0][n] === drawn[0][n] ? inside / count : Number.NaN;
          break;
        }
        default: {
          let [sum, squares] = [0, 0];
          for (let r = 0; r < drawn.length; r++) {
            const v = Math.log(drawn[r][n]);
            sum += v;
            squares += v * v;
          }
          const mean = sum / drawn.length;
          out[n] =
            p.gives === 'mean of realizations'
              ? Math.exp(mean)
              : Math.sqrt(Math.max(0, squares - drawn.length * mean * mean) / Math.max(1, drawn.length - 1));
        }
      }
    }
    return { probability: out };
  },
  says: ({ rock, notes }) => [
    ...notes,
    ...(rock ? [saidOf('Inside the zone', rock.inside), saidOf('Beside it', rock.beside)] : []),
  ],
};

const percent = (v: number) => (100 * v).toFixed(1);

const saidOf = (where: string, { classes: [own, rest], part }: RockStatistics) =>
  `${where} ${(100 * part).toFixed(0)} % is of the kind before data: it lies ${percent(own.mean)} ± ${percent(own.deviation)} % off the model, the rest ${percent(rest.mean)} ± ${percent(rest.deviation)} %.`;

export const probability = defineStep({
  id: 'invert.probability',
  version: 1,
  stage: 'invert',
  purpose: 'Absolute impedance',
  title: 'Probability',
  summary:
    'How probable a range of impedance is, or rock or fluid of a kind as wells have it: in closed form from an inversion and its spread, or by counting realizations, of two quantities together where wanted.',
  formula: 'P(a < Z < b) = Φ((ln b − μ)/σ) − Φ((ln a − μ)/σ); P(c | d) ∝ P(c)·∫ p(m | c)·p(d | m) dm.',
  avoid: 'Far from the rocks that wells met: a kind that none of them has is never probable.',
  source:
    'Avseth, Mukerji & Mavko (2005), Quantitative Seismic Interpretation, Cambridge, ch. 3; Buland & Omre (2003), Geophysics 68, 185–198',
  reach: 'local',
  inputs: {
    mean: {
      kind: 'volume',
      title: 'Inversion',
      quantity: ['impedance', 'interval velocity', 'S velocity', 'density'],
      domain: 'twt',
      optional: true,
      begins: true,
      usual: { step: 'invert.impedance', output: 'impedance' },
    },
    spread: {
      kind: 'volume',
      title: 'Its spread',
      quantity: ['spread'],
      domain: 'twt',
      optional: true,
      begins: true,
      usual: { step: 'invert.impedance', output: 'spread' },
    },
    background: {
      kind: 'volume',
      title: 'Low-frequency model',
      quantity: ['impedance'],
      domain: 'twt',
      optional: true,
      begins: true,
      usual: { step: 'invert.background', output: 'background' },
    },
    deviation: {
      kind: 'volume',
      title: 'Its deviation',
      quantity: ['spread'],
      domain: 'twt',
      optional: true,
      begins: true,
      usual: { step: 'invert.background', output: 'deviation' },
    },
    volumes: {
      kind: 'volume',
      title: 'Realizations',
      many: true,
      optional: true,
      begins: false,
      quantity: ['impedance', 'interval velocity', 'S velocity', 'density'],
    },
    also: {
      kind: 'volume',
      title: 'Realizations of another',
      many: true,
      optional: true,
      begins: false,
      quantity: ['impedance', 'interval velocity', 'S velocity', 'density'],
    },
    wells: wellsInput(['directional surveys', 'logs', 'checkshots', 'time-depth relation'], { optional: true }),
    top: { kind: 'horizon', title: 'Top of the zone', domain: 'twt', optional: true },
    base: { kind: 'horizon', title: 'Base of the zone', domain: 'twt', optional: true },
  },
  params,
  outputs: {
    probability: { kind: 'volume', title: 'Probability' },
    classes: { kind: 'result table', title: 'Rock as wells have it' },
  },
  local,
  async run(context) {
    const { rock } = (await context.prepared()) as Prepared;
    return { ...(await context.stored()), ...(rock ? { classes: classTable(rock) } : {}) };
  },
});

const classTable = ({ inside, beside }: ReturnType<typeof rockStatistics>): Draft<ResultTable> => ({
  kind: 'result table',
  columns: [
    { name: 'Where', unit: '' },
    { name: 'Rock', unit: '' },
    { name: 'Samples', unit: '' },
    { name: 'Part before data', unit: '1' },
    { name: 'Off the model', unit: '%' },
    { name: 'Deviation', unit: '%' },
  ],
  rows: [
    { where: 'Inside the zone', ...inside },
    { where: 'Beside it', ...beside },
  ].flatMap(({ where, classes, part }) =>
    classes.map((c, n): ResultTable['rows'][number] => [
      where,
      n === 0 ? 'Of the kind' : 'The rest',
      c.count,
      n === 0 ? part : 1 - part,
      100 * c.mean,
      100 * c.deviation,
    ]),
  ),
});
