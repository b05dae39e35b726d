import { type Units, unitsOf } from '../earth/display.ts';
import type { WellPath } from '../wells/path.ts';
import { pointAtMd } from '../wells/path.ts';
import type { TimeDepth, TimedDepth } from '../wells/timeDepth.ts';
import {
  type Calibration,
  calibrate,
  calibrationError,
  evenKnees,
  integrateSonic,
  type Knee,
  lookup,
  relationFrom,
  type Slowness,
} from './calibrate.ts';
import { bridgeGaps, type ElasticInTime, elasticInTime, gardner, mended } from './elastic.ts';
import { predictorOf, reflectivityAt } from './estimate.ts';
import { type Evidence, evidenceOf, standsOver } from './evidence.ts';
import type { ShiftPrior } from './locate.ts';
import { type MatchMap, matchMap, runningMatch, type Series, seriesAt, synthetic } from './match.ts';
import { alignTimes, greatestChange, type Pin, shiftThrough } from './warp.ts';
import { rotate, type WaveletShape } from './wavelet.ts';

/** What a tie needs of a well: its path, logs by even measured depth, checkshots. */
export interface TieWell {
  name: string;
  path: WellPath;
  firstM: number;
  stepM: number;
  /** µs/m and kg/m³ by measured depth, NaN where null; no density means that Gardner's relation stands in. */
  sonic: Float32Array;
  density: Float32Array | null;
  /** Slowness of S waves, µs/m. */
  shear: Float32Array | null;
  /** TVDSS m, TWT ms. */
  shots: { tvdss: number; twt: number }[];
  /** Where its times begin; at the sea where not given. */
  start?: TimedDepth[];
  /** Whether the times are another well's: the sonic hangs from them at its top, and is not bent to them. */
  borrowed?: boolean;
}

export interface TieSettings {
  /** Distance (m) between knees of the drift, where none were placed. */
  kneeSpacingM: number;
  /** Knees that were moved by hand. */
  moved: Knee[];
  /** Window in which synthetic and seismic are compared, ms. */
  fromMs: number;
  toMs: number;
  mostShiftMs: number;
  /** Largest phase (degrees) that the search may turn the wavelet by, and the phase it starts from. */
  mostPhaseDeg: number;
  phaseDeg: number;
  /** Shift typed by a person; found where it is null. */
  shiftMs: number | null;
  /** Whether checkshots have a say in the shift, each weighed by its error against the correlation. */
  weighShots: boolean;
  /** Standard error of one checkshot, ms; null to go by their scatter about the drift. */
  shotErrorMs: number | null;
  /** Whole length (ms) of a wavelet that was estimated from this very well; null where it was made without it. */
  ownWaveletMs: number | null;
  /** Times pinned by a person: TWT of the calibrated sonic, and what is added there over the shift. */
  pins: Pin[];
  /** Whether the synthetic is stretched by automatic alignment, and how much velocity may change by it (part). */
  stretch: boolean;
  mostChange: number;
  /** Draws of noise that the match is held against. */
  draws: number;
}

/** Logs on the path, mended and in SI units. */
export interface TieLogs {
  /** S slowness, s/m, bridged; null where there is none. */
  shear: Float64Array | null;
  /** Longest run of nulls in the sonic that was bridged, m. */
  longestGapM: number;
  md: Float64Array;
  slowness: Slowness;
  density: Float64Array;
  densityEstimated: boolean;
  bridged: number;
  /** Samples that were taken out as spikes, by the log that had them: measured depths (m) and what was logged there. */
  spikes: { log: 'sonic' | 'density'; md: number[]; logged: number[] }[];
}

/** Everything between the logs and the match, for one state of a tie. */
export interface TieChain {
  logs: TieLogs;
  calibration: Calibration;
  /** TWT of each log sample as the tie has it, ms. */
  twt: Float64Array;
  elastic: ElasticInTime;
  wavelet: WaveletShape;
  /** Synthetic before the bulk shift, stretched where the tie is, scaled to the seismic. */
  synthetic: Series;
  map: MatchMap;
  shiftMs: number;
  phaseDeg: number;
  correlation: number;
  running: Series;
  relation: TimeDepth;
  /** Pins as they were given or found: calibrated TWT, and what is added there beside the bulk shift. */
  pins: Pin[];
  evidence: Evidence;
  /** Greatest change of velocity against the calibrated sonic (part), and the calibrated TWT at which it is. */
  change: { part: number; twt: number };
  /** What speaks against the tie, in sentences. */
  warnings: string[];
}

