/**
 * Where the made-up survey lies. `u` runs along an inline (crosslines rise with it, towards ENE), `v` across
 * (inlines rise with it, towards NNW); map coordinates are metres in EPSG:32740.
 */
export const SURVEY = {
  crs: 'EPSG:32740',
  firstInline: 1000,
  inlines: 160,
  firstCrossline: 2000,
  crosslines: 200,
  binM: 25,
  samples: 451,
  sampleMs: 4,
  cornerX: 512400,
  cornerY: 7641900,
  rotationDeg: 23,
} as const;

const cos = Math.cos((SURVEY.rotationDeg * Math.PI) / 180);
const sin = Math.sin((SURVEY.rotationDeg * Math.PI) / 180);

export function toMap(u: number, v: number): [x: number, y: number] {
  return [SURVEY.cornerX + u * cos - v * sin, SURVEY.cornerY + u * sin + v * cos];
}

export function fromMap(x: number, y: number): [u: number, v: number] {
  const dx = x - SURVEY.cornerX;
  const dy = y - SURVEY.cornerY;
  return [dx * cos + dy * sin, -dx * sin + dy * cos];
}

/** The part of the survey that is written: all of it, or a quarter of its area around the crest. */
export interface Extent {
  inline0: number;
  inlines: number;
  crossline0: number;
  crosslines: number;
}

export function extentOf(size: 'full' | 'small', crestU = 2150, crestV = 1600): Extent {
  if (size === 'full')
    return {
      inline0: SURVEY.firstInline,
      inlines: SURVEY.inlines,
      crossline0: SURVEY.firstCrossline,
      crosslines: SURVEY.crosslines,
    };
  const inlines = SURVEY.inlines / 2;
  const crosslines = SURVEY.crosslines / 2;
  const clamp = (n: number, most: number) => Math.max(0, Math.min(most, Math.round(n)));
  return {
    inline0: SURVEY.firstInline + clamp(crestV / SURVEY.binM - inlines / 2, SURVEY.inlines - inlines),
    inlines,
    crossline0: SURVEY.firstCrossline + clamp(crestU / SURVEY.binM - crosslines / 2, SURVEY.crosslines - crosslines),
    crosslines,
  };
}

export function uOf(crossline: number): number {
  return (crossline - SURVEY.firstCrossline) * SURVEY.binM;
}

export function vOf(inline: number): number {
  return (inline - SURVEY.firstInline) * SURVEY.binM;
}
