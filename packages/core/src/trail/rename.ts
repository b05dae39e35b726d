import { LithagonError } from '../earth/errors.ts';
import type { EarthObject, Horizon } from '../earth/objects.ts';
import { topOfHorizon } from '../project/layers.ts';
import { namedParams } from '../steps/params.ts';

/**
 * Everything that changes with the name of an object, so that nothing loses what it found by it. What belongs to a well finds
 * it by id; a horizon stays the same top of the wells, and layers that end at it follow.
 * @returns the object first, then what names it
 */
export function renamed(objects: EarthObject[], object: EarthObject, name: string): EarthObject[] {
  const { madeBy } = object;
  if (object.kind === 'well' && objects.some((o) => o.kind === 'well' && o.id !== object.id && o.name === name))
    throw new LithagonError('names', `Another well is called ${name}.`, {
      object: name,
      fix: 'Choose another name. Nothing was renamed.',
    });
  const next = {
    ...object,
    name,
    madeBy: { ...madeBy, called: madeBy.called ?? object.name },
    ...(object.kind === 'horizon' ? { top: topOfHorizon(object) } : {}),
  } as EarthObject;
  return [next, ...(object.kind === 'horizon' ? follow(objects, object, name) : [])];
}

/** What names a horizon: layers that end at it, and the velocities that were typed for them. */
function follow(objects: EarthObject[], { id, name: before }: Horizon, name: string): EarthObject[] {
  const takes = (o: EarthObject, other: string) =>
    Object.values(o.madeBy.inputs).some((refs) => refs.some((r) => r.startsWith(`${other}@`)));
  // models are made of models
  const models = new Set<string>();
  for (let known = -1; known < models.size; ) {
    known = models.size;
    for (const o of objects)
      if (o.kind === 'velocity model' && (takes(o, id) || [...models].some((m) => takes(o, m)))) models.add(o.id);
  }
  const rests = (o: EarthObject) => models.has(o.id) || takes(o, id);
  return objects.flatMap((o): EarthObject[] => {
    if (!rests(o)) return [];
    const params = namedParams(o, 'horizon', before, name);
    const layers = o.kind === 'velocity model' && o.layers.some((l) => l.base === before);
    if (!layers && params === o.madeBy.params) return [];
    const next = { ...o, madeBy: { ...o.madeBy, params } };
    return [
      o.kind === 'velocity model'
        ? ({
            ...next,
            layers: o.layers.map((l) => (l.base === before ? { ...l, base: name, top: l.top ?? before } : l)),
          } as EarthObject)
        : next,
    ];
  });
}

/** What else names a top: the column, horizons that are it, and parameters of steps. */
export function followTop(objects: EarthObject[], from: string, to: string): EarthObject[] {
  return objects.flatMap((o): EarthObject[] => {
    const params = namedParams(o, 'top', from, to);
    const next = params === o.madeBy.params ? o : { ...o, madeBy: { ...o.madeBy, params } };
    if (o.kind === 'stratigraphic column' && o.units.some((u) => u.top === from))
      return [{ ...o, ...next, units: o.units.map((u) => (u.top === from ? { ...u, top: to } : u)) } as EarthObject];
    if (o.kind === 'horizon' && topOfHorizon(o) === from) return [{ ...o, ...next, top: to } as EarthObject];
    if (o.kind === 'velocity model' && o.layers.some((l) => (l.top ?? l.base) === from))
      return [
        {
          ...o,
          ...next,
          layers: o.layers.map((l) => ((l.top ?? l.base) === from ? { ...l, top: to } : l)),
        } as EarthObject,
      ];
    return next === o ? [] : [next];
  });
}
