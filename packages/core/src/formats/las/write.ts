/** A curve to be written, in the unit that its name gives. */
export interface LasOut {
  mnemonic: string;
  unit: string;
  description: string;
  values: ArrayLike<number>;
}

export interface LasWriteFacts {
  well: string;
  /** Unit of depth, such as `M` or `FT`, and the depths in it. */
  depthUnit: string;
  depths: ArrayLike<number>;
  /** False where the depths are no regular axis, which a step of 0 says. */
  even?: boolean;
  /** Other facts about the well. */
  facts: { mnemonic: string; unit: string; value: string; description: string }[];
  curves: LasOut[];
  /** Remarks for the ~Other section. */
  remarks: string[];
}

const NULL = -999.25;
// a colon, a full stop or a blank would be read as part of the line's grammar
const plain = (text: string) => text.replace(/[\r\n:]+/g, ' ').trim();
const name = (text: string) =>
  plain(text)
    .replace(/[\s.]+/g, '_')
    .slice(0, 40) || 'X';

/** A LAS 2.0 file (Canadian Well Logging Society, 1992, updated 2017) with all of its mandatory lines. */
export function writeLas({ well, depthUnit, depths, even = true, facts, curves, remarks }: LasWriteFacts): string {
  const line = (mnemonic: string, unit: string, value: string, description: string) =>
    ` ${mnemonic.padEnd(6)}.${unit.padEnd(8)} ${value.padEnd(24)} : ${description}`;
  const last = depths.length - 1;
  const step = even && last > 0 ? (depths[last] - depths[0]) / last : 0;
  const digits = (v: number, places: number) => v.toFixed(places);
  const given = new Map(facts.map((f) => [f.mnemonic.toUpperCase(), f]));
  const fact = (mnemonic: string, description: string, value = '') => {
    const own = given.get(mnemonic);
    given.delete(mnemonic);
    return line(mnemonic, own?.unit ?? '', plain(own?.value ?? value), plain(own?.description || description));
  };
  const head = [
    '~VERSION INFORMATION',
    line('VERS', '', '2.0', 'CWLS LOG ASCII STANDARD - VERSION 2.0'),
    line('WRAP', '', 'NO', 'ONE LINE PER DEPTH STEP'),
    '~WELL INFORMATION',
    line('STRT', depthUnit, digits(depths[0], 4), 'START DEPTH'),
    line('STOP', depthUnit, digits(depths[last], 4), 'STOP DEPTH'),
    line('STEP', depthUnit, digits(step, 6), 'STEP'),
    line('NULL', '', String(NULL), 'NULL VALUE'),
    fact('COMP', 'COMPANY'),
    line('WELL', '', plain(well), 'WELL'),
    fact('FLD', 'FIELD'),
    fact('LOC', 'LOCATION'),
    fact('PROV', 'PROVINCE'),
    fact('SRVC', 'SERVICE COMPANY'),
    fact('DATE', 'LOG DATE'),
    fact('UWI', 'UNIQUE WELL ID'),
    ...[...given.values()].map((f) => line(name(f.mnemonic), f.unit, plain(f.value), plain(f.description))),
    '~CURVE INFORMATION',
    line('DEPT', depthUnit, '', '1  MEASURED DEPTH'),
    ...curves.map((c, n) =>
      line(name(c.mnemonic), name(c.unit || '-').replace(/^-$/, ''), '', `${n + 2}  ${plain(c.description)}`),
    ),
    ...(remarks.length > 0 ? ['~OTHER INFORMATION', ...remarks.map((r) => ` ${plain(r)}`)] : []),
    '~ASCII LOG DATA',
  ];
  const rows: string[] = [];
  for (let n = 0; n <= last; n++) {
    let row = digits(depths[n], 4).padStart(12);
    for (const { values } of curves) {
      const v = values[n];
      row += ` ${(Number.isFinite(v) ? String(Number(v.toPrecision(9))) : String(NULL)).padStart(13)}`;
    }
    rows.push(row);
  }
  return `${[...head, ...rows].join('\n')}\n`;
}
