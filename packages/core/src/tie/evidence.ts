import { fromSpectrum, hilbert, powerOfTwo, spectrum } from '../numerics/fft.ts';
import { type Series, seriesAt } from './match.ts';

/** What a match is held against. */
export interface EvidenceOptions {
  fromMs: number;
  toMs: number;
  mostShiftMs: number;
  /** Phases within this of `phaseDeg` were searched, degrees. */
  mostPhaseDeg: number;
  phaseDeg: number;
  seed: number;
  draws: number;
}

export interface Evidence {
  /** Part of noise traces of the same band that match as well, searched as widely. */
  chance: number;
  /** Best correlation over the shifts and phases searched, as declared and turned over. */
  asDeclared: number;
  turnedOver: number;
  /** Independent samples in the window: twice bandwidth times length. */
  freedom: number;
  /** 90 % half width of the shift, ms. */
  uncertaintyMs: number;
}

function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return (state + 0.5) / 2 ** 32;
  };
}

/** Vectors of the synthetic and its Hilbert transform in the window at each shift, about their means. */
function candidates(seismic: Series, made: Series, o: EvidenceOptions) {
  const turned: Series = { ...made, values: hilbert(made.values) };
  const k0 = Math.max(0, Math.ceil((o.fromMs - seismic.firstMs) / seismic.stepMs));
  const k1 = Math.min(seismic.values.length - 1, Math.floor((o.toMs - seismic.firstMs) / seismic.stepMs));
  const n = Math.max(0, k1 - k0 + 1);
  const half = Math.round(o.mostShiftMs);
  const about = (series: Series, shift: number) => {
    const v = Float64Array.from({ length: n }, (_, k) => {
      const value = seriesAt(series, seismic.firstMs + (k0 + k) * seismic.stepMs - shift);
      return Number.isNaN(value) ? 0 : value;
    });
    const mean = v.reduce((a, b) => a + b, 0) / n;
    return v.map((x) => x - mean);
  };
  return {
    k0,
    n,
    at: Array.from({ length: 2 * half + 1 }, (_, s) => {
      const [a, b] = [about(made, s - half), about(turned, s - half)];
      let [aa, bb, ab] = [0, 0, 0];
      for (let k = 0; k < n; k++) {
        aa += a[k] * a[k];
        bb += b[k] * b[k];
        ab += a[k] * b[k];
      }
      return { a, b, aa, bb, ab };
    }),
  };
}

/** Best correlation of a trace with any candidate whose phase lies within the bounds about a middle. */
function best(trace: Float64Array, c: ReturnType<typeof candidates>, middleDeg: number, reachDeg: number): number {
  const mean = trace.reduce((s, v) => s + v, 0) / c.n;
  let dd = 0;
  for (let k = 0; k < c.n; k++) dd += (trace[k] - mean) ** 2;
  let top = -1;
  for (const { a, b, aa, bb, ab } of c.at) {
    let [da, db] = [0, 0];
    for (let k = 0; k < c.n; k++) {
      da += (trace[k] - mean) * a[k];
      db += (trace[k] - mean) * b[k];
    }
    for (let phase = middleDeg - reachDeg; phase <= middleDeg + reachDeg; phase += 5) {
      const [p, q] = [Math.cos((phase * Math.PI) / 180), -Math.sin((phase * Math.PI) / 180)];
      const power = p * p * aa + q * q * bb + 2 * p * q * ab;
      if (power > 0 && dd > 0) top = Math.max(top, (p * da + q * db) / Math.sqrt(power * dd));
    }
  }
  return top;
}

/**
 * How far a match stands above chance: noise with the trace's own amplitude spectrum and random phases (Theiler et al.
 * 1992, Physica D 58, 77–94) is searched over the same shifts and phases, so that a long search pays for itself. The
 * uncertainty of the shift is the Cramér–Rao bound for the window's band and signal-to-noise.
 */
export function evidenceOf(seismic: Series, made: Series, o: EvidenceOptions): Evidence {
  const c = candidates(seismic, made, o);
  const own = seismic.values.slice(c.k0, c.k0 + c.n).map((v) => (Number.isNaN(v) ? 0 : v));
  const asDeclared = best(own, c, o.phaseDeg, o.mostPhaseDeg);
  const turnedOver = best(own, c, o.phaseDeg + 180, o.mostPhaseDeg);
  // the band from a piece of trace longer than the window, so that its spectrum is well known
  const length = Math.min(seismic.values.length, Math.max(c.n, Math.round(600 / seismic.stepMs)));
  const start = Math.max(0, Math.min(seismic.values.length - length, Math.round(c.k0 + c.n / 2 - length / 2)));
  const piece = seismic.values.slice(start, start + length);
  const size = powerOfTwo(2 * length);
  const s = spectrum(
    piece.map((v, k) => (Number.isNaN(v) ? 0 : v * (0.5 - 0.5 * Math.cos((2 * Math.PI * (k + 0.5)) / length)))),
    size,
  );
  const power = Float64Array.from({ length: size / 2 }, (_, f) => s[2 * f] ** 2 + s[2 * f + 1] ** 2);
  const next = random(o.seed);
  let better = 0;
  for (let draw = 0; draw < o.draws; draw++) {
    const noise = new Float64Array(2 * size);
    for (let f = 1; f < size / 2; f++) {
      const [amplitude, phase] = [Math.sqrt(power[f]), 2 * Math.PI * next()];
      noise[2 * f] = noise[2 * (size - f)] = amplitude * Math.cos(phase);
      noise[2 * f + 1] = amplitude * Math.sin(phase);
      noise[2 * (size - f) + 1] = -noise[2 * f + 1];
    }
    if (best(fromSpectrum(noise).subarray(0, c.n), c, o.phaseDeg, o.mostPhaseDeg) >= asDeclared) better++;
  }
  const stepHz = 1000 / (size * seismic.stepMs);
  let [sum, squares, moment] = [0, 0, 0];
  power.forEach((p, f) => {
    sum += p;
    squares += p * p;
    moment += p * (f * stepHz) ** 2;
  });
  // equivalent bandwidth of the spectrum
  const bandHz = squares > 0 ? (sum * sum * stepHz) / squares : 0;
  const freedom = Math.max(2, (2 * bandHz * (o.toMs - o.fromMs)) / 1000);
  const rmsHz = sum > 0 ? Math.sqrt(moment / sum) : 1;
  const r = Math.min(0.999, Math.max(0.05, asDeclared));
  const signalToNoise = (r * r) / (1 - r * r);
  return {
    chance: (better + 1) / (o.draws + 1),
    asDeclared,
    turnedOver,
    freedom,
    uncertaintyMs: (1.645 * 1000) / (2 * Math.PI * rmsHz * Math.sqrt(signalToNoise * freedom)),
  };
}

/** How many standard errors the better of two correlations stands over the other (Fisher 1921, Metron 1(4), 3–32). */
export function standsOver(better: number, other: number, freedom: number): number {
  const z = (r: number) => Math.atanh(Math.max(-0.999, Math.min(0.999, r)));
  return (z(better) - z(other)) * Math.sqrt(Math.max(1, freedom - 3) / 2);
}