/** Logs of a well ready for a tie; null where the sonic is too short to say anything. */
export function tieLogs(well: TieWell): TieLogs | null {
  const sonic = mended(well.sonic, well.stepM);
  if (sonic.last - sonic.first < 50) return null;
  const dense = well.density ? mended(well.density, well.stepM) : null;
  const sheared = well.shear ? mended(well.shear, well.stepM) : null;
  const count = sonic.last - sonic.first + 1;
  // where some density was logged, Gardner's relation takes its level from there: across a gap that of either side
  const levels = new Float64Array(count).fill(Number.NaN);
  if (well.density && dense) {
    const spikes = new Set(dense.removed);
    for (let n = 0; n < count; n++) {
      const k = sonic.first + n;
      if (!Number.isNaN(well.density[k]) && !spikes.has(k))
        levels[n] = well.density[k] / gardner(1e6 / sonic.values[k]);
    }
  }
  const known = levels.filter((v) => !Number.isNaN(v)).length;
  if (known > 50) bridgeGaps(levels);
  const md = new Float64Array(count);
  const tvdss = new Float64Array(count);
  const secondsPerMetre = new Float64Array(count);
  const density = new Float64Array(count);
  for (let n = 0; n < count; n++) {
    const k = sonic.first + n;
    md[n] = well.firstM + k * well.stepM;
    tvdss[n] = pointAtMd(well.path, md[n]).tvdss;
    secondsPerMetre[n] = sonic.values[k] * 1e-6;
    density[n] = (Number.isNaN(levels[n]) ? 1 : levels[n]) * gardner(1 / secondsPerMetre[n]);
  }
  let [gap, longest] = [0, 0];
  for (let k = sonic.first; k <= sonic.last; k++) {
    gap = Number.isNaN(well.sonic[k]) ? gap + 1 : 0;
    longest = Math.max(longest, gap);
  }
  return {
    md,
    shear:
      sheared && sheared.last > sheared.first
        ? Float64Array.from({ length: count }, (_, n) => sheared.values[sonic.first + n] * 1e-6)
        : null,
    longestGapM: longest * well.stepM,
    slowness: { tvdss, secondsPerMetre },
    density,
    densityEstimated: !dense,
    bridged: sonic.bridged + (dense?.bridged ?? 0),
    spikes: (
      [
        ['sonic', sonic.removed, well.sonic],
        ['density', dense?.removed ?? [], well.density],
      ] as const
    )
      .filter(([, removed]) => removed.length > 0)
      .map(([log, removed, from]) => ({
        log,
        md: removed.map((k) => well.firstM + k * well.stepM),
        logged: removed.map((k) => from?.[k] ?? Number.NaN),
      })),
  };
}

/** Calibrate a well's sonic to its checkshots; null where too few of them lie along it. */
export function calibrateWell(well: TieWell, logs: TieLogs, settings: TieSettings): Calibration | null {
  const { tvdss } = logs.slowness;
  if (well.borrowed) {
    const sonic = integrateSonic(logs.slowness);
    const sorted = [...well.shots].sort((a, b) => a.tvdss - b.tvdss);
    const start = lookup(
      sorted.map((s) => s.tvdss),
      sorted.map((s) => s.twt),
      tvdss[0],
    );
    const ends = [0, tvdss.length - 1].map((n) => ({ tvdss: tvdss[n], twt: start + sonic[n] }));
    return calibrate(logs.slowness, ends, [tvdss[0], tvdss[tvdss.length - 1]], settings.moved);
  }
  const knees = evenKnees(tvdss[0], tvdss[tvdss.length - 1], settings.kneeSpacingM);
  return calibrate(logs.slowness, well.shots, knees, settings.moved);
}

/** The relation of a calibrated well whose times are moved. */
export function movedRelation(
  well: TieWell,
  logs: TieLogs,
  calibration: Calibration,
  moved: (twt: number) => number,
): TimeDepth {
  const { tvdss } = logs.slowness;
  // times of another well end where the sonic begins
  const shots = well.borrowed ? well.shots.filter((s) => s.tvdss < tvdss[0]) : well.shots;
  return relationFrom(logs.slowness, calibration.twt, shots, moved, well.start);
}

/**
 * From calibrated logs to the match with the seismic along the path.
 * @param units those that its warnings are written in
 */
