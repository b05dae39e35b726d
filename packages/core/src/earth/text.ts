/** Control characters but the tab and line ends, and those that change the direction of what is read. */
const UNSEEN = /[^\P{Cc}\t\n\r]|[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/gu;

/**
 * Text whose control and direction-changing characters are seen instead of obeyed: each gives way to one sign, so that a
 * name reads as what it is, wherever it is shown. As long as before; the same again when applied again.
 */
export function visible(text: string): string {
  return text.replace(UNSEEN, (c) => {
    const code = c.charCodeAt(0);
    return code < 0x20 ? String.fromCharCode(0x2400 + code) : code === 0x7f ? '\u2421' : '\ufffd';
  });
}
