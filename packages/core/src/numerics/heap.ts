/** A priority queue of numbered items, largest key first; items may be in it more than once. */
export class MaxHeap {
  private keys: number[] = [];
  private items: number[] = [];

  get size(): number {
    return this.items.length;
  }

  push(key: number, item: number): void {
    const { keys, items } = this;
    let at = keys.length;
    keys.push(key);
    items.push(item);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (keys[up] >= key) break;
      keys[at] = keys[up];
      items[at] = items[up];
      at = up;
    }
    keys[at] = key;
    items[at] = item;
  }

  /** Remove and return the item with the largest key, or −1 where there is none. */
  pop(): number {
    const { keys, items } = this;
    if (items.length === 0) return -1;
    const top = items[0];
    const key = keys.pop() as number;
    const item = items.pop() as number;
    const n = items.length;
    if (n > 0) {
      let at = 0;
      for (;;) {
        let down = 2 * at + 1;
        if (down >= n) break;
        if (down + 1 < n && keys[down + 1] > keys[down]) down++;
        if (keys[down] <= key) break;
        keys[at] = keys[down];
        items[at] = items[down];
        at = down;
      }
      keys[at] = key;
      items[at] = item;
    }
    return top;
  }
}
