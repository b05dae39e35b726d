import type { Logs, Store } from '@lithagon/core';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readWhole } from '../../../packages/core/src/storage/arrays.ts';
import { uniform } from '../../../packages/core/src/testing/random.ts';
import { type Foreign, workplace } from './testing/foreign.ts';
import { GOOD } from './testing/good.ts';
import { expectOutcome } from './testing/outcome.ts';

interface Spec {
  version?: string;
  wrap?: boolean;
  well?: string | null;
  /** Lines of ~W besides the usual. */
  facts?: string[];
  curves?: string[];
  rows?: (string | number)[][];
  start?: string;
  step?: string;
  nil?: string;
  depth?: string;
  end?: string;
  title?: string;
}

const ROWS = [
  [500, 60, 2.31],
  [500.5, 61, 2.32],
  [501, 62, 2.33],
  [501.5, 63, 2.34],
  [502, 64, 2.35],
  [502.5, 65, 2.36],
];

/** A LAS text, made up line by line. */
function las(spec: Spec = {}): string {
  const { version = '2.0', wrap = false, well = 'Good 1', facts = [], depth = 'DEPT.M : Depth', end = '\n' } = spec;
  const { curves = ['GR.GAPI : Gamma', 'RHOB.G/CC : Density'], rows = ROWS, nil = '-999.25', title = '~A' } = spec;
  const [a, b] = [spec.start ?? String(rows[0]?.[0] ?? 0), spec.step ?? '0.5'];
  const one = (key: string, value: string, what: string) =>
    version.startsWith('1') && key.startsWith('WELL') ? `${key} ${what} : ${value}` : `${key} ${value} : ${what}`;
  const lines = [
    '~Version information',
    ` VERS. ${version} :`,
    ` WRAP. ${wrap ? 'YES' : 'NO'} :`,
    '~Well information',
    ` STRT.M ${a} :`,
    ` STOP.M ${rows[rows.length - 1]?.[0] ?? 0} :`,
    ` STEP.M ${b} :`,
    ` NULL. ${nil} :`,
    ...(well === null ? [] : [one('WELL.', well, 'WELL')]),
    ...facts,
    '~Curve information',
    ` ${depth}`,
    ...curves.map((c) => ` ${c}`),
    title,
    ...rows.flatMap((row) =>
      wrap ? [String(row[0]), row.slice(1).join('  ')] : [row.map((v) => String(v)).join('  ')],
    ),
  ];
  return lines.join(end) + end;
}

const valuesOf = async (logs: Logs, store: Store, mnemonic: string) => {
  const curve = logs.curves.find((c) => c.mnemonic === mnemonic);
  if (!curve) throw new Error(`no curve ${mnemonic}`);
  return Array.from(await readWhole(store, curve.data));
};
/** The gamma ray of the file is this, on this axis. */
const gamma =
  (wanted: number[], [firstM, stepM] = [500, 0.5]) =>
  async (objects: unknown[], store: Store) => {
    const logs = objects as Logs[];
    expect(logs[0].kind).toBe('logs');
    expect(logs[0].depth.firstM).toBeCloseTo(firstM, 3);
    expect(logs[0].depth.stepM).toBeCloseTo(stepM, 6);
    const found = await valuesOf(logs[0], store, 'GR');
    expect(found.length).toBe(wanted.length);
    found.forEach((v, n) => {
      if (Number.isNaN(wanted[n])) expect(v).toBeNaN();
      else expect(v).toBeCloseTo(wanted[n], 4);
    });
  };
const PLAIN = gamma([60, 61, 62, 63, 64, 65]);
const N = Number.NaN;
const withCell = (row: number, column: number, cell: string | number) =>
  ROWS.map((r, n) => (n === row ? r.map((v, c) => (c === column ? cell : v)) : r));

