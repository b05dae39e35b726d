import type { EarthObject, Logs, Stratigraphy, Well } from '@lithagon/core';
import { topsOf, unitsOf } from '@lithagon/core';
import { layeredField } from '@lithagon/core/testing/layeredField';
import { beforeAll, describe, expect, test } from 'vitest';
import { type DepthKind, LOGS_DESK, type LogsDesk } from '../../state/logsTemplate';
import { ticks } from './axis';
import { axisOf, extremes, type WellColumn } from './columns';
import { headMarks } from './heads';
import { hangOf, inReach, layOut, NARROWEST, wholeWindow } from './layout';
import { printPanel } from './print';
import { nearestScale, SCALES } from './scale';
import { zoneMarks } from './zones';

let objects: EarthObject[];
let well: Well;

/** The column of the field's one well, as if it stood elsewhere and lower. */
function column(name: string, lower = 0, depth: DepthKind = 'TVDSS'): WellColumn {
  const { axisAt, mdAt, deepest } = axisOf(objects, well, depth);
  const logs = objects.find((o): o is Logs => o.kind === 'logs') as Logs;
  const { firstM, stepM, count } = logs.depth;
  const values = Float32Array.from({ length: count }, (_, n) => 60 + 40 * Math.sin(n / 30));
  const [low, high] = extremes(values);
  const curve = { key: 'gamma ray', class: 'gamma ray', unit: 'gAPI', min: 20, max: 100 } as const;
  return {
    well: { ...well, id: name, name, x: well.x + lower },
    curves: new Map([['gamma ray', { ...curve, firstM, stepM, values, low, high }]]),
    tops: topsOf(objects, well.name).map((t) => ({ ...t, md: t.md + lower })),
    facies: undefined,
    core: [],
    checkshots: [],
    axisAt,
    mdAt,
    first: 0,
    last: deepest,
  };
}

const desk: LogsDesk = { ...LOGS_DESK, depth: 'TVDSS', hang: null, zones: true, spaced: false };
const size = { width: 1000, height: 600 };

beforeAll(async () => {
  const field = await layeredField();
  objects = await field.store.list();
  well = field.well;
});

describe('the shared axis of a well', () => {
  test.each(['MD', 'TVD', 'TVDSS', 'TWT'] as DepthKind[])('in %s goes down with depth, there and back', (depth) => {
    const { axisAt, mdAt } = axisOf(objects, well, depth);
    for (let md = 320; md < 1000; md += 40) {
      expect(axisAt(md + 10)).toBeGreaterThan(axisAt(md));
      expect(mdAt(axisAt(md))).toBeCloseTo(md, 3);
    }
  });
  test('in TWT is the relation of the well, and the relation of nothing is no time', () => {
    const { axisAt } = axisOf(objects, well, 'TWT');
    // checkshots of the field: 100 m of water at 1490 m/s, then 1800 m/s
    expect(axisAt(400)).toBeCloseTo(2000 * (100 / 1490 + 300 / 1800), 0);
    const without = objects.filter((o) => o.kind !== 'checkshots' && o.kind !== 'time-depth relation');
    expect(axisOf(without, well, 'TWT').axisAt(400)).toBeNaN();
  });
});

