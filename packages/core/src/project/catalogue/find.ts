import { LithagonError } from '../../earth/errors.ts';
import type { EarthObject } from '../../earth/objects.ts';

/** The object called `name`, `kind/name` or by its id; refuses what is missing or not unique, naming near ones. */
export function findObject(objects: EarthObject[], text: string): EarthObject {
  const byId = objects.find((o) => o.id === text);
  if (byId) return byId;
  let found = objects.filter((o) => o.name === text);
  const slash = text.indexOf('/');
  if (found.length === 0 && slash > 0) {
    const [kind, name] = [text.slice(0, slash), text.slice(slash + 1)];
    found = objects.filter((o) => o.kind === kind && o.name === name);
  }
  if (found.length === 1) return found[0];
  if (found.length > 1)
    throw new LithagonError('ambiguous', `${found.length} objects are called “${text}”.`, {
      object: text,
      fix: `Write ${found.map((o) => (found.some((p) => p !== o && p.kind === o.kind) ? o.id : `“${o.kind}/${o.name}”`)).join(' or ')}.`,
    });
  const lower = text.toLowerCase();
  const near = objects
    .filter((o) => o.name.toLowerCase().includes(lower) || lower.includes(o.name.toLowerCase()))
    .slice(0, 3);
  throw new LithagonError('missing', `There is no object called “${text}” in the project.`, {
    object: text,
    fix:
      near.length > 0
        ? `Perhaps ${near.map((o) => `“${o.name}”`).join(', ')}?`
        : 'List the project to see what it holds.',
  });
}
