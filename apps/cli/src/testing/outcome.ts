import { expect } from 'vitest';
import type { Foreign, Outcome } from './foreign.ts';

/** Hold what came of a file against what is right to do with it. */
export function expectOutcome(given: Foreign, { report, loaded, shown, objects, unharmed, aside }: Outcome): void {
  const { file, is, says, refused, asks } = given;
  const about = `${file} (${is})`;
  expect(unharmed, `${about}: what was there before leaves as it did`).toBe(true);
  expect(aside, `${about}: the project opens whole`).toBe(0);
  for (const key of asks ?? [])
    expect(
      report.questions.map((q) => q.key),
      `${about} is asked`,
    ).toContain(key);
  const before = [...report.problems, report.refused?.message, report.refused?.fix].join(' ');
  if (refused) {
    expect(loaded.code, `${about} is refused: ${loaded.said}`).toBe(1);
    expect(loaded.said, `${about} when it is loaded`).toMatch(refused);
    expect(loaded.said, `${about} names the file`).toContain(file);
    // a reason and a remedy
    expect(
      loaded.said
        .trim()
        .split(/[.?](?:\s|$)/)
        .filter(Boolean).length,
      `${about}: ${loaded.said}`,
    ).toBeGreaterThan(1);
    expect(loaded.said, about).not.toMatch(/not foreseen|undefined|\bNaN of\b|\[object/);
    if (!asks) expect(before, `${about} before it is loaded`).toMatch(refused);
    expect(objects, about).toEqual([]);
    return;
  }
  expect(loaded.code, `${about} is loaded: ${loaded.said}`).toBe(0);
  expect(report.refused, about).toBeUndefined();
  expect(objects.length, about).toBeGreaterThan(0);
  if (!says) return;
  expect(before, `${about} before it is loaded`).toMatch(says);
  expect(loaded.said, `${about} when it is loaded`).toMatch(says);
  expect(shown, `${about} when it is shown`).toMatch(says);
}