describe('a panel of wells', () => {
  test('hung on a top brings that top to one level; a well without it says so', () => {
    const [a, b] = [column('A'), column('B', 35)];
    const name = a.tops[0].name;
    for (const c of [a, b]) expect(c.axisAt(c.tops[0].md) + hangOf(c, name).hung).toBeCloseTo(0, 6);
    expect(hangOf(a, 'Nowhere')).toEqual({ hung: 0, hangs: false });
    const panel = layOut([a, b], { ...desk, hang: name }, size, [-100, 300], [500]);
    const [ya, yb] = panel.wells.map((w) => w.y(w.column.tops[0].md));
    expect(ya).toBeCloseTo(yb, 6);
  });
  test('places depths on pixels and back, and its window holds logs and what lies along them', () => {
    const a = column('A');
    const window = wholeWindow([a], null);
    const panel = layOut([a], desk, size, window, []);
    const [{ y, tracks }] = panel.wells;
    const along = a.tops.filter((t) => t.md > 300);
    expect(along.length).toBeGreaterThan(1);
    for (const t of along) {
      expect(y(t.md)).toBeGreaterThanOrEqual(panel.top);
      expect(y(t.md)).toBeLessThanOrEqual(panel.top + panel.height);
      expect(tracks[0].box.mdAt(y(t.md))).toBeCloseTo(t.md, 3);
    }
    expect(window[1] - window[0]).toBeGreaterThan(700);
  });
  test('shows wells without logs by their tops, with room around them, and anything where there is nothing', () => {
    const bare = { ...column('A'), curves: new Map() };
    const depths = bare.tops.map((t) => bare.axisAt(t.md));
    const [from, to] = wholeWindow([bare], null);
    expect(from).toBeLessThan(Math.min(...depths));
    expect(to).toBeGreaterThan(Math.max(...depths));
    expect(to - from).toBeLessThan(1.3 * (Math.max(...depths) - Math.min(...depths)));
    expect(wholeWindow([{ ...bare, tops: [] }], null)).toEqual([0, 1000]);
    expect(wholeWindow([], null)).toEqual([0, 1000]);
  });
  test('with true spacing parts wells as far as they lie apart', () => {
    const wells = [column('A'), column('B'), column('C')];
    const panel = layOut(wells, { ...desk, spaced: true }, { width: 2400, height: 600 }, [0, 900], [1000, 3000]);
    const gaps = [0, 1].map((n) => panel.wells[n + 1].left - (panel.wells[n].left + panel.wells[n].width));
    const even = layOut(wells, desk, { width: 2400, height: 600 }, [0, 900], [1000, 3000]);
    const least = even.wells[1].left - (even.wells[0].left + even.wells[0].width);
    expect((gaps[1] - least) / (gaps[0] - least)).toBeCloseTo(3, 6);
  });
  test('narrows tracks only so far before it scrolls, to where the last names still have room', () => {
    const widths = [1, 3, 9].map(
      (n) =>
        layOut(
          Array.from({ length: n }, (_, m) => column(`W${m}`)),
          desk,
          size,
          [0, 900],
          Array(n - 1).fill(100),
        ).wells[0].tracks[0].box.width,
    );
    expect(widths[0]).toBe(desk.tracks[0].width);
    expect(widths[2]).toBe(desk.tracks[0].width * NARROWEST);
    expect(widths[1]).toBeGreaterThanOrEqual(widths[2]);
  });
  test('is as wide as its wells and the names of the last one’s tops', () => {
    const a = column('A');
    const named = { ...a, tops: [{ ...a.tops[0], name: 'A name of twenty-nine letters' }] };
    const [short, long] = [a, named].map((c) => layOut([c], desk, size, [0, 900], []));
    const right = (p: typeof short) => p.wells[0].left + p.wells[0].width;
    expect(short.width - right(short)).toBeGreaterThan(0);
    expect(long.width - right(long)).toBeGreaterThan(29 * 5);
  });
  test('cannot be scrolled to where it holds nothing', () => {
    const whole: [number, number] = [300, 1300];
    expect(inReach([5000, 5500], whole)).toEqual([1250, 1750]);
    expect(inReach([-9000, -8500], whole)).toEqual([-150, 350]);
    expect(inReach([400, 900], whole)).toEqual([400, 900]);
  });
});

