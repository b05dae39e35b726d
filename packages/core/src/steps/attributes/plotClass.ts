import { z } from 'zod';
import { inRing } from '../../crossplot/points.ts';
import { LithagonError } from '../../earth/errors.ts';
import type { PlotClass } from '../../earth/objects.ts';
import type { Given } from '../../engine/local.ts';
import { choice, defineStep, number } from '../define.ts';

const limit = (title: string, description: string, initial: number) =>
  number({ title, description }, { min: -1e12, max: 1e12, step: 1, initial });

const params = z.object({
  thirdFrom: limit('Third from', 'Lowest value of the third volume that any class takes in.', -1e12),
  thirdTo: limit('Third to', 'Highest value that it does.', 1e12),
  fourthFrom: limit('Fourth from', 'Lowest value of the fourth volume that any class takes in.', -1e12),
  fourthTo: limit('Fourth to', 'Highest value that it does.', 1e12),
  several: choice(
    { title: 'In several classes', description: 'What a sample gets that lies in more than one of them.' },
    ['the first of them', 'the last of them', 'none'],
    'the first of them',
  ),
});

interface Ready {
  /** Rings of the classes, on axes as they are drawn: logarithms where those are. */
  rings: [number, number][][];
  xLog: boolean;
  yLog: boolean;
}

const scaled = (v: number, log: boolean) => (log ? Math.log10(v) : v);

function ringsOf(given: Given): Ready {
  const classes = given.classes as PlotClass[];
  const [first] = classes;
  for (const c of classes)
    if (c.x.of !== first.x.of || c.y.of !== first.y.of || c.x.log !== first.x.log || c.y.log !== first.y.log)
      throw new LithagonError('input', `${c.name} and ${first.name} are drawn on different axes.`, {
        object: c.name,
        fix: 'Choose classes of one crossplot.',
      });
  return {
    xLog: first.x.log,
    yLog: first.y.log,
    rings: classes.map((c) => c.ring.map(([x, y]) => [scaled(x, first.x.log), scaled(y, first.y.log)])),
  };
}

export const plotClass = defineStep({
  id: 'attributes.plotClass',
  version: 1,
  stage: 'attributes',
  purpose: 'Classes and bodies',
  title: 'Crossplot classes',
  summary:
    'Gives every sample the class whose polygon in a crossplot of two volumes it lies in, within ranges of a third and fourth.',
  formula: 'n where (x, y) lies in polygon n and v₁ ≤ z ≤ v₂, on linear or logarithmic axes as they were drawn.',
  avoid: 'With two axes where two kinds of rock overlap: limit a third, by which they part.',
  source: 'Points in polygons Shimrat (1962), Communications of the ACM 5, 434',
  reach: 'local',
  inputs: {
    x: { kind: 'volume', title: 'Along x' },
    y: { kind: 'volume', title: 'Along y' },
    third: { kind: 'volume', title: 'Third', optional: true },
    fourth: { kind: 'volume', title: 'Fourth', optional: true },
    classes: { kind: 'crossplot class', title: 'Classes', many: true },
  },
  params,
  outputs: { classes: { kind: 'volume', title: 'Crossplot classes' } },
  local: {
    volumes: ['x', 'y', 'third', 'fourth'],
    halo: () => ({ inline: 0, crossline: 0, sample: 0 }),
    prepare: async (given) => ringsOf(given),
    evaluate({ x, y, third, fourth }, p, { rings, xLog, yLog }: Ready) {
      const out = new Float32Array(x.data.length);
      const within = (block: typeof third | undefined, n: number, from: number, to: number) =>
        !block || (block.data[n] >= from && block.data[n] <= to);
      for (let n = 0; n < out.length; n++) {
        const [a, b] = [scaled(x.data[n], xLog), scaled(y.data[n], yLog)];
        // what one of them has not is in no class, and has none
        if (a !== a || b !== b) {
          out[n] = Number.NaN;
          continue;
        }
        if (!within(third, n, p.thirdFrom, p.thirdTo) || !within(fourth, n, p.fourthFrom, p.fourthTo)) continue;
        let [found, times] = [0, 0];
        for (let c = 0; c < rings.length; c++) {
          if (!inRing(rings[c], a, b)) continue;
          times++;
          if (found === 0 || p.several === 'the last of them') found = c + 1;
        }
        out[n] = times > 1 && p.several === 'none' ? 0 : found;
      }
      return { classes: out };
    },
    outputs: { classes: { quantity: 'class', unit: '' } },
  },
});
