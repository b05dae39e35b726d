/** More fields of one shape, with which the first makes a colour: a primary for each, the fourth as shade. */
export interface Mix {
  /** The second and third, and the shade where there is one. */
  more: Float32Array[];
  /** Where each is absent and full, the first field included. */
  ends: { from: number; to: number }[];
  /** What each of three gives to red, green and blue, `[channel][primary]`. */
  primaries: readonly number[];
  /** How dark the shade makes what is nought in it, 0 to 1. */
  strength: number;
  /** Colours, as parts of the three, that stand out against all that lie further than `reach` from them. */
  lit: { at: [number, number, number]; reach: number } | null;
}

/** How much of its colour keeps what is not lit. */
export const PALE = 0.22;
/** What it pales to. */
export const PALE_TO = 0.86;

/** What a mix is besides its samples: a change of it draws again and computes nothing. */
export const mixKey = ({ more: _, ...rest }: Mix): string => JSON.stringify(rest);
