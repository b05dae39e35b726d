import { sums, threadKernels } from '@lithagon/kernels';
import type { Statistics } from '../earth/objects.ts';

const BUCKETS = 8192;
const PART = 1 << 16;
const TAILS = [50, 80, 90, 95, 98, 99, 99.5, 100];
const RANKS = [0, 1, 2, 5, 10, 25, 50, 75, 90, 95, 98, 99, 100];

/**
 * Running statistics of samples that arrive in parts. Percentiles come from a histogram of 8192 buckets over a power of
 * two that widens as needed, so they are exact to about a two-thousandth of the range and those of parts add up.
 */
export class RunningStatistics {
  private count = 0;
  private nulls = 0;
  private sum = 0;
  private squares = 0;
  private min = Number.POSITIVE_INFINITY;
  private max = Number.NEGATIVE_INFINITY;
  private half = 0;
  private readonly histogram = new Float64Array(BUCKETS);

  add(data: Float32Array): void {
    // one sample in thirteen is enough for percentiles of a large part; a prime falls on every depth of a trace in turn
    const every = data.length > PART ? 13 : 1;
    // a part of them at a time stays in the processor's cache
    for (let n = 0; n < data.length; n += PART) this.addPart(data.subarray(n, n + PART), every);
  }

  private addPart(data: Float32Array, every: number): void {
    // infinities stay among the samples, and out of what is said of them
    const part = sums(threadKernels(), data);
    this.count += part.count;
    this.nulls += part.nulls;
    this.sum += part.sum;
    this.squares += part.squares;
    this.min = Math.min(this.min, part.min);
    this.max = Math.max(this.max, part.max);
    const largest = this.count > 0 ? Math.max(Math.abs(this.min), Math.abs(this.max)) : 0;
    while (largest > this.half) this.widen(largest);
    const { histogram } = this;
    const scale = this.half > 0 ? (BUCKETS / 2 - 1) / this.half : 0;
    for (let n = 0; n < data.length; n += every) {
      const value = data[n];
      if (value - value === 0) histogram[(value * scale + BUCKETS / 2) | 0] += every;
    }
  }

  /** Double the histogram's range, folding pairs of buckets together, until it holds `largest`. */
  private widen(largest: number): void {
    if (this.half === 0) {
      this.half = 2 ** Math.ceil(Math.log2(largest * 1.0001));
      const zeros = this.histogram.reduce((a, b) => a + b, 0);
      this.histogram.fill(0);
      this.histogram[BUCKETS / 2] = zeros;
      return;
    }
    const folded = new Float64Array(BUCKETS);
    for (let n = 0; n < BUCKETS; n++) folded[Math.floor((n - BUCKETS / 2) / 2) + BUCKETS / 2] += this.histogram[n];
    this.histogram.set(folded);
    this.half *= 2;
  }

  /** Take in the statistics of other samples. */
  merge(other: RunningStatistics): void {
    this.count += other.count;
    this.nulls += other.nulls;
    this.sum += other.sum;
    this.squares += other.squares;
    this.min = Math.min(this.min, other.min);
    this.max = Math.max(this.max, other.max);
    const fit = (one: RunningStatistics, half: number) => {
      while (one.half < half) one.widen(half);
    };
    fit(this, other.half);
    fit(other, this.half);
    for (let n = 0; n < BUCKETS; n++) this.histogram[n] += other.histogram[n];
  }

  /** What crosses from one thread to another. */
  static from(sent: object): RunningStatistics {
    return Object.assign(new RunningStatistics(), sent);
  }

  /** Value below which so many percent lie; 0 of nothing. */
  percentile(percent: number): number {
    const { histogram, count, half } = this;
    if (count === 0) return 0;
    const width = half > 0 ? half / (BUCKETS / 2 - 1) : 0;
    const target = (percent / 100) * histogram.reduce((a, b) => a + b, 0);
    const inside = (v: number) => Math.min(this.max, Math.max(this.min, v));
    let seen = 0;
    for (let n = 0; n < BUCKETS; n++) {
      if (seen + histogram[n] >= target && histogram[n] > 0)
        return inside((n - BUCKETS / 2 + (target - seen) / histogram[n]) * width);
      seen += histogram[n];
    }
    return this.max;
  }

  finish(): Statistics {
    const { histogram, count, half } = this;
    const total = histogram.reduce((a, b) => a + b, 0);
    const width = half > 0 ? half / (BUCKETS / 2 - 1) : 0;
    const magnitude = (target: number) => {
      let seen = 0;
      for (let n = 0; n < BUCKETS / 2; n++) {
        const here = histogram[BUCKETS / 2 + n] + histogram[BUCKETS / 2 - 1 - n];
        if (seen + here >= target && here > 0) return (n + (target - seen) / here) * width;
        seen += here;
      }
      return half;
    };
    const size = Math.max(Math.abs(this.min), Math.abs(this.max));
    return {
      min: count ? this.min : 0,
      max: count ? this.max : 0,
      mean: count ? this.sum / count : 0,
      rms: count ? Math.sqrt(this.squares / count) : 0,
      count,
      nulls: this.nulls,
      absolute: Object.fromEntries(TAILS.map((p) => [p, count ? Math.min(size, magnitude((p / 100) * total)) : 0])),
      percentiles: Object.fromEntries(RANKS.map((p) => [p, this.percentile(p)])),
    };
  }
}
