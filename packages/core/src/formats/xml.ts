/** What no XML file may hold (XML 1.0, section 2.2) or should: control characters, halves of characters, no characters. */
const FORBIDDEN = /[^\P{Cc}\t\n\r]|\p{Cs}|[\ufffe\uffff]/gu;

/** Text without the characters that no XML file may hold. */
export function withoutControls(text: string): string {
  return text.replace(FORBIDDEN, '');
}

const ENTITIES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** Text as it stands in an XML element or attribute, whatever is in it. */
export function xmlText(text: string): string {
  return withoutControls(text).replace(/[&<>"']/g, (c) => ENTITIES[c]);
}
