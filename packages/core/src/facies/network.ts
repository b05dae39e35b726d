import { heed } from '../numerics/stop.ts';
import { type Classifier, type Prior, priors, randomFrom, type Samples } from './samples.ts';

export interface NetworkOptions {
  hidden: number;
  epochs: number;
  /** Penalty on the squares of the weights, which keeps a small network from learning its samples by heart. */
  decay: number;
  seed: number;
  prior: Prior;
}

/**
 * A network with one hidden layer (tanh, then softmax), trained by Adam (Kingma & Ba 2015, International Conference on
 * Learning Representations) on the cross entropy with weight decay.
 */
export function trainNetwork(samples: Samples, o: NetworkOptions): Classifier {
  const { width: w, classes: k, count, labels, features } = samples;
  const h = o.hidden;
  const random = randomFrom(o.seed);
  const normal = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random());
  // weights and biases of both layers in one array
  const size = h * (w + 1) + k * (h + 1);
  const weights = Float64Array.from({ length: size }, (_, n) =>
    n < h * (w + 1) ? normal() / Math.sqrt(w + 1) : normal() / Math.sqrt(h + 1),
  );
  const second = h * (w + 1);
  const seen = priors(samples, 'as seen');
  const wanted = priors(samples, o.prior);
  const importance = seen.map((p, c) => (p > 0 ? wanted[c] / p : 0));
  const hidden = new Float64Array(h);
  const out = new Float64Array(k);
  const pass = (rows: Float64Array, at: number) => {
    for (let a = 0; a < h; a++) {
      let sum = weights[a * (w + 1) + w];
      for (let f = 0; f < w; f++) sum += weights[a * (w + 1) + f] * rows[at + f];
      hidden[a] = Math.tanh(sum);
    }
    let top = Number.NEGATIVE_INFINITY;
    for (let c = 0; c < k; c++) {
      let sum = weights[second + c * (h + 1) + h];
      for (let a = 0; a < h; a++) sum += weights[second + c * (h + 1) + a] * hidden[a];
      // a class that was never seen is never guessed
      out[c] = seen[c] > 0 ? sum : Number.NEGATIVE_INFINITY;
      top = Math.max(top, out[c]);
    }
    let sum = 0;
    for (let c = 0; c < k; c++) {
      out[c] = Math.exp(out[c] - top);
      sum += out[c];
    }
    for (let c = 0; c < k; c++) out[c] /= sum;
  };
  const gradient = new Float64Array(size);
  const [m, v] = [new Float64Array(size), new Float64Array(size)];
  const batch = Math.min(64, count);
  const order = Int32Array.from({ length: count }, (_, n) => n);
  let step = 0;
  for (let epoch = 0; epoch < o.epochs; epoch++) {
    heed();
    for (let n = count - 1; n > 0; n--) {
      const q = Math.floor(random() * (n + 1));
      [order[n], order[q]] = [order[q], order[n]];
    }
    for (let b = 0; b + batch <= count; b += batch) {
      gradient.fill(0);
      for (let n = b; n < b + batch; n++) {
        const row = order[n];
        pass(features, row * w);
        const strength = importance[labels[row]] / batch;
        const back = new Float64Array(h);
        for (let c = 0; c < k; c++) {
          const error = (out[c] - (c === labels[row] ? 1 : 0)) * strength;
          const at = second + c * (h + 1);
          for (let a = 0; a < h; a++) {
            gradient[at + a] += error * hidden[a];
            back[a] += error * weights[at + a];
          }
          gradient[at + h] += error;
        }
        for (let a = 0; a < h; a++) {
          const error = back[a] * (1 - hidden[a] ** 2);
          for (let f = 0; f < w; f++) gradient[a * (w + 1) + f] += error * features[row * w + f];
          gradient[a * (w + 1) + w] += error;
        }
      }
      step++;
      for (let n = 0; n < size; n++) {
        const g = gradient[n] + o.decay * weights[n];
        m[n] = 0.9 * m[n] + 0.1 * g;
        v[n] = 0.999 * v[n] + 0.001 * g * g;
        weights[n] -= (0.01 * (m[n] / (1 - 0.9 ** step))) / (Math.sqrt(v[n] / (1 - 0.999 ** step)) + 1e-8);
      }
    }
  }
  return (rows, rowCount) => {
    const all = new Float64Array(rowCount * k);
    for (let n = 0; n < rowCount; n++) {
      pass(rows, n * w);
      all.set(out, n * k);
    }
    return all;
  };
}
