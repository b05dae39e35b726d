import type { WellPath } from '../wells/path.ts';
import { pointAtMd } from '../wells/path.ts';
import type { TimeDepth } from '../wells/timeDepth.ts';
import { type Calibration, calibrate, evenKnees, type Knee, relationFrom, type Slowness } from './calibrate.ts';
import { type ElasticInTime, elasticInTime, gardner, mended } from './elastic.ts';
import { type MatchMap, matchMap, runningMatch, type Series, seriesAt, synthetic } from './match.ts';
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
  /** Shift typed by a person; found by correlation where it is null. */
  shiftMs: number | null;
}

/** Logs on the path, mended and in SI units. */
export interface TieLogs {
  md: Float64Array;
  slowness: Slowness;
  density: Float64Array;
  densityEstimated: boolean;
  bridged: number;
  spikes: number;
}

/** Everything between the logs and the match, for one state of a tie. */
export interface TieChain {
  logs: TieLogs;
  calibration: Calibration;
  elastic: ElasticInTime;
  wavelet: WaveletShape;
  /** Synthetic at the times of the calibrated sonic, before the shift, scaled to the seismic. */
  synthetic: Series;
  map: MatchMap;
  shiftMs: number;
  phaseDeg: number;
  correlation: number;
  running: Series;
  relation: TimeDepth;
}

/** Logs of a well ready for a tie; null where the sonic is too short to say anything. */
export function tieLogs(well: TieWell): TieLogs | null {
  const sonic = mended(well.sonic);
  if (sonic.last - sonic.first < 50) return null;
  const dense = well.density ? mended(well.density) : null;
  const count = sonic.last - sonic.first + 1;
  const md = new Float64Array(count);
  const tvdss = new Float64Array(count);
  const secondsPerMetre = new Float64Array(count);
  const density = new Float64Array(count);
  for (let n = 0; n < count; n++) {
    const k = sonic.first + n;
    md[n] = well.firstM + k * well.stepM;
    tvdss[n] = pointAtMd(well.path, md[n]).tvdss;
    secondsPerMetre[n] = sonic.values[k] * 1e-6;
    const rho = dense ? dense.values[k] : Number.NaN;
    density[n] = Number.isNaN(rho) ? gardner(1 / secondsPerMetre[n]) : rho;
  }
  return {
    md,
    slowness: { tvdss, secondsPerMetre },
    density,
    densityEstimated: !dense,
    bridged: sonic.bridged + (dense?.bridged ?? 0),
    spikes: sonic.spikes + (dense?.spikes ?? 0),
  };
}

/** Calibrate a well's sonic to its checkshots; null where too few of them lie along it. */
export function calibrateWell(well: TieWell, logs: TieLogs, settings: TieSettings): Calibration | null {
  const { tvdss } = logs.slowness;
  const knees = evenKnees(tvdss[0], tvdss[tvdss.length - 1], settings.kneeSpacingM);
  return calibrate(logs.slowness, well.shots, knees, settings.moved);
}

/** The relation of a calibrated well with a bulk shift. */
export function shiftedRelation(well: TieWell, logs: TieLogs, calibration: Calibration, shiftMs: number): TimeDepth {
  return relationFrom(logs.slowness, calibration.twt, well.shots, shiftMs);
}

/** From calibrated logs to the match with the seismic along the path. */
export function tieChain(
  well: TieWell,
  logs: TieLogs,
  calibration: Calibration,
  wavelet: WaveletShape,
  seismic: Series,
  settings: TieSettings,
): TieChain {
  const { tvdss, secondsPerMetre } = logs.slowness;
  const elastic = elasticInTime(calibration.twt, tvdss, secondsPerMetre, logs.density);
  const zero = synthetic(elastic, wavelet);
  const options = {
    fromMs: settings.fromMs,
    toMs: settings.toMs,
    mostShiftMs: settings.mostShiftMs,
    halfPeriodMs: halfPeriod(wavelet),
  };
  const phaseDeg = settings.mostPhaseDeg > 0 ? bestPhase(seismic, zero, options, settings) : settings.phaseDeg;
  const map = matchMap(seismic, zero, { ...options, phaseDeg });
  const turned = rotate(wavelet, phaseDeg);
  const made = synthetic(elastic, turned);
  const shiftMs = settings.shiftMs ?? map.atPhase.shiftMs;
  const scaled = scaleTo(seismic, made, shiftMs, settings.fromMs, settings.toMs);
  return {
    logs,
    calibration,
    elastic,
    wavelet: turned,
    synthetic: scaled.series,
    map,
    shiftMs,
    phaseDeg,
    correlation: scaled.correlation,
    running: runningMatch(seismic, scaled.series, shiftMs, 60),
    relation: shiftedRelation(well, logs, calibration, shiftMs),
  };
}

/** Phase within its bounds at which the best shift matches best. */
function bestPhase(
  seismic: Series,
  zero: Series,
  options: Omit<Parameters<typeof matchMap>[2], 'phaseDeg'>,
  settings: TieSettings,
): number {
  const { shifts, phases, values } = matchMap(seismic, zero, { ...options, phaseDeg: settings.phaseDeg });
  let [top, phase] = [Number.NEGATIVE_INFINITY, settings.phaseDeg];
  for (let p = 0; p < phases.length; p++) {
    const turn = Math.abs(((phases[p] - settings.phaseDeg + 540) % 360) - 180);
    if (turn > settings.mostPhaseDeg) continue;
    for (let n = 0; n < shifts.length; n++) {
      if (settings.shiftMs !== null && Math.abs(shifts[n] - settings.shiftMs) > 0.5) continue;
      const v = values[p * shifts.length + n];
      if (v > top) [top, phase] = [v, phases[p]];
    }
  }
  return phase;
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
