/** A column that a kind of table may have: the words it goes by, and the unit that it is converted to. */
export interface ColumnSpec {
  key: string;
  label: string;
  words: RegExp;
  /** Words that it goes by only where no two rows have the same. */
  wordsOfOne?: RegExp;
  /** Words that it goes by only where rows share what they say, three or more of them on average. */
  wordsOfMany?: RegExp;
  unit?: string;
  text?: boolean;
  optional?: boolean;
  /** Whether it may be told for the whole file where that has no such column. */
  told?: boolean;
}

export interface TableSpec {
  kind: string;
  title: string;
  columns: ColumnSpec[];
  /** Of each of these groups one must be there. */
  either?: string[][];
}

const well: ColumnSpec = {
  key: 'well',
  label: 'Well',
  words: /^(well|wellbore|well_?name|well_?id|borehole|uwi)$/,
  text: true,
  told: true,
};
const md: ColumnSpec = {
  key: 'md',
  label: 'MD',
  words: /^(md|mdrkb|md_?kb|md_?rkb|measured_depth|depth_md|meas_depth)$/,
  unit: 'm',
};
const x: ColumnSpec = {
  key: 'x',
  label: 'X',
  words: /^(x|x_?coord(inate)?|utm_?x|easting|east|e|long|longitude|lon)$/,
  unit: 'm',
};
const y: ColumnSpec = {
  key: 'y',
  label: 'Y',
  words: /^(y|y_?coord(inate)?|utm_?y|northing|north|n|lat|latitude)$/,
  unit: 'm',
};
const twt: ColumnSpec = {
  key: 'twt',
  label: 'TWT',
  words: /^(twt|twt_time|two_way_time)$/,
  unit: 'ms',
  optional: true,
};
const depth: ColumnSpec = { key: 'depth', label: 'Depth', words: /^(depth|tvdss|z)$/, unit: 'm', optional: true };
const tvdss: ColumnSpec = { ...depth, key: 'tvdss', label: 'TVDSS', words: /^(tvdss|tvd_?ss|subsea)$/ };
const tvd: ColumnSpec = { ...depth, key: 'tvd', label: 'TVD from kelly bushing', words: /^(tvd|tvd_?kb|tvd_?rkb)$/ };