export function tieChain(
  well: TieWell,
  logs: TieLogs,
  calibration: Calibration,
  wavelet: WaveletShape,
  seismic: Series,
  settings: TieSettings,
  units = unitsOf(null),
): TieChain {
  const { tvdss, secondsPerMetre } = logs.slowness;
  const elasticAt = (twt: Float64Array) => elasticInTime(twt, tvdss, secondsPerMetre, logs.density, logs.shear);
  const first = elasticAt(calibration.twt);
  const zero = synthetic(first, wavelet);
  const options = {
    fromMs: settings.fromMs,
    toMs: settings.toMs,
    mostShiftMs: settings.mostShiftMs,
    halfPeriodMs: halfPeriod(wavelet),
  };
  const middle = 0.5 * (settings.fromMs + settings.toMs);
  const evidence = evidenceOf(seismic, zero, {
    ...settings,
    seed: 1,
    prior: well.borrowed || !settings.weighShots ? null : priorOf(tvdss, calibration, middle, settings.shotErrorMs),
    leftOut: settings.ownWaveletMs === null ? null : leftOutMatch(seismic, first, settings, settings.ownWaveletMs),
  });
  const { phaseDeg, shiftMs } = evidence.found;
  const map = matchMap(seismic, zero, { ...options, phaseDeg });
  const turned = rotate(wavelet, phaseDeg);
  const made = synthetic(first, turned);
  const pins = settings.stretch ? stretched(seismic, made, shiftMs, settings) : settings.pins;
  const beside = shiftThrough(pins);
  // before the bulk shift, which the eye can still move
  const elastic = pins.length > 0 ? elasticAt(calibration.twt.map((t) => t + beside(t))) : first;
  const scaled = scaleTo(
    seismic,
    pins.length > 0 ? synthetic(elastic, turned) : made,
    shiftMs,
    settings.fromMs,
    settings.toMs,
  );
  const change = greatestChange(beside, calibration.twt[0], calibration.twt[calibration.twt.length - 1]);
  const chain = {
    logs,
    calibration,
    twt: calibration.twt.map((t) => t + beside(t) + shiftMs),
    elastic,
    wavelet: turned,
    synthetic: scaled.series,
    map,
    shiftMs,
    phaseDeg,
    correlation: scaled.correlation,
    running: runningMatch(seismic, scaled.series, shiftMs, 60),
    relation: movedRelation(well, logs, calibration, (t) => beside(t) + shiftMs),
    pins,
    evidence,
    change,
  };
  return { ...chain, warnings: warningsOf(chain, settings, units) };
}

/** Pins of an automatic alignment about a bulk shift, over the whole window and as far again where there are logs. */
function stretched(seismic: Series, made: Series, shiftMs: number, settings: TieSettings): Pin[] {
  const moved = { ...made, firstMs: made.firstMs + shiftMs };
  const last = moved.firstMs + moved.stepMs * (moved.values.length - 1);
  const half = 0.5 * (settings.toMs - settings.fromMs);
  const found = alignTimes(seismic, moved, {
    fromMs: Math.max(moved.firstMs + 20, settings.fromMs - half),
    toMs: Math.min(last - 20, settings.toMs + half),
    knotMs: 90,
    mostShiftMs: 8,
    mostChange: settings.mostChange / 1.5,
  });
  // monotone cubics are half as steep again as straight lines between the same knots
  return found.map((p) => ({ twt: p.twt - shiftMs, shiftMs: p.shiftMs }));
}

/** Sentences against a tie: each names the figure that it rests on. */
function warningsOf(chain: Omit<TieChain, 'warnings'>, settings: TieSettings, units: Units): string[] {
  const { map, evidence, correlation, shiftMs, change, logs } = chain;
  const out: string[] = [];
  if (evidence.chance > 0.05)
    out.push(
      evidence.leftOut === null
        ? `A match this good is found in ${(100 * evidence.chance).toFixed(0)} of 100 noise traces of the same band, searched as widely.`
        : `The wavelet was made from this well, and parts of the trace that are left out of it are predicted with a correlation of ${evidence.leftOut.toFixed(2)}: ${(100 * evidence.chance).toFixed(0)} of 100 noise traces are predicted as well.`,
    );
  const { byMatch, byCheckshots } = evidence;
  if (
    byCheckshots &&
    Math.abs(byMatch.shiftMs - byCheckshots.shiftMs) >
      1.5 * Math.hypot(byMatch.uncertaintyMs, byCheckshots.uncertaintyMs)
  )
    out.push(
      `Checkshots and seismic disagree: the match alone would move the sonic by ${byMatch.shiftMs.toFixed(1)} ± ${byMatch.uncertaintyMs.toFixed(1)} ms, checkshots by none ± ${byCheckshots.uncertaintyMs.toFixed(1)} ms.`,
    );
  // of two events the better must stand out by more than their sampling errors
  if (map.runnerUp && standsOver(map.atPhase.correlation, map.runnerUp.correlation, evidence.freedom) < 1)
    out.push(
      `Another event matches nearly as well: ${map.runnerUp.correlation.toFixed(2)} at ${map.runnerUp.shiftMs.toFixed(0)} ms, against ${map.atPhase.correlation.toFixed(2)}.`,
    );
  const turn = Math.abs(((chain.phaseDeg - settings.phaseDeg + 540) % 360) - 180);
  if (settings.mostPhaseDeg > 0 && settings.mostPhaseDeg < 180 && turn > settings.mostPhaseDeg - 2.5)
    out.push(`The phase of ${chain.phaseDeg.toFixed(0)}° lies at the edge of the search.`);
  if (
    evidence.turnedOver <= evidence.asDeclared &&
    standsOver(evidence.asDeclared, evidence.turnedOver, evidence.freedom) < 0.5
  )
    out.push(
      `Polarity is not decided: ${evidence.asDeclared.toFixed(2)} as declared, ${evidence.turnedOver.toFixed(2)} turned over.`,
    );
  if (evidence.turnedOver > evidence.asDeclared)
    out.push(
      `The opposite polarity matches better: ${evidence.turnedOver.toFixed(2)} against ${evidence.asDeclared.toFixed(2)}.`,
    );
  if (settings.shiftMs === null && Math.abs(shiftMs) >= settings.mostShiftMs - 0.5)
    out.push(`The shift of ${shiftMs.toFixed(1)} ms lies at the edge of the search.`);
  if (settings.shiftMs !== null && map.atPhase.correlation > correlation + 0.15)
    out.push(
      `The typed shift matches with ${correlation.toFixed(2)}; ${map.atPhase.shiftMs.toFixed(1)} ms would with ${map.atPhase.correlation.toFixed(2)}.`,
    );
  if (Math.abs(change.part) > settings.mostChange)
    out.push(
      `Velocity is changed by ${(100 * change.part).toFixed(1)} % at ${change.twt.toFixed(0)} ms, beyond the bound of ${(100 * settings.mostChange).toFixed(1)} %.`,
    );
  if (logs.longestGapM > 10)
    out.push(`The sonic has a gap of ${units.text(logs.longestGapM, 'm', 0)} that was bridged by a straight line.`);
  return out;
}

