/** Even–odd test against closed rings. */
export function insideRings(rings: [number, number][][]): (x: number, y: number) => boolean {
  return (x, y) => {
    let inside = false;
    for (const ring of rings)
      for (let a = 0, b = ring.length - 1; a < ring.length; b = a++) {
        const [xa, ya] = ring[a];
        const [xb, yb] = ring[b];
        if (ya > y !== yb > y && x < ((xb - xa) * (y - ya)) / (yb - ya) + xa) inside = !inside;
      }
    return inside;
  };
}
