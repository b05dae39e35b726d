/**
 * Reads and writes that go on behind what is worked on, at most so many at a time; the first that fails is told of by what
 * is asked for next.
 */
export function behind(most: number) {
  const under = new Set<Promise<void>>();
  let failed: { cause: unknown } | null = null;
  const check = () => {
    if (failed) throw failed.cause;
  };
  return {
    async add(start: () => Promise<void>) {
      check();
      const one: Promise<void> = start()
        .catch((cause) => {
          failed ??= { cause };
        })
        .finally(() => under.delete(one));
      under.add(one);
      if (under.size >= most) await Promise.race(under);
    },
    /** Wait for all of them. */
    async end() {
      await Promise.all(under);
      check();
    },
  };
}
