import { LANES, mixWords, mixWordsTwin, threadKernels } from '@lithagon/kernels';

/**
 * A running 128-bit hash (sixteen lanes of 32-bit multiply–rotate mixing, folded to four), for telling contents apart;
 * not for secrets.
 */
export interface Hasher {
  words(data: Uint32Array): Hasher;
  text(data: string): Hasher;
  digest(): string;
}

const START = [0x9e3779b9, 0x85ebca6b, 0xc2b2ae35, 0x27d4eb2f];

export function hasher(): Hasher {
  const lanes = Int32Array.from({ length: LANES }, (_, n) => START[n & 3] + (n >> 2));
  let length = 0;
  const rotate = (x: number, n: number) => (x << n) | (x >>> (32 - n));
  const self: Hasher = {
    words(data) {
      const whole = data.length - (data.length % LANES);
      // a few words are sooner mixed here than taken to a kernel
      if (whole < 256) mixWordsTwin(lanes, data.subarray(0, whole));
      else mixWords(threadKernels(), lanes, data.subarray(0, whole));
      for (let n = whole; n < data.length; n++) {
        const mixed = Math.imul(rotate(lanes[0] ^ data[n], 11), 0x85ebca77);
        lanes.copyWithin(0, 1);
        lanes[LANES - 1] = mixed;
      }
      length += data.length;
      return self;
    },
    text(data) {
      const codes = new Uint32Array(data.length + 1);
      for (let n = 0; n < data.length; n++) codes[n] = data.charCodeAt(n);
      codes[data.length] = 0xffffffff;
      return self.words(codes);
    },
    digest() {
      const mixed = lanes.slice();
      mixed[0] ^= length;
      for (let round = 0; round < 4; round++)
        for (let n = 0; n < LANES; n++) {
          let h = mixed[n] ^ rotate(mixed[(n + 1) % LANES], 7);
          h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
          h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
          mixed[n] = h ^ (h >>> 16);
        }
      const ends = [0, 1, 2, 3].map(
        (n) => mixed[n] ^ rotate(mixed[n + 4], 5) ^ rotate(mixed[n + 8], 13) ^ rotate(mixed[n + 12], 22),
      );
      return ends.map((h) => (h >>> 0).toString(16).padStart(8, '0')).join('');
    },
  };
  return self;
}

/** The same JSON for equal values, whatever order their keys were written in. */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (value && typeof value === 'object')
    return `{${Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([x], [y]) => (x < y ? -1 : 1))
      .map(([k, v]) => `${JSON.stringify(k)}:${canonicalJson(v)}`)
      .join(',')}}`;
  return JSON.stringify(value) ?? 'null';
}
