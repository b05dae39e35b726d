// Depth of the reservoir's top over the accumulation and at the well that was left out.
import { median, must, row, worst } from './score.mjs';

const part = 'depth';

export function measure(work) {
  const at = work.gridOf('Tolven Top in depth');
  const crest = work.truthJson.volumes.find((v) => v.area === 'Crest');
  const { x_m, y_m } = work.truthJson.traps.crest.top;
  const rows = work.truth('tolven-top.csv');
  // the accumulation: what lies above the contact around its top, found by walking from bin to bin
  const key = (inline, crossline) => inline * 10000 + crossline;
  const above = new Map(
    rows.filter((r) => r.depth_m < crest.contacts.owc_m).map((r) => [key(r.inline, r.crossline), r]),
  );
  const start = rows.reduce((a, b) =>
    Math.hypot(b.x_m - x_m, b.y_m - y_m) < Math.hypot(a.x_m - x_m, a.y_m - y_m) ? b : a,
  );
  const [inside, front] = [new Set(), [start]];
  while (front.length > 0) {
    const { inline, crossline, depth_m } = front.pop();
    const here = key(inline, crossline);
    if (inside.has(here)) continue;
    inside.add(here);
    for (const [i, j] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      const next = above.get(key(inline + i, crossline + j));
      // a step of a bin that is deeper than this crosses a fault
      if (next && !inside.has(key(next.inline, next.crossline)) && Math.abs(next.depth_m - depth_m) < 15)
        front.push(next);
    }
  }
  const errors = [...inside]
    .map((k) => above.get(k))
    .filter(Boolean)
    .map((r) => at(r.inline, r.crossline) - r.depth_m);
  const known = errors.filter((e) => !Number.isNaN(e));
  const mean = known.reduce((a, b) => a + b, 0) / known.length;
  const head = work.table('well-heads.csv').find((w) => w.well === 'QN-5');
  const top = work.table('well-tops.csv').find((t) => t.well === 'QN-5' && t.top === 'Tolven Top');
  const near = rows.reduce((a, b) =>
    Math.hypot(b.x_m - head.x_m, b.y_m - head.y_m) < Math.hypot(a.x_m - head.x_m, a.y_m - head.y_m) ? b : a,
  );
  return [
    row(part, 'Tolven Top over the Crest: bias', work.seed, mean, 'm'),
    row(
      part,
      'Tolven Top over the Crest: rms',
      work.seed,
      Math.sqrt(known.reduce((a, b) => a + b * b, 0) / known.length),
      'm',
    ),
    row(
      part,
      'Tolven Top over the Crest: bins without a depth',
      work.seed,
      1 - known.length / errors.length,
      'of them',
    ),
    row(part, 'Tolven Top at QN-5, left out', work.seed, at(near.inline, near.crossline) - (top.md_m - head.kb_m), 'm'),
  ];
}

export function musts(rows) {
  const of = (measure) => rows.filter((r) => r.measure.endsWith(measure)).map((r) => r.value);
  return [
    must(part, 'Tolven Top over the Crest: rms (median over seeds)', median(of(': rms')), 'm', 'at most', 10),
    must(
      part,
      'Tolven Top over the Crest: bias without its sign (median over seeds)',
      median(of(': bias').map(Math.abs)),
      'm',
      'at most',
      4,
    ),
    row(part, 'Tolven Top over the Crest: rms (worst seed)', null, Math.max(...of(': rms')), 'm'),
    row(part, 'Tolven Top at QN-5 (worst seed)', null, worst(of('left out')), 'm'),
  ];
}
