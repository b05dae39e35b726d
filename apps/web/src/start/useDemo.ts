import { useEffect, useState } from 'react';
import { z } from 'zod';

const part = z.enum(['unknown', 'there', 'making', 'missing']);
const demoSchema = z.object({
  files: part,
  project: part,
  /** What is being made, and how much of it is there, 0 to 1. */
  what: z.string(),
  part: z.number(),
  /** Why it could not be made. */
  problem: z.string(),
});
export type Demo = z.infer<typeof demoSchema>;

const UNKNOWN: Demo = { files: 'unknown', project: 'unknown', what: '', part: 0, problem: '' };
const MISSING: Demo = { ...UNKNOWN, files: 'missing', project: 'missing' };
/** How often the server is asked while it makes the field, ms. */
const EVERY_MS = 1000;

/** How far the server is with the demo field, asked again as long as something of it is being made. */
export function useDemo(): Demo {
  const [demo, setDemo] = useState(UNKNOWN);
  useEffect(() => {
    let timer = 0;
    let gone = false;
    const ask = async () => {
      const next = await fetch('/demo/state.json').then(
        async (r) => (r.ok ? (demoSchema.safeParse(await r.json()).data ?? MISSING) : MISSING),
        () => MISSING,
      );
      if (gone) return;
      setDemo(next);
      const made = next.files === 'there' && next.project === 'there';
      if (!made && next !== MISSING && !next.problem) timer = window.setTimeout(ask, EVERY_MS);
    };
    void ask();
    return () => {
      gone = true;
      window.clearTimeout(timer);
    };
  }, []);
  return demo;
}

/** Why a part of the demo cannot be opened yet, in a sentence; null where it can, or where nobody knows yet. */
export function waitingFor(demo: Demo, want: 'files' | 'project'): string | null {
  if (demo[want] === 'there' || demo[want] === 'unknown') return null;
  if (demo.problem) return demo.problem;
  const percent = `${demo.what}${demo.part > 0 ? `, ${(100 * demo.part).toFixed(0)} %` : ''}`;
  if (demo[want] === 'making') return `Being made now: ${percent || 'beginning'}.`;
  if (want === 'project' && demo.files === 'making') return `Comes after the raw files: ${percent || 'beginning'}.`;
  return 'Run “npm run demo” to make its data first.';
}
