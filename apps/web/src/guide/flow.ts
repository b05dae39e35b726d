import type { StepDescription } from '@lithagon/core';

const [WIDTH, ROW, BOX] = [640, 34, 190];

const text = (value: string) => value.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** What goes into a step and what comes out of it, as a drawing. */
export function flowOf({ title, inputs, outputs }: Pick<StepDescription, 'title' | 'inputs' | 'outputs'>): string {
  const rows = Math.max(inputs.length, outputs.length, 1);
  const height = rows * ROW + 8;
  const middle = height / 2;
  const at = (n: number, count: number) => middle + (n - (count - 1) / 2) * ROW;
  const box = (x: number, y: number, label: string, kind: string) =>
    `<rect x="${x}" y="${y - 13}" width="${BOX}" height="26" rx="3" class="${kind}"/><text x="${x + BOX / 2}" y="${y + 4}">${text(label)}</text>`;
  const left = inputs.map(({ title: name, optional }, n) => {
    const y = at(n, inputs.length);
    return `${box(4, y, name, optional ? 'may' : 'needs')}<path d="M${4 + BOX} ${y}C${4 + BOX + 24} ${y} ${(WIDTH - BOX) / 2 - 24} ${middle} ${(WIDTH - BOX) / 2} ${middle}"/>`;
  });
  const right = outputs.map(({ title: name }, n) => {
    const y = at(n, outputs.length);
    return `${box(WIDTH - BOX - 4, y, name, 'gives')}<path d="M${(WIDTH + BOX) / 2} ${middle}C${(WIDTH + BOX) / 2 + 24} ${middle} ${WIDTH - BOX - 28} ${y} ${WIDTH - BOX - 4} ${y}"/>`;
  });
  return `<svg viewBox="0 0 ${WIDTH} ${height}" role="img" aria-label="${text(`${title}: what goes in and what comes out`)}">${left.join('')}${right.join('')}${box((WIDTH - BOX) / 2, middle, title, 'step')}</svg>`;
}
