/** Something that is to be written over a picture. */
export interface Wish {
  id: string;
  text: string;
  color: string;
  bold?: boolean;
  /** Places where its left end (or middle) may stand on its baseline, the best first. */
  at: [x: number, y: number][];
  anchor?: 'start' | 'middle' | 'end';
  /** Degrees by which it is turned about its place, which then is the middle of the text. */
  turn?: number;
  /** Of two that want one place, that of the higher rank has it. */
  rank: number;
}

export interface Placed extends Wish {
  x: number;
  y: number;
}

interface Room {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** How tall a line of text is over its baseline, and below it, pixels. */
const [ASCENT, DESCENT, GAP] = [9, 3, 2];

type Box = [x0: number, y0: number, x1: number, y1: number];

const level = (x: number, y: number, wide: number): Box => [
  x - GAP,
  y - ASCENT - GAP,
  x + wide + GAP,
  y + DESCENT + GAP,
];

/** The upright box round a text that is turned about its middle. */
function turned(x: number, y: number, wide: number, degrees: number): Box {
  const [c, s] = [Math.abs(Math.cos((degrees * Math.PI) / 180)), Math.abs(Math.sin((degrees * Math.PI) / 180))];
  const tall = ASCENT + DESCENT;
  const [w, h] = [(wide * c + tall * s) / 2 + GAP, (wide * s + tall * c) / 2 + GAP];
  return [x - w, y - h, x + w, y + h];
}

/**
 * Where labels stand so that none covers another, taken greedily by rank: each in the first of its places that is free.
 * One that finds none is left out.
 * @param width how wide a text is, pixels
 */
export function placeLabels(wishes: Wish[], room: Room, width: (text: string, bold: boolean) => number): Placed[] {
  const taken: Box[] = [];
  const placed: Placed[] = [];
  for (const wish of [...wishes].sort((a, b) => b.rank - a.rank)) {
    const wide = width(wish.text, wish.bold === true);
    const before = wish.anchor === 'middle' ? wide / 2 : wish.anchor === 'end' ? wide : 0;
    for (const [x, y] of wish.at) {
      const [x0, y0, x1, y1] = wish.turn === undefined ? level(x - before, y, wide) : turned(x, y, wide, wish.turn);
      if (x0 < room.left || y0 < room.top || x1 > room.left + room.width || y1 > room.top + room.height) continue;
      if (taken.some((t) => x0 < t[2] && x1 > t[0] && y0 < t[3] && y1 > t[1])) continue;
      taken.push([x0, y0, x1, y1]);
      placed.push({ ...wish, x, y });
      break;
    }
  }
  return placed;
}
