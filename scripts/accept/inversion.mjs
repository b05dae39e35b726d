// Inversion: relative and absolute impedance at the blind well, misfit, probability of sand, net pay of the Crest; one set of
// parameters for all seeds, those that steps begin with wherever that is possible.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { cli } from './field.mjs';
import { median, must, row } from './score.mjs';

const part = 'inversion';
const [INLINE, CROSSLINE] = [1000, 2000];
const WELLS = ['QN-1', 'QN-2', 'QN-3', 'QN-4'];
const BLIND = 'QN-5';
/** Half width of an 80 % band, in standard deviations. */
const EIGHTY = 1.2816;
/** Bands of predicted probability. */
const BANDS = 5;

function make(work, step, inputs, params, name) {
  const roles = Object.entries(inputs).flatMap(([role, of]) =>
    [of].flat().flatMap((one) => ['--in', `${role}=${one}`]),
  );
  const set = Object.entries(params).flatMap(([key, value]) => ['--set', `${key}=${value}`]);
  cli('do', step, '--project', work.project, ...roles, ...set, '--name', name);
}

/** One trace of a volume, from its copy by inlines. */
function traceOf(work, volume, i, j) {
  const ref = volume.layouts.inline;
  const [, nj, nk] = ref.shape;
  const chunk = Math.floor(i / ref.chunk[0]);
  const bytes = readFileSync(join(work.project, 'arrays', ref.key, ref.flat ? `c.${chunk}.0.0` : `c/${chunk}/0/0`));
  const data = new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
  const from = ((i - chunk * ref.chunk[0]) * nj + j) * nk;
  return data.subarray(from, from + nk);
}

function arrayOf(work, ref) {
  const bytes = readFileSync(join(work.project, 'arrays', ref.key, 'c/0/0'));
  return new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length));
}

/** Logarithm of the true impedance of a well at samples of a volume: the mean over the interval about each. */
function truthAlong(work, well, { first, step, count }) {
  const rows = work.truth('wells.csv').filter((r) => r.well === well);
  const [sums, weights] = [new Float64Array(count), new Float64Array(count)];
  for (let n = 0; n + 1 < rows.length; n++) {
    const [a, b] = [rows[n].twt_ms, rows[n + 1].twt_ms];
    const value = Math.log(rows[n].vp_m_s * rows[n].density_kg_m3);
    for (let q = 0; q < 5; q++) {
      const k = Math.round((a + ((b - a) * (q + 0.5)) / 5 - first) / step);
      if (!(b > a) || k < 0 || k >= count) continue;
      sums[k] += value * (b - a);
      weights[k] += b - a;
    }
  }
  return sums.map((s, k) => (weights[k] > 3 * step ? s / weights[k] : Number.NaN));
}

/** A series without what lies outside a band, by a plain Fourier sum: slow, and nobody else's. */
function banded(values, stepMs, [a, b, c, d]) {
  const known = [...values.keys()].filter((k) => values[k] === values[k]);
  const [from, to] = [known[0], known[known.length - 1]];
  const n = to - from + 1;
  const slope = (values[to] - values[from]) / (n - 1);
  const x = Float64Array.from({ length: n }, (_, k) => (values[from + k] || 0) - values[from] - slope * k);
  const gain = (f) => (f <= a || f >= d ? 0 : f < b ? (f - a) / (b - a) : f > c ? (d - f) / (d - c) : 1);
  const out = new Float64Array(values.length).fill(Number.NaN);
  const made = new Float64Array(n);
  for (let m = 1; m < n / 2; m++) {
    const g = gain((1000 * m) / (n * stepMs));
    if (g === 0) continue;
    let [re, im] = [0, 0];
    for (let k = 0; k < n; k++) {
      re += x[k] * Math.cos((2 * Math.PI * m * k) / n);
      im += x[k] * Math.sin((2 * Math.PI * m * k) / n);
    }
    for (let k = 0; k < n; k++)
      made[k] += ((2 * g) / n) * (re * Math.cos((2 * Math.PI * m * k) / n) + im * Math.sin((2 * Math.PI * m * k) / n));
  }
  for (let k = 10; k < n - 10; k++) out[from + k] = made[k];
  return out;
}

