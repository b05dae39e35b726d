import { mixWords, mixWordsTwin, threadKernels } from '@lithagon/kernels';

/** A running 128-bit hash (four lanes of 32-bit multiply–rotate mixing), for telling contents apart; not for secrets. */
export interface Hasher {
  words(data: Uint32Array): Hasher;
  text(data: string): Hasher;
  digest(): string;
}

export function hasher(): Hasher {
  const lanes = Int32Array.from([0x9e3779b9, 0x85ebca6b, 0xc2b2ae35, 0x27d4eb2f]);
  let length = 0;
  const rotate = (x: number, n: number) => (x << n) | (x >>> (32 - n));
  const self: Hasher = {
    words(data) {
      const whole = data.length & ~3;
      // a few words are sooner mixed here than taken to a kernel
      if (whole < 256) mixWordsTwin(lanes, data.subarray(0, whole));
      else mixWords(threadKernels(), lanes, data.subarray(0, whole));
      for (let n = whole; n < data.length; n++) {
        const mixed = Math.imul(rotate(lanes[0] ^ data[n], 11), 0x85ebca77);
        lanes.set([lanes[1], lanes[2], lanes[3], mixed]);
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
      const ends = [lanes[0] ^ length, lanes[1], lanes[2], lanes[3]];
      for (let round = 0; round < 4; round++)
        for (let n = 0; n < 4; n++) {
          let h = ends[n] ^ rotate(ends[(n + 1) & 3], 7);
          h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
          h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
          ends[n] = h ^ (h >>> 16);
        }
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