/** What checkshots say of the shift of a calibrated sonic at a time: none, give or take their error there. */
function priorOf(tvdss: Float64Array, calibration: Calibration, twt: number, readingMs: number | null): ShiftPrior {
  const { ms, freedom } = calibrationError(calibration, lookup(calibration.twt, tvdss, twt), readingMs);
  return { centreMs: 0, errorMs: ms, freedom };
}

/** How well a wavelet of a length predicts parts of the window that it was not made of, for any trace in it. */
function leftOutMatch(seismic: Series, elastic: ElasticInTime, settings: TieSettings, lengthMs: number) {
  const { firstMs, stepMs } = seismic;
  const k0 = Math.max(0, Math.ceil((settings.fromMs - firstMs) / stepMs));
  const k1 = Math.min(seismic.values.length - 1, Math.floor((settings.toMs - firstMs) / stepMs));
  const count = Math.max(0, k1 - k0 + 1);
  const fine = { firstMs: elastic.firstMs, stepMs: elastic.stepMs, values: elastic.reflectivity };
  const predict = predictorOf(reflectivityAt(fine, firstMs + k0 * stepMs, stepMs, count), stepMs, lengthMs);
  return (trace: Float64Array, samples: Int32Array) => {
    const whole = new Float64Array(count);
    samples.forEach((k, n) => {
      whole[k - k0] = trace[n];
    });
    return predict(whole);
  };
}

/** Half a period (ms) of a wavelet: half the inverse of its amplitude-weighted mean frequency. */
export function halfPeriod(wavelet: WaveletShape): number {
  let [crossings, first, last] = [0, 0, 0];
  const { samples: w } = wavelet;
  const peak = w.reduce((m, v) => Math.max(m, Math.abs(v)), 0);
  for (let n = 1; n < w.length; n++)
    if (w[n] > 0 !== w[n - 1] > 0 && Math.max(Math.abs(w[n]), Math.abs(w[n - 1])) > 0.02 * peak) {
      if (crossings === 0) first = n;
      last = n;
      crossings++;
    }
  return crossings > 1 ? ((last - first) / (crossings - 1)) * wavelet.stepMs : 18;
}

/** The synthetic scaled by least squares to the seismic in the window, and their correlation there. */
function scaleTo(seismic: Series, made: Series, shiftMs: number, fromMs: number, toMs: number) {
  let [n, sd, ss, dd, s2, ds] = [0, 0, 0, 0, 0, 0];
  for (let k = 0; k < seismic.values.length; k++) {
    const t = seismic.firstMs + k * seismic.stepMs;
    if (t < fromMs || t > toMs) continue;
    const d = seismic.values[k];
    const s = seriesAt(made, t - shiftMs);
    if (Number.isNaN(d) || Number.isNaN(s)) continue;
    n++;
    sd += d;
    ss += s;
    dd += d * d;
    s2 += s * s;
    ds += d * s;
  }
  const scale = s2 > 0 ? Math.abs(ds) / s2 : 0;
  const power = (dd - (sd * sd) / n) * (s2 - (ss * ss) / n);
  return {
    correlation: power > 0 ? (ds - (sd * ss) / n) / Math.sqrt(power) : 0,
    series: { ...made, values: made.values.map((v) => v * (scale || 1)) },
  };
}