/** Files of versions, ends of lines, cases and blanks as their writers may choose them. */
function variants(): Foreign[] {
  const next = uniform(60);
  const pick = <T>(of: readonly T[]) => of[Math.floor(next() * of.length)];
  return Array.from({ length: 14 }, (_, n) => {
    const version = pick(['1.2', '2.0']);
    const count = 20 + Math.floor(next() * 30);
    const [first, step] = [pick([100, 1234.5, 3000]), pick([0.5, 0.1524, 0.25, 1])];
    const depths = Array.from({ length: count }, (__, k) => Number((first + k * step).toFixed(4)));
    const values = depths.map(() => Number((40 + 60 * next()).toFixed(3)));
    const fortran = next() < 0.4;
    const falling = next() < 0.3;
    const write = (v: number) => (fortran ? v.toExponential(6).toUpperCase().replace('E', 'D') : String(v));
    const rows = depths.map((d, k) => [d, write(values[k]), k % 7 === 3 ? '-999.25' : String(2.3)]);
    const text = las({
      version,
      wrap: next() < 0.4,
      rows: falling ? rows.reverse() : rows,
      step: falling ? String(-step) : String(step),
      end: pick(['\n', '\r\n', '\r']),
    });
    return {
      file: `variant-${n}.las`,
      is: `${version}${fortran ? ', exponents as Fortran writes them' : ''}${falling ? ', from the bottom up' : ''}`,
      bytes: next() < 0.3 ? text.replace('~Curve', '# a remark\n\n~CURVE') : text,
      holds: gamma(values, [first, step]),
    };
  });
}

