/** A running 128-bit hash (four lanes of 32-bit multiply–rotate mixing), for telling contents apart; not for secrets. */
export interface Hasher {
  words(data: Uint32Array): Hasher;
  text(data: string): Hasher;
  digest(): string;
}

export function hasher(): Hasher {
  let [a, b, c, d] = [0x9e3779b9 | 0, 0x85ebca6b | 0, 0xc2b2ae35 | 0, 0x27d4eb2f | 0];
  let length = 0;
  const rotate = (x: number, n: number) => (x << n) | (x >>> (32 - n));
  const self: Hasher = {
    words(data) {
      const whole = data.length & ~3;
      for (let n = 0; n < whole; n += 4) {
        a = Math.imul(rotate(a ^ data[n], 13), 0x85ebca77);
        b = Math.imul(rotate(b ^ data[n + 1], 15), 0xc2b2ae3d);
        c = Math.imul(rotate(c ^ data[n + 2], 17), 0x27d4eb2f);
        d = Math.imul(rotate(d ^ data[n + 3], 19), 0x165667b1);
      }
      for (let n = whole; n < data.length; n++) {
        a = Math.imul(rotate(a ^ data[n], 11), 0x85ebca77);
        [a, b, c, d] = [b, c, d, a];
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
      const lanes = [a ^ length, b, c, d];
      for (let round = 0; round < 4; round++)
        for (let n = 0; n < 4; n++) {
          let h = lanes[n] ^ rotate(lanes[(n + 1) & 3], 7);
          h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
          h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
          lanes[n] = h ^ (h >>> 16);
        }
      return lanes.map((h) => (h >>> 0).toString(16).padStart(8, '0')).join('');
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
