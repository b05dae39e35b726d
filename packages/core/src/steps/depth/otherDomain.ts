import { LithagonError } from '../../earth/errors.ts';
import type { Domain } from '../../earth/objects.ts';

/** The domain that something is converted to: depth of time, time of depth. */
export function otherDomain({ name, domain }: { name: string; domain: Domain }): 'twt' | 'depth' {
  if (domain === 'age')
    throw new LithagonError('domain', `${name} is by age, and only time and depth become each other.`, {
      object: name,
      fix: 'Choose something else. Nothing was changed.',
    });
  return domain === 'twt' ? 'depth' : 'twt';
}