function correlation(a, b) {
  let [n, sa, sb, aa, bb, ab] = [0, 0, 0, 0, 0, 0];
  for (let k = 0; k < a.length; k++) {
    if (a[k] !== a[k] || b[k] !== b[k]) continue;
    n++;
    sa += a[k];
    sb += b[k];
    aa += a[k] ** 2;
    bb += b[k] ** 2;
    ab += a[k] * b[k];
  }
  return (ab / n - (sa * sb) / n / n) / Math.sqrt((aa / n - (sa / n) ** 2) * (bb / n - (sb / n) ** 2));
}

/** Predicted probability against how often it was so, over points of the whole field in and beside the zone. */
function reliability(work, volume) {
  const { first, step } = volume.vertical;
  const files = ['sea-bed', 'brack-top', 'tolven-top', 'tolven-base', 'pell-top'];
  const key = (r) => `${r.inline} ${r.crossline}`;
  const horizons = files.map((name) => new Map(work.truth(`${name}.csv`).map((r) => [key(r), r])));
  const columns = Map.groupBy?.(work.truth('points.csv'), key) ?? grouped(work.truth('points.csv'), key);
  const bands = Array.from({ length: BANDS }, () => ({ count: 0, said: 0, so: 0 }));
  for (const [at, points] of columns) {
    const own = horizons.map((h) => h.get(at));
    if (own.some((h) => !h)) continue;
    const trace = traceOf(work, volume, points[0].inline - INLINE, points[0].crossline - CROSSLINE);
    for (const p of points) {
      let n = 0;
      while (n < own.length - 2 && own[n + 1].depth_m < p.depth_m) n++;
      const [a, b] = [own[n], own[n + 1]];
      if (!(b.depth_m > a.depth_m)) continue;
      const ms = a.twt_ms + ((b.twt_ms - a.twt_ms) * (p.depth_m - a.depth_m)) / (b.depth_m - a.depth_m);
      const k = Math.floor((ms - first) / step);
      const said = trace[k] + ((ms - first) / step - k) * (trace[k + 1] - trace[k]);
      if (!(said === said)) continue;
      const band = bands[Math.min(BANDS - 1, Math.floor(said * BANDS))];
      band.count++;
      band.said += said;
      band.so += p.net;
    }
  }
  return bands;
}

function grouped(rows, key) {
  const out = new Map();
  for (const r of rows) {
    const k = key(r);
    if (!out.has(k)) out.set(k, []);
    out.get(k).push(r);
  }
  return out;
}