describe('what is drawn of a panel', () => {
  test('zones join the same tops of neighbours, in the colours of their units', () => {
    const [a, b] = [column('A'), column('B', 20)];
    const units = a.tops.map((t, n) => ({ top: t.name, name: `Unit ${n}`, color: `#00000${n}`, pattern: 'sand' }));
    const stratigraphy = { kind: 'stratigraphic column', units } as unknown as Stratigraphy;
    const panel = layOut([a, b], desk, size, wholeWindow([a, b], null), [400]);
    const marks = zoneMarks(panel, stratigraphy);
    const areas = marks.filter((m) => m.kind === 'area');
    expect(areas.map((m) => m.color)).toEqual(units.slice(0, -1).map((u) => u.color));
    const [left, right] = panel.wells;
    const [x0, y0, x1, y1] = areas[0].points;
    expect([x0, x1]).toEqual([Math.fround(left.left + left.width), Math.fround(right.left)]);
    expect([y0, y1].map(Math.round)).toEqual([left.y(a.tops[0].md), right.y(b.tops[0].md)].map(Math.round));
    // over seismic they are seen through, and their lines stay
    const sheer = zoneMarks(panel, stratigraphy, true);
    expect(sheer.filter((m) => m.kind === 'area').map((m) => m.color)).toEqual(areas.map((m) => `${m.color}4d`));
    expect(sheer.filter((m) => m.kind === 'line')).toEqual(marks.filter((m) => m.kind === 'line'));
    // a unit that only one of them has is left open
    const short = { ...b, tops: b.tops.slice(0, 1) };
    const open = zoneMarks(layOut([a, short], desk, size, [0, 900], [400]), stratigraphy);
    expect(open.filter((m) => m.kind === 'area')).toEqual([]);
  });
  test('a bed that only one of two wells has ends half-way, as a wedge on the next top of both', () => {
    const [a, b] = [column('A'), column('B', 20)];
    const units = a.tops.map((t, n) => ({ top: t.name, name: `Unit ${n}`, color: `#00000${n}`, pattern: 'sand' }));
    const stratigraphy = { kind: 'stratigraphic column', units } as unknown as Stratigraphy;
    const [upper, , lower] = a.tops;
    const without = { ...b, tops: b.tops.filter((_, n) => n !== 1) };
    for (const pair of [
      [a, without],
      [without, a],
    ]) {
      const panel = layOut(pair, desk, size, wholeWindow(pair, null), [400]);
      const beds = zoneMarks(panel, stratigraphy).flatMap((m) => (m.kind === 'area' ? [m] : []));
      const [bed, wedge] = beds;
      // the bed above runs from well to well, down to the next top that both have
      expect(bed.color).toBe(units[0].color);
      const [one, two] = panel.wells;
      const ys = (well: typeof one, name: string) => well.y(well.column.tops.find((t) => t.name === name)?.md ?? 0);
      const corners = [one, two, two, one].map((w, n) => Math.fround(ys(w, n < 2 ? upper.name : lower.name)));
      expect([...bed.points].filter((_, n) => n % 2 === 1)).toEqual(corners);
      // the other lies on that top, from its well to the middle
      expect(wedge.color).toBe(units[1].color);
      const [x, , tipX, tipY] = wedge.points;
      expect(x).toBe(Math.fround(pair[0] === a ? one.left + one.width : two.left));
      expect(tipX).toBeCloseTo((one.left + one.width + two.left) / 2, 3);
      expect(tipY).toBeCloseTo((ys(one, lower.name) + ys(two, lower.name)) / 2, 3);
    }
  });
  test('tops in another order over there bound no bed', () => {
    const a = column('A');
    const [first, second] = a.tops;
    const turned = {
      ...a,
      tops: [
        { ...first, md: second.md },
        { ...second, md: first.md },
      ],
    };
    const units = a.tops.map((t, n) => ({ top: t.name, name: `Unit ${n}`, color: `#00000${n}`, pattern: 'sand' }));
    const stratigraphy = { kind: 'stratigraphic column', units } as unknown as Stratigraphy;
    const panel = layOut([{ ...a, tops: a.tops.slice(0, 2) }, turned], desk, size, [0, 900], [400]);
    expect(zoneMarks(panel, stratigraphy).filter((m) => m.kind === 'area')).toEqual([]);
  });
  test('limits of a narrow track never touch', () => {
    const wells = Array.from({ length: 5 }, (_, n) => column(`W${n}`));
    const panel = layOut(wells, desk, size, [0, 900], [1, 1, 1, 1]);
    const texts = headMarks(panel.wells[0], desk, [], unitsOf(null), { text: '#000', soft: '#555' }).filter(
      (m) => m.kind === 'text',
    );
    const box = panel.wells[0].tracks[0].box;
    const inTrack = texts.filter((m) => m.x >= box.left && m.x <= box.left + box.width && m.y > 40);
    expect(inTrack.map((m) => m.text)).toEqual(expect.arrayContaining(['0', '150', 'GR']));
    for (const a of inTrack)
      for (const b of inTrack) {
        if (a === b || Math.abs(a.y - b.y) > 6) continue;
        const span = (m: typeof a) => {
          const wide = m.text.length * 4.9;
          const from = m.anchor === 'end' ? m.x - wide : m.anchor === 'middle' ? m.x - wide / 2 : m.x;
          return [from, from + wide];
        };
        const [p, q] = [span(a), span(b)].sort((x, y) => x[0] - y[0]);
        expect(p[1]).toBeLessThanOrEqual(q[0]);
      }
  });
  test('ticks are round numbers, a handful of pixels apart', () => {
    const found = ticks(103, 897, 500);
    const step = found[1] - found[0];
    expect(step).toBe(100);
    expect((step / (897 - 103)) * 500).toBeGreaterThanOrEqual(46);
    expect(found[0]).toBeGreaterThanOrEqual(103);
  });
});

describe('a panel on paper', () => {
  test('is as tall as its scale says, with every well, top and name in it', async () => {
    const columns = [column('A'), column('B <2> & "x"', 15)];
    const svg = await printPanel(columns, desk, undefined, objects, unitsOf(null), [], [300, 1000], [400], 1000).text();
    // 700 m at 1 : 1000 is 70 cm, with headings above and a line below
    const [, tall] = /height="([\d.]+)mm"/.exec(svg) ?? [];
    const margins = ((92 + 30) * 25.4) / 96;
    expect(Number(tall)).toBeCloseTo(700 + margins, 1);
    expect(svg).toContain('1 : 1000 on paper');
    for (const t of columns[0].tops) expect(svg).toContain(`>${t.name}</text>`);
    // names from files are text in it, never markup
    expect(svg).toContain('B &lt;2&gt; &amp; &quot;x&quot;');
    expect(svg).not.toContain('<2>');
  });
  test('takes the nearest round scale', () => {
    expect(SCALES.map((s) => nearestScale(s * 1.2))).toEqual(SCALES);
    expect(nearestScale(1500)).toBe(2000);
  });
});