/** The kinds of table that are recognised by their columns, the most particular first. */
export const TABLES: TableSpec[] = [
  {
    kind: 'well heads',
    title: 'Well heads',
    columns: [
      // every row is a well of its own, which no one name can stand for
      { ...well, told: false, wordsOfOne: /^name$/ },
      x,
      y,
      {
        key: 'kb',
        label: 'Kelly bushing',
        words: /^(kb|kelly_?bushing|elevation|rkb|kb_?elev(ation)?|datum_?elev(ation)?)$/,
        unit: 'm',
        told: true,
      },
      { key: 'totalMd', label: 'Total depth', words: /^(total_depth_md|td|total_depth)$/, unit: 'm', optional: true },
      { key: 'status', label: 'Status', words: /^status$/, text: true, optional: true },
    ],
  },
  {
    kind: 'directional surveys',
    title: 'Directional surveys',
    columns: [
      well,
      md,
      { key: 'inclination', label: 'Inclination', words: /^(inc|incl|inclination)$/, unit: 'deg' },
      { key: 'azimuth', label: 'Azimuth', words: /^(azi|azim|azimuth|azimuth_grid)$/, unit: 'deg' },
    ],
  },
  {
    kind: 'pressures',
    title: 'Formation pressures',
    columns: [
      well,
      { ...md, optional: true },
      tvdss,
      { key: 'pressure', label: 'Pressure', words: /^(pressure|p|formation_pressure)$/, unit: 'Pa' },
    ],
    either: [['md', 'tvdss']],
  },
  {
    kind: 'checkshots',
    title: 'Checkshots',
    columns: [
      well,
      { ...md, optional: true },
      tvdss,
      tvd,
      twt,
      { key: 'owt', label: 'One-way time', words: /^(owt|one_way_time)$/, unit: 'ms', optional: true },
    ],
    either: [
      ['twt', 'owt'],
      ['md', 'tvdss', 'tvd'],
    ],
  },
  {
    kind: 'fluid samples',
    title: 'Fluid samples',
    columns: [
      { ...well, optional: true },
      { key: 'fluid', label: 'Fluid', words: /^fluid$/, text: true },
      { key: 'density', label: 'Density', words: /^density$/, unit: 'kg/m3', optional: true },
      {
        key: 'fvf',
        label: 'Formation volume factor',
        words: /^(formation_volume_factor|fvf|bo|bg)$/,
        optional: true,
      },
      { key: 'resistivity', label: 'Resistivity', words: /^(resistivity|rw)$/, unit: 'ohm.m', optional: true },
    ],
    either: [['density', 'fvf', 'resistivity']],
  },
  {
    kind: 'core points',
    title: 'Core points',
    columns: [
      well,
      md,
      { key: 'porosity', label: 'Porosity', words: /^(porosity|phi|por|helium_porosity)$/, unit: '1', optional: true },
      {
        key: 'permeability',
        label: 'Permeability',
        words: /^(permeability|perm|k|kh|klh)$/,
        unit: 'mD',
        optional: true,
      },
      { key: 'grainDensity', label: 'Grain density', words: /^(grain_density|gd)$/, unit: 'kg/m3', optional: true },
    ],
    either: [['porosity', 'permeability', 'grainDensity']],
  },
  {
    kind: 'facies',
    title: 'Facies intervals',
    columns: [
      well,
      { key: 'from', label: 'From MD', words: /^(from|from_md|top_md)$/, unit: 'm' },
      { key: 'to', label: 'To MD', words: /^(to|to_md|base_md)$/, unit: 'm' },
      { key: 'facies', label: 'Facies', words: /^(facies|lithology)$/, text: true },
    ],
  },
  {
    kind: 'tops',
    title: 'Tops',
    columns: [
      well,
      {
        key: 'top',
        label: 'Top',
        words: /^(top|marker|surface|pick|formation|(top|marker|surface|formation)_?name)$/,
        text: true,
      },
      { ...md, optional: true },
      tvdss,
      tvd,
    ],
    either: [['md', 'tvdss', 'tvd']],
  },
  {
    kind: 'fault sticks',
    title: 'Fault sticks',
    columns: [
      { key: 'fault', label: 'Fault', words: /^(fault|fault_name)$/, text: true },
      { key: 'stick', label: 'Stick', words: /^(stick|stick_number|segment)$/ },
      x,
      y,
      twt,
      depth,
    ],
    either: [['twt', 'depth']],
  },
  {
    kind: 'navigation',
    title: 'Navigation of 2D lines',
    columns: [
      { key: 'line', label: 'Line', words: /^(line|line_?name)$/, text: true },
      { key: 'cdp', label: 'CDP', words: /^(cdp|cmp|trace)$/, optional: true },
      { key: 'shotpoint', label: 'Shotpoint', words: /^(sp|shot|shotpoint|shot_?point)$/, optional: true },
      x,
      y,
    ],
    either: [['cdp', 'shotpoint']],
  },
  {
    kind: 'polygon',
    title: 'Polygon',
    columns: [
      { key: 'polygon', label: 'Name', words: /^(polygon|outline)$/, wordsOfMany: /^(name|id)$/, text: true },
      x,
      y,
    ],
  },
  {
    kind: 'wavelet',
    title: 'Wavelet',
    columns: [
      { key: 'time', label: 'Time', words: /^(time|t|time_?ms)$/, unit: 'ms' },
      { key: 'amplitude', label: 'Amplitude', words: /^(amplitude|amp|sample|value)$/ },
    ],
  },
  {
    kind: 'horizon',
    title: 'Horizon points',
    columns: [
      x,
      y,
      { key: 'inline', label: 'Inline', words: /^(inline|il|iline|inline_?no)$/, optional: true },
      { key: 'crossline', label: 'Crossline', words: /^(crossline|xl|xline|crossline_?no)$/, optional: true },
      twt,
      depth,
    ],
    either: [['twt', 'depth']],
  },
  {
    // the least particular: anything that has a place
    kind: 'points',
    title: 'Points',
    columns: [
      {
        key: 'point',
        label: 'Name',
        words: /^(name|point|station|site|location|label|id|number)$/,
        text: true,
        optional: true,
      },
      x,
      y,
    ],
  },
];
