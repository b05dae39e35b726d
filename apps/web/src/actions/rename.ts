import { asLithagonError, type EarthObject, renamed } from '@lithagon/core';
import { toast } from 'sonner';
import { edit } from '../state/history';
import { useProject } from '../state/project';

/** Call an object otherwise, and what finds it by its name with it. False where that cannot be. */
export async function rename(object: EarthObject, to: string): Promise<boolean> {
  const name = to.trim().slice(0, 200);
  if (name === '' || name === object.name) return false;
  try {
    const { byId, objects } = useProject.getState();
    const after = renamed(objects, object, name);
    await edit(
      `Rename ${object.name} to ${name}`,
      after.map((o) => byId.get(o.id) as EarthObject),
      after,
    );
    return true;
  } catch (cause) {
    const { message, fix } = asLithagonError(cause);
    toast.error(message, { description: fix });
    return false;
  }
}
