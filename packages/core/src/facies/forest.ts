import { heed } from '../numerics/stop.ts';
import { type Classifier, type Prior, priors, randomFrom, type Samples } from './samples.ts';

/** A decision tree as flat arrays: a node asks one feature, a leaf holds class weights. */
interface Tree {
  feature: number[];
  threshold: number[];
  left: number[];
  right: number[];
  leaf: (Float64Array | null)[];
}

export interface ForestOptions {
  trees: number;
  /** Fewest samples in a leaf. */
  leaf: number;
  deepest: number;
  seed: number;
  prior: Prior;
}

/** Random forest (Breiman 2001, Machine Learning 45, 5–32): Gini impurity, √features tried at each node, bootstrap by tree. */
export function trainForest(samples: Samples, o: ForestOptions): Classifier {
  const random = randomFrom(o.seed);
  const { count, width, classes, labels, features } = samples;
  const seen = priors(samples, 'as seen');
  const wanted = priors(samples, o.prior);
  const weight = seen.map((p, c) => (p > 0 ? wanted[c] / p : 0));
  const tries = Math.max(1, Math.round(Math.sqrt(width)));
  const trees: Tree[] = [];
  for (let t = 0; t < o.trees; t++) {
    heed();
    const tree: Tree = { feature: [], threshold: [], left: [], right: [], leaf: [] };
    const bag = Int32Array.from({ length: count }, () => Math.floor(random() * count));
    grow(tree, bag, 0);
    trees.push(tree);
  }

  function leafOf(items: Int32Array): Float64Array {
    const out = new Float64Array(classes);
    let sum = 0;
    for (const n of items) {
      out[labels[n]] += weight[labels[n]];
      sum += weight[labels[n]];
    }
    return out.map((v) => v / (sum || 1));
  }

  function grow(tree: Tree, items: Int32Array, depth: number): number {
    const node = tree.feature.length;
    tree.feature.push(-1);
    tree.threshold.push(0);
    tree.left.push(-1);
    tree.right.push(-1);
    tree.leaf.push(null);
    const split = depth < o.deepest && items.length >= 2 * o.leaf ? bestSplit(items) : null;
    if (!split) {
      tree.leaf[node] = leafOf(items);
      return node;
    }
    const isLeft = (n: number) => features[n * width + split.feature] <= split.threshold;
    const left = items.filter(isLeft);
    const right = items.filter((n) => !isLeft(n));
    tree.feature[node] = split.feature;
    tree.threshold[node] = split.threshold;
    tree.left[node] = grow(tree, left, depth + 1);
    tree.right[node] = grow(tree, right, depth + 1);
    return node;
  }

  function bestSplit(items: Int32Array): { feature: number; threshold: number } | null {
    let best: { feature: number; threshold: number; gain: number } | null = null;
    const all = new Float64Array(classes);
    let total = 0;
    for (const n of items) {
      all[labels[n]] += weight[labels[n]];
      total += weight[labels[n]];
    }
    const start = all.reduce((s, v) => s + v * v, 0) / total;
    if (start >= total * (1 - 1e-12)) return null;
    for (let t = 0; t < tries; t++) {
      const feature = Math.floor(random() * width);
      const sorted = items.slice().sort((a, b) => features[a * width + feature] - features[b * width + feature]);
      const left = new Float64Array(classes);
      const right = all.slice();
      let [leftSum, leftSquares, rightSquares] = [0, 0, all.reduce((s, v) => s + v * v, 0)];
      for (let k = 0; k + 1 < sorted.length; k++) {
        const c = labels[sorted[k]];
        const w = weight[c];
        leftSquares += w * (2 * left[c] + w);
        rightSquares -= w * (2 * right[c] - w);
        left[c] += w;
        right[c] -= w;
        leftSum += w;
        if (k + 1 < o.leaf || sorted.length - k - 1 < o.leaf) continue;
        const [a, b] = [features[sorted[k] * width + feature], features[sorted[k + 1] * width + feature]];
        if (a === b) continue;
        const gain = leftSquares / leftSum + rightSquares / (total - leftSum) - start;
        if (gain > (best?.gain ?? 1e-9 * total)) best = { feature, threshold: 0.5 * (a + b), gain };
      }
    }
    return best;
  }

  return (rows, rowCount) => {
    const out = new Float64Array(rowCount * classes);
    for (let n = 0; n < rowCount; n++) {
      if (n % 1024 === 0) heed();
      for (const tree of trees) {
        let node = 0;
        while (tree.feature[node] >= 0)
          node = rows[n * width + tree.feature[node]] <= tree.threshold[node] ? tree.left[node] : tree.right[node];
        const leaf = tree.leaf[node] as Float64Array;
        for (let c = 0; c < classes; c++) out[n * classes + c] += leaf[c] / trees.length;
      }
    }
    return out;
  };
}
