import { z } from 'zod';
import { CHANNELS, type Channel } from '../../attributes/blend.ts';
import { sameBins } from '../../earth/binGrid.ts';
import { LithagonError } from '../../earth/errors.ts';
import { BLEND_AXES, type Blend, type QuantityMap, type Volume } from '../../earth/objects.ts';
import { RunningStatistics } from '../../numerics/statistics.ts';
import { readWhole } from '../../storage/arrays.ts';
import type { Store } from '../../storage/store.ts';
import { choice, type Draft, defineStep, listed, number, text } from '../define.ts';

type Given = QuantityMap | Volume;

/** Quantities that are great where layers break: as a shade they darken there. */
const GREAT_AT_EDGES = ['variance', 'chaos', 'curvature', 'dip angle'];

const params = z.object({
  clip: choice(
    {
      title: 'Cut off',
      description: 'So much of what each channel holds lies beyond either end of its colour.',
    },
    ['0 %', '1 %', '2 %', '5 %', '10 %'],
    '2 %',
  ),
  turned: text(
    {
      title: 'Turned round',
      description: 'Channels that are full where values are small: red, green, blue or shade, with commas between.',
      optional: true,
    },
    '',
  ),
  axes: choice(
    { title: 'Colours', description: 'Blue and amber are told apart by colour-blind people too.' },
    [...BLEND_AXES],
    'red, green, blue',
  ),
  strength: number(
    { title: 'Shade', description: 'How dark the fourth makes what is nought in it.', unit: '%' },
    { min: 0, max: 100, step: 5, initial: 70 },
  ),
  ranges: z
    .array(
      z.object({
        channel: z.enum(CHANNELS).meta({ title: 'Channel' }),
        from: z.number().meta({ title: 'Absent at' }),
        to: z.number().meta({ title: 'Full at' }),
      }),
    )
    .max(4)
    .default([])
    .meta({ title: 'Ends', description: 'Of channels that are not to end where the data do.' }),
});

/** Statistics that a channel's ends come from: those that a volume has, or of a map's values. */
async function percentilesOf(store: Store, given: Given): Promise<Record<string, number>> {
  if (given.kind === 'volume') return given.statistics.percentiles;
  const running = new RunningStatistics();
  running.add(await readWhole(store, given.values));
  return running.finish().percentiles;
}

/** What three or four must share to be laid on one another. */
function mustMatch(channels: [Channel, Given][]): void {
  const [[, first]] = channels;
  for (const [, other] of channels) {
    const why =
      other.kind !== first.kind
        ? `${first.name} is a ${first.kind} and ${other.name} is a ${other.kind}`
        : !sameBins(first.binGrid, other.binGrid)
          ? `${first.name} and ${other.name} have other bins`
          : first.kind === 'volume' &&
              other.kind === 'volume' &&
              (first.domain !== other.domain || JSON.stringify(first.vertical) !== JSON.stringify(other.vertical))
            ? `${first.name} and ${other.name} have samples at other times or depths`
            : null;
    if (why)
      throw new LithagonError('input', `They cannot be blended: ${why}.`, {
        object: other.name,
        fix: 'Choose maps of one survey, or volumes with the same samples. Nothing was changed.',
      });
  }
}

export const blend = defineStep({
  id: 'attributes.blend',
  version: 1,
  stage: 'attributes',
  purpose: 'Amplitude and frequency',
  title: 'Colour blend',
  summary: 'Three maps or volumes as one colour, each by a primary of its own, and a fourth as shade.',
  formula: '(R, G, B) = (1 − s·(1 − q₄))·Σ qₙ·Pₙ, qₙ the part of the way from absent to full.',
  avoid: 'With channels that tell of the same: a grey picture says that nothing was gained by the second.',
  source: 'Henderson et al. (2008), The Leading Edge 27, 342–350',
  reach: 'global',
  inputs: {
    red: { kind: 'map', or: 'volume', title: 'First' },
    green: { kind: 'map', or: 'volume', title: 'Second' },
    blue: { kind: 'map', or: 'volume', title: 'Third' },
    shade: { kind: 'map', or: 'volume', title: 'Shade', optional: true },
  },
  params,
  outputs: { blend: { kind: 'blend', title: 'Blend' } },
  async run({ inputs, params: p, store }) {
    const given = inputs as unknown as Record<Channel, Given | undefined>;
    const channels = CHANNELS.flatMap((c): [Channel, Given][] => {
      const one = given[c];
      return one ? [[c, one]] : [];
    });
    mustMatch(channels);
    const turned = listed(p.turned);
    for (const name of turned)
      if (!(CHANNELS as readonly string[]).includes(name))
        throw new LithagonError('params', `There is no channel “${name}” to turn round.`, {
          fix: `The channels are ${CHANNELS.join(', ')}.`,
        });
    const tail = Number(p.clip.replace(' %', ''));
    const ends: Partial<Record<Channel, { from: number; to: number }>> = {};
    for (const [channel, one] of channels) {
      const row = p.ranges.find((r) => r.channel === channel);
      const percentiles = row ? {} : await percentilesOf(store, one);
      const [low, high] = row
        ? [row.from, row.to]
        : [percentiles[String(tail)] ?? 0, percentiles[String(100 - tail)] ?? 1];
      const breaks = channel === 'shade' && GREAT_AT_EDGES.includes(one.quantity);
      const turn = turned.includes(channel) !== (breaks && !row);
      ends[channel] = turn ? { from: high, to: low } : { from: low, to: high };
    }
    const [, first] = channels[0];
    const draft: Draft<Blend> = {
      kind: 'blend',
      of: first.kind,
      ...(first.kind === 'volume' ? { domain: first.domain } : {}),
      red: ends.red as Blend['red'],
      green: ends.green as Blend['green'],
      blue: ends.blue as Blend['blue'],
      ...(ends.shade ? { shade: ends.shade } : {}),
      strength: p.strength / 100,
      axes: p.axes,
    };
    return { blend: draft };
  },
});
