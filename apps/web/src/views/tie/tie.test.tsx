import { type EarthObject, runStep, type Tie, type TimeDepthRelation, unitsOf } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { renderToStaticMarkup } from 'react-dom/server';
import { beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { type Tied, tiedField } from '../../testing/tied';

let display: 'metric' | 'field' = 'metric';
// what is rendered without a page sees no change of a store
vi.mock('../../state/units', () => ({ useUnits: () => unitsOf({ display }) }));
vi.mock('../raster/Raster', () => ({ Raster: () => null }));
const { Scores } = await import('./Scores');
const { MatchPlot } = await import('./MatchPlot');
const { Tracks } = await import('./Tracks');
const { VelocityTrack } = await import('./VelocityTrack');

const textOf = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, ' ')
    .replace(/&[a-z#0-9]+;/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

let field: Tied;
let tie: Tie;
beforeAll(async () => {
  field = await tiedField();
  tie = await field.tie();
});
beforeEach(() => {
  display = 'metric';
});

const warned = (markup: string, label: string) => new RegExp(`<dt>${label}</dt><dd class="num _warn`).test(markup);

describe('how good a tie is', () => {
  test('is told in figures that are those of the chain, with nothing marked where nothing is wrong', () => {
    const markup = renderToStaticMarkup(<Scores tie={tie} />);
    const text = textOf(markup);
    expect(text).toContain(`Correlation ${tie.chain.correlation.toFixed(2)} in 300 ms`);
    expect(text).toContain('Density logged');
    expect(text).toContain('Velocity as calibrated');
    expect(text).toMatch(/Chance under 1 % of noise is as good/);
    expect(text).toMatch(/Shift [+−]?\d+\.\d ± \d+\.\d ms \(90 %\)/);
    expect(text).toMatch(/Match alone [+−]?\d+\.\d ± \d+\.\d ms/);
    expect(text).toMatch(/Phase [+−]?\d+ ± \d+°/);
    for (const label of ['Runner-up', 'Polarity', 'Chance', 'Velocity', 'Density'])
      expect(warned(markup, label)).toBe(false);
    expect(text).not.toMatch(/NaN|undefined/);
    expect(markup).not.toContain('What speaks against the tie');
  });
  test('marks what speaks against it: a polarity turned over, and a chance that is no small one', () => {
    const { chain } = tie;
    const evidence = { ...chain.evidence, asDeclared: 0.4, turnedOver: 0.62, chance: 0.2 };
    const warnings = ['Another event matches nearly as well.'];
    const markup = renderToStaticMarkup(<Scores tie={{ ...tie, chain: { ...chain, evidence, warnings } }} />);
    for (const label of ['Runner-up', 'Polarity', 'Chance']) expect(warned(markup, label)).toBe(true);
    expect(textOf(markup)).toContain('0.40; turned over 0.62');
    expect(textOf(markup)).toContain('20 % of noise is as good');
    expect(textOf(markup)).toContain('Another event matches nearly as well.');
  });
  test('says of whom the times are where the well has none of its own', () => {
    const text = textOf(renderToStaticMarkup(<Scores tie={{ ...tie, borrowedFrom: 'QN-1' }} />));
    expect(text).toContain('No checkshots: times begin as those of QN-1.');
  });
});

test('the match stands where its shift and phase are, the runner-up where its shift is', () => {
  const { chain } = tie;
  const { shifts } = chain.map;
  const map = { ...chain.map, runnerUp: { ...chain.map.runnerUp, shiftMs: shifts[0], correlation: 0.31 } };
  const made = { ...tie, chain: { ...chain, map, shiftMs: shifts[shifts.length - 1], phaseDeg: 0 } } as Tie;
  const markup = renderToStaticMarkup(<MatchPlot tie={made} draft />);
  expect(markup).toMatch(/left:100%;top:50%/);
  expect(markup).toMatch(/left:0%;top:50%/);
  expect(textOf(markup)).toContain('0.31');
});

describe('the tracks of a tie', () => {
  const tracks = () =>
    renderToStaticMarkup(
      <Tracks
        tie={tie}
        window={[400, 1000]}
        size={{ width: 900, height: 500 }}
        draft
        moved={[]}
        pins={[]}
        bound={0.03}
        others={[]}
      />,
    );
  test('stand from logs to match, each with its unit, without a number that is none', () => {
    const markup = tracks();
    const text = textOf(markup);
    const titles = ['As logged', 'Drift', 'Velocity', 'Impedance', 'Reflectivity', 'Synthetic', 'Seismic', 'Match'];
    const at = titles.map((t) => text.indexOf(t));
    expect(at.every((v) => v >= 0)).toBe(true);
    expect([...at].sort((a, b) => a - b)).toEqual(at);
    for (const unit of ['µs/m, g/cm³', 'm/s, over 40 ms', '10⁶ kg/m²s', 'TWT (ms)']) expect(text).toContain(unit);
    expect(markup).not.toMatch(/NaN|Infinity/);
  });
  test('follow the units of the field in headings and in figures', () => {
    const limitsOf = (markup: string) =>
      [...markup.matchAll(/class="_number[^"]*">([−\d.]+)</g)].map((m) => Number(m[1].replace('−', '-')));
    const metric = limitsOf(tracks());
    display = 'field';
    const markup = tracks();
    const text = textOf(markup);
    for (const unit of ['µs/ft, g/cm³', 'ft/s, over 40 ms', 'kft/s·g/cm³']) expect(text).toContain(unit);
    const field = limitsOf(markup);
    expect(field.length).toBe(metric.length);
    // velocities are three times as large, slowness a third
    expect(Math.max(...field) / Math.max(...metric)).toBeGreaterThan(2.8);
    expect(field).not.toEqual(metric);
  });
});

describe('what a tie makes of velocity', () => {
  const y = scaleLinear([400, 1000], [0, 400]);
  const track = (made: Tie, others: TimeDepthRelation[] = [], bound = 0.03) =>
    renderToStaticMarkup(
      <svg>
        <title>Velocity</title>
        <VelocityTrack
          tie={made}
          y={y}
          box={{ left: 0, top: 0, width: 80, height: 400 }}
          bound={bound}
          others={others}
        />
      </svg>,
    );
  const beyond = (markup: string) => (markup.match(/_beyond/g) ?? []).length;
  test('is red only where it leaves its bound', async () => {
    expect(beyond(track(tie))).toBe(0);
    const stretched = await field.tie({
      stretch: 'pins',
      mostChange: 15,
      pins: [
        { twt: 560, shiftMs: 0 },
        { twt: 640, shiftMs: 8 },
        { twt: 760, shiftMs: 0 },
      ],
    });
    expect(beyond(track(stretched))).toBeGreaterThan(0);
    expect(beyond(track(stretched, [], 0.5))).toBe(0);
  });
  test('is compared with the other versions of the well’s tie, each by its name', async () => {
    const [made] = (await runStep(
      {
        step: 'tie.well',
        inputs: { well: [field.well.id], seismic: [field.seismic.id], wavelet: [field.wavelet.id] },
        params: { top: 'Top' },
        name: 'An older tie',
      },
      field.store,
    )) as TimeDepthRelation[];
    const markup = track(tie, [made]);
    expect(markup).toContain('<title>An older tie</title>');
    expect(markup).not.toContain('NaN');
  });
});

describe('shifts by place', () => {
  const tied = (name: string, x: number, y: number, shiftMs: number) => [
    { kind: 'well', id: name, name, x, y, kbM: 25 },
    { kind: 'time-depth relation', id: `tie-${name}`, name: `${name} tie`, well: name, active: true, shiftMs },
  ];
  const show = async (...pairs: unknown[][]) => {
    const { useProject } = await import('../../state/project');
    const { ShiftMap } = await import('./TieTable');
    const held = pairs.flat() as EarthObject[];
    // what is rendered without a page sees the first state of a store
    Object.assign(useProject.getInitialState(), { objects: held });
    return renderToStaticMarkup(<ShiftMap />);
  };
  test('every name lies within the map, on the side that has room, and north is up', async () => {
    const markup = await show(
      tied('QN-1', 513_940, 7_644_573, -1.2),
      tied('QN-4', 514_600, 7_644_500, 1),
      tied('A long name', 513_000, 7_645_300, -7.8),
    );
    const width = Number(/viewBox="0 0 (\d+)/.exec(markup)?.[1]);
    const names = [...markup.matchAll(/<text x="([\d.]+)" y="([\d.]+)" text-anchor="(\w+)">([^<]+)</g)].map(
      ([, x, y, anchor, name]) => ({ x: Number(x), y: Number(y), anchor, name }),
    );
    expect(names.map((n) => n.name)).toEqual(['QN-1', 'QN-4', 'A long name']);
    for (const { x, anchor, name } of names) {
      // 7 px to a letter is wider than any of the face
      const [from, to] = anchor === 'end' ? [x - 7 * name.length, x] : [x, x + 7 * name.length];
      expect(from).toBeGreaterThanOrEqual(0);
      expect(to).toBeLessThanOrEqual(width);
    }
    expect(names[2].y).toBeLessThan(names[0].y);
    expect(textOf(markup)).toContain('−7.8');
  });
  test('one tie makes no map', async () => {
    expect(await show(tied('QN-1', 0, 0, 3))).toBe('');
  });
});
