// Where a spreadsheet may begin a cell, whichever separator its language has, before what it takes for a formula there:
// =, +, -, @ and their full-width forms.
const PLAIN = /(^|[,;|\t\r\n])(\s*)('*)(?=[=+\-@\uff1d\uff0b\uff0d\uff20])/g;
const GUARDED = /(^|[,;|\t\r\n])(\s*)'('*)(?=[=+\-@\uff1d\uff0b\uff0d\uff20])/g;

/** Text that no spreadsheet takes for a formula: an apostrophe more stands before what it would. */
export function guarded(text: string): string {
  return text.replace(PLAIN, "$1$2'$3");
}

/** What `guarded` was given. */
export function unguarded(text: string): string {
  return text.includes("'") ? text.replace(GUARDED, '$1$2$3') : text;
}
