/** Patterns of rock as strokes in a tile of 12 by 12. */
export const PATTERNS: Record<string, { dots?: [number, number][]; lines?: [number, number, number, number][] }> = {
  sand: {
    dots: [
      [2, 3],
      [8, 2],
      [5, 7],
      [11, 8],
      [1, 10],
    ],
  },
  shale: {
    lines: [
      [0, 3, 7, 3],
      [5, 9, 12, 9],
    ],
  },
  silt: {
    dots: [
      [3, 3],
      [9, 9],
    ],
    lines: [
      [6, 4, 11, 4],
      [0, 10, 5, 10],
    ],
  },
  marl: {
    lines: [
      [0, 3, 12, 3],
      [4, 3, 2, 9],
      [0, 9, 12, 9],
      [10, 9, 8, 12],
    ],
  },
  limestone: {
    lines: [
      [0, 4, 12, 4],
      [0, 10, 12, 10],
      [3, 4, 3, 10],
      [9, 10, 9, 12],
      [9, 0, 9, 4],
    ],
  },
  basement: {
    lines: [
      [2, 2, 6, 6],
      [6, 2, 2, 6],
      [8, 7, 11, 10],
      [11, 7, 8, 10],
    ],
  },
};

/** Words in the names of facies by which their rock is known, the most particular first. */
const ROCKS: [RegExp, string][] = [
  [/marl/i, 'marl'],
  [/silt/i, 'silt'],
  [/shale|clay|mud/i, 'shale'],
  [/sand|gravel|conglomerate/i, 'sand'],
  [/lime|chalk|dolomit|carbonate|grainstone|packstone/i, 'limestone'],
  [/basement|granit|gneiss|basalt|volcanic/i, 'basement'],
];

/** The pattern that a facies is drawn with, from its name; none where that says no rock. */
export const rockOf = (facies: string): string | undefined => ROCKS.find(([words]) => words.test(facies))?.[1];