export function measure(work) {
  const say = (measure, value, unit) => row(part, measure, work.seed, value, unit);
  const rows = [];
  const seismic = 'Full stack';
  const [head] = work.table('well-heads.csv').filter((r) => r.well === BLIND);
  make(work, 'invert.operator', { seismic, wells: WELLS }, {}, 'Operator');
  make(work, 'invert.coloured', { seismic, operator: 'Operator' }, {}, 'Relative');
  const horizons = ['Brack Top', 'Tolven Top', 'Tolven Base'].map((h) => `horizon/${h}`);
  make(work, 'invert.background', { like: seismic, wells: WELLS, horizons }, {}, 'Model');
  const deviation = `Deviation of the model of ${seismic}`;
  make(
    work,
    'invert.impedance',
    { seismic, wavelet: 'Joint wavelet', background: 'Model', deviation, wells: WELLS },
    {},
    'Impedance',
  );
  const volume = (name) => work.named('volume', name);
  const relative = volume('Relative');
  // where the blind well is: it stands upright
  const { origin, perInline: p, perCrossline: q } = relative.binGrid;
  const [dx, dy] = [head.x_m - origin[0], head.y_m - origin[1]];
  const area = p[0] * q[1] - p[1] * q[0];
  const [i, j] = [(dx * q[1] - dy * q[0]) / area, (dy * p[0] - dx * p[1]) / area].map(Math.round);
  const truth = truthAlong(work, BLIND, relative.vertical);
  const { band } = work.named('operator', 'Operator');
  const wanted = banded(truth, relative.vertical.step, band);
  rows.push(say(`${BLIND}: correlation of relative impedance`, correlation(traceOf(work, relative, i, j), wanted), ''));
  const [mean, model, spread] = ['Impedance', 'Model', `Spread of impedance of ${seismic}`].map((name) =>
    traceOf(work, volume(name), i, j),
  );
  let [inside, all, before, after] = [0, 0, 0, 0];
  for (let k = 0; k < truth.length; k++) {
    const e = Math.log(mean[k]) - truth[k];
    if (e !== e) continue;
    all++;
    if (Math.abs(e) <= EIGHTY * spread[k]) inside++;
    after += e * e;
    before += (Math.log(model[k]) - truth[k]) ** 2;
  }
  rows.push(say(`${BLIND}: inside the 80 % band`, (100 * inside) / all, '%'));
  rows.push(say(`${BLIND}: error of impedance, rms`, 100 * Math.sqrt(after / all), '%'));
  rows.push(say(`${BLIND}: error of the low-frequency model alone, rms`, 100 * Math.sqrt(before / all), '%'));
  const misfit = [...arrayOf(work, work.named('map', `Misfit of ${seismic}`).values)].filter((v) => v === v);
  rows.push(
    say(
      'greatest misfit over the noise',
      misfit.reduce((a, b) => Math.max(a, b), 0),
      '',
    ),
  );
  make(
    work,
    'invert.probability',
    {
      mean: 'Impedance',
      spread: `Spread of impedance of ${seismic}`,
      background: 'Model',
      deviation,
      wells: WELLS,
      top: 'horizon/Tolven Top',
      base: 'horizon/Tolven Base',
    },
    { gives: 'rock by wells' },
    'Sand',
  );
  const bands = reliability(work, volume('Sand'));
  const total = bands.reduce((s, b) => s + b.count, 0);
  for (const [n, b] of bands.entries())
    rows.push(
      say(
        `sand: found where ${(n / BANDS).toFixed(1)} to ${((n + 1) / BANDS).toFixed(1)} was said (${b.count} points, ${(b.said / b.count).toFixed(2)} on the mean)`,
        b.so / b.count,
        '',
      ),
    );
  rows.push(
    say(
      'sand: said and found apart, mean over points',
      bands.reduce((s, b) => s + Math.abs(b.said - b.so), 0) / total,
      '',
    ),
  );
  make(
    work,
    'invert.netPay',
    {
      impedance: 'Relative',
      top: 'horizon/Tolven Top',
      base: 'horizon/Tolven Base',
      wells: ['QN-1', 'QN-2'],
      area: 'Crest outline',
    },
    {},
    'Net pay',
  );
  const table = work.named('result table', 'Net pay at wells and in the area of Relative');
  const volumeOf = (name) => table.rows.find((r) => r[0].includes(name))[5];
  const pay = work.truthJson.volumes.find((v) => v.area === 'Crest outline').netRockVolume_m3;
  rows.push(say('net pay over the Crest, of the truth', volumeOf('best') / pay, ''));
  rows.push(say('net pay: P90 (low), of the truth', volumeOf('P90') / pay, ''));
  rows.push(say('net pay: P10 (high), of the truth', volumeOf('P10') / pay, ''));
  return rows;
}

export function musts(rows) {
  const of = (measure) => rows.filter((r) => r.part === part && r.measure === measure).map((r) => r.value);
  const covered = of(`${BLIND}: inside the 80 % band`);
  const [low, high] = [of('net pay: P90 (low), of the truth'), of('net pay: P10 (high), of the truth')];
  const holds = low.filter((v, n) => v <= 1 && high[n] >= 1).length;
  return [
    must(
      part,
      `${BLIND}: correlation of relative impedance (median over seeds)`,
      median(of(`${BLIND}: correlation of relative impedance`)),
      '',
      'at least',
      0.6,
    ),
    must(part, `${BLIND}: inside the 80 % band (median over seeds)`, median(covered), '%', 'at least', 65),
    must(part, `${BLIND}: inside the 80 % band, not too wide (median over seeds)`, median(covered), '%', 'at most', 92),
    must(
      part,
      'greatest misfit over the noise (of all seeds)',
      Math.max(...of('greatest misfit over the noise')),
      '',
      'at most',
      1.1,
    ),
    must(
      part,
      'sand: said and found apart (median over seeds)',
      median(of('sand: said and found apart, mean over points')),
      '',
      'at most',
      0.1,
    ),
    must(
      part,
      'net pay over the Crest, off the truth (median over seeds)',
      median(of('net pay over the Crest, of the truth').map((v) => 100 * Math.abs(v - 1))),
      '%',
      'at most',
      30,
    ),
    must(part, 'net pay: truth between P90 and P10', holds / low.length, 'of seeds', 'at least', 0.66),
  ];
}