const uneven = [500, 500.5, 500.9, 501.7, 502, 502.6];
const FILES: Foreign[] = [
  ...variants(),
  { file: 'plain.las', is: 'a plain file', bytes: las(), holds: PLAIN },
  { file: 'plain.txt', is: 'another extension', bytes: las(), holds: PLAIN },
  { file: 'plain', is: 'no extension', bytes: las(), holds: PLAIN },
  { file: 'mark.las', is: 'a mark of byte order before it', bytes: `\uFEFF${las()}`, holds: PLAIN },
  {
    file: 'comma.las',
    is: 'commas between values',
    bytes: las().replace(/^(\d.*)$/gm, (line) => line.replace(/ {2}/g, ',')),
    holds: PLAIN,
  },
  {
    file: 'letters.las',
    is: 'a text among numbers',
    bytes: las({ rows: withCell(2, 1, 'broken') }),
    holds: gamma([60, 61, N, 63, 64, 65]),
    says: /GR has 1 cell that is no number \(“broken” in row 3 of the data\)/,
  },
  {
    file: 'nothing.las',
    is: 'words for nothing',
    bytes: las({ rows: withCell(2, 1, 'NaN') }),
    holds: gamma([60, 61, N, 63, 64, 65]),
  },
  {
    file: 'depth-text.las',
    is: 'a text among depths',
    bytes: las({ rows: withCell(2, 0, 'x501') }),
    says: /DEPT has 1 cell that is no number.*1 rows? ha(s|ve) no depth/s,
  },
  {
    file: 'many-texts.las',
    is: 'a curve of texts',
    bytes: las({ rows: ROWS.map((r) => [r[0], 'sand', r[2]]) }),
    says: /GR has 6 cells that are no numbers \(first “sand” in row 1/,
  },
  {
    file: 'uneven.las',
    is: 'depths at no regular step',
    bytes: las({ rows: ROWS.map((r, n) => [uneven[n], r[1], r[2]]) }),
    says: /depths are off a regular step/,
  },
  {
    file: 'gap.las',
    is: 'a gap of 50 m',
    bytes: las({ rows: ROWS.map((r, n) => [n < 3 ? 500 + 0.5 * n : 550 + 0.5 * n, r[1], r[2]]) }),
    holds: (objects) => {
      const [logs] = objects as Logs[];
      expect(logs.depth.stepM).toBe(0.5);
      expect(logs.depth.count).toBe(106);
      expect(logs.curves[0].nulls).toBe(100);
    },
    says: /a gap in the depths \(the longest of 50\.5 m\), in which the curves are empty/,
  },
  {
    file: 'twice.las',
    is: 'a depth that stands twice',
    bytes: las({ rows: [...ROWS.slice(0, 3), ROWS[2], ...ROWS.slice(3)] }),
    holds: PLAIN,
    says: /1 depth stands twice \(501/,
  },
  {
    file: 'back.las',
    is: 'depths that go back',
    bytes: las({ rows: [ROWS[0], ROWS[2], ROWS[1], ...ROWS.slice(3)] }),
    refused: /do not rise steadily near 500\.50/,
  },
  {
    file: 'no-stop.las',
    is: 'a curve line without its full stop',
    bytes: las({ curves: ['GR : Gamma', 'RHOB.G/CC :'] }),
    holds: PLAIN,
  },
  {
    file: 'tenths.las',
    is: 'depths in tenths of an inch',
    bytes: las({ depth: 'DEPT.0.1IN :', rows: ROWS.map((r, n) => [200_000 + 60 * n, r[1], r[2]]) }),
    holds: gamma([60, 61, 62, 63, 64, 65], [508, 0.1524]),
  },
  {
    file: 'feet.las',
    is: 'depths in feet',
    bytes: las({ depth: 'DEPT.FT :' }),
    holds: gamma([60, 61, 62, 63, 64, 65], [152.4, 0.1524]),
  },
  {
    file: 'short.las',
    is: 'a row that is too short',
    bytes: las().replace('501  62  2.33', '501  62'),
    says: /1 lines? ha(s|ve) fewer values than there are curves/,
  },
  {
    file: 'long.las',
    is: 'rows with too many values',
    bytes: las().replace('501  62  2.33', '501  62  2.33  7 8'),
    holds: PLAIN,
    says: /1 lines? ha(s|ve) more values than there are curves/,
  },
  {
    file: 'wrong-step.las',
    is: 'another step in its header',
    bytes: las({ step: '0.1' }),
    holds: PLAIN,
    says: /The header says a step of 0\.1000.*step by 0\.5000/,
  },
  {
    file: 'wrong-start.las',
    is: 'another start in its header',
    bytes: las({ start: '100' }),
    holds: PLAIN,
    says: /header says .*100.*500/,
  },
  { file: 'no-null.las', is: 'no word for null', bytes: las().replace(' NULL. -999.25 :\n', ''), holds: PLAIN },
  {
    file: 'other-null.las',
    is: 'another null',
    bytes: las({ nil: '-9999', rows: withCell(2, 1, '-9999.00') }),
    holds: gamma([60, 61, N, 63, 64, 65]),
  },
  {
    file: 'two-nulls.las',
    is: 'a null that its header does not name',
    bytes: las({ nil: '-9999', rows: withCell(2, 1, '-999.25') }),
    says: /GR .*-999\.25/,
  },
  {
    file: 'two-curves.las',
    is: 'two curves of one name',
    bytes: las({ curves: ['GR.GAPI : first', 'GR.GAPI : second'] }),
    holds: PLAIN,
  },
  {
    file: 'no-well.las',
    is: 'no name of its well',
    bytes: las({ well: null }),
    asks: ['well'],
    refused: /does not name its well/,
  },
  {
    file: 'told-well.las',
    is: 'no name of its well, which is told',
    bytes: las({ well: null }),
    declare: ['well=Good 1'],
    holds: PLAIN,
  },
  { file: 'other-well.las', is: 'a name that nearly agrees', bytes: las({ well: 'GOOD-1' }), holds: PLAIN },
  { file: 'no-data.las', is: 'no data section', bytes: las().split('~A')[0], refused: /no data section/ },
  {
    file: 'no-rows.las',
    is: 'a data section without rows',
    bytes: las({ rows: [] }),
    refused: /data section is empty/,
  },
  {
    file: 'no-curves.las',
    is: 'no curve section',
    bytes: las().replace(/~Curve[\s\S]*~A/, '~A'),
    refused: /no curve section/,
  },
  {
    file: 'one-depth.las',
    is: 'one depth alone',
    bytes: las({ rows: ROWS.slice(0, 1) }),
    refused: /data section is empty|depths are all one/,
  },
  {
    file: 'same-depths.las',
    is: 'depths that are all one',
    bytes: las({ rows: ROWS.map((r) => [500, r[1], r[2]]) }),
    refused: /depths are all one/,
  },
  {
    file: 'no-numbers.las',
    is: 'depths that are no numbers',
    bytes: las({ rows: ROWS.map((r) => ['top', r[1], r[2]]) }),
    refused: /depths are no numbers/,
  },
  { file: 'tilde.las', is: 'a text that only begins like one', bytes: '~V\n', refused: /cannot be read as LAS/ },
  {
    file: 'letter.las',
    is: 'a letter with the extension',
    bytes: 'Dear colleague,\nplease find the logs.\n',
    refused: /neither a ~V nor a ~W part/,
  },
  { file: 'empty.las', is: 'nothing', bytes: '', refused: /empty/ },
  {
    file: 'noise.las',
    is: 'bytes at random',
    bytes: Uint8Array.from({ length: 3000 }, (_, n) => (n * 73 + (n >> 3)) % 256),
    refused: /no kind that is known/,
  },
  {
    file: 'version-3.las',
    is: 'version 3 with commas',
    bytes: [
      '~Version',
      'VERS. 3.0 :',
      'WRAP. NO :',
      'DLM. COMMA :',
      '~Well',
      'STRT.M 500 :',
      'STOP.M 501 :',
      'STEP.M 0.5 :',
      'NULL. -999.25 :',
      'WELL. Good 1 :',
      '~Log_Definition',
      'DEPT.M : Depth {F}',
      'GR.GAPI : Gamma {F}',
      '~Log_Data | Log_Definition',
      '500,60',
      '500.5,61',
      '501,',
      '',
    ].join('\n'),
    holds: gamma([60, 61, N]),
  },
  {
    file: 'wrapped-cut.las',
    is: 'wrapped, and cut in its last depth',
    bytes: las({ wrap: true }).trimEnd().replace(/\S+$/, ''),
    says: /The last depth has fewer values than there are curves/,
  },
  {
    file: 'facts.las',
    is: 'facts of the well with marks in them',
    bytes: las({ facts: [' COMP. A: B & Sons <ltd> : COMPANY', ' UWI. 100/01-02 : ID', ' FLD. Quillon : FIELD'] }),
    holds: (objects) => {
      const header = (objects as Logs[])[0].header ?? [];
      expect(header.find((h) => h.mnemonic === 'COMP')?.value).toBe('A: B & Sons <ltd>');
      expect(header.find((h) => h.mnemonic === 'UWI')?.value).toBe('100/01-02');
    },
  },
  {
    file: 'negative.las',
    is: 'depths above the bushing',
    bytes: las({ rows: ROWS.map((r, n) => [-2 + 0.5 * n, r[1], r[2]]) }),
    holds: gamma([60, 61, 62, 63, 64, 65], [-2, 0.5]),
  },
  {
    file: 'deep.las',
    is: 'depths beyond any well',
    bytes: las({ rows: ROWS.map((r, n) => [500_000 + 0.5 * n, r[1], r[2]]) }),
    says: /depth.*500000|deeper than any well/i,
  },
  {
    file: 'outside.las',
    is: 'depths below the well’s end',
    bytes: las({ rows: ROWS.map((r, n) => [2500 + 0.5 * n, r[1], r[2]]) }),
    says: /below .*total depth|2000/i,
  },
  {
    file: 'units.las',
    is: 'a unit that is none',
    bytes: las({ curves: ['GR.furlongs : Gamma', 'RHOB.G/CC :'] }),
    says: /furlongs/,
  },
  {
    file: 'infinite.las',
    is: 'infinite values',
    bytes: las({ rows: withCell(2, 1, 'Infinity') }),
    holds: gamma([60, 61, N, 63, 64, 65]),
  },
  {
    file: 'huge.las',
    is: 'values beyond any number',
    bytes: las({ rows: withCell(2, 1, '1e999') }),
    holds: gamma([60, 61, N, 63, 64, 65]),
  },
];

describe('LAS files of others', () => {
  let place: Awaited<ReturnType<typeof workplace>>;
  beforeAll(async () => {
    place = await workplace(GOOD);
  });
  afterAll(() => place.clear());
  test('there are sixty', () => {
    expect(FILES.length).toBeGreaterThanOrEqual(60);
  });
  test.each(FILES.map((f) => [f.file, f.is, f] as const))('%s: %s', async (_, __, given) => {
    expectOutcome(given, await place.give(given));
  });
});
