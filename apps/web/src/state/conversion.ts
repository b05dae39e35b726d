import {
  askedInputs,
  asLithagonError,
  type Domain,
  type EarthObject,
  type Model,
  type ModelParts,
  modelOf,
  scaled,
  type VelocityModel,
  type Volume,
} from '@lithagon/core';
import { useEffect } from 'react';
import { toast } from 'sonner';
import { create } from 'zustand';
import { forViews, unwrap } from '../compute/pool';
import { useProject } from './project';

/** What turns time into depth in views, and a velocity of it that is being tried. */
interface Conversion {
  /** Model or velocity volume that a person chose; null for the latest model. */
  chosen: string | null;
  /** What is in use, and that with its revision. */
  id: string | null;
  key: string | null;
  name: string;
  parts: ModelParts | null;
  /** With what is tried. */
  model: Model | null;
  /** Factor by which the velocities of one layer are tried, by its number. */
  trial: { layer: number; factor: number } | null;
}

const NONE = { id: null, key: null, name: '', parts: null, model: null, trial: null };

export const useConversion = create<Conversion>(() => ({ chosen: null, ...NONE }));

/** What may turn time into depth, the one to use first: the models, the latest first, and velocity volumes. */
export function convertersOf(objects: EarthObject[]): { models: VelocityModel[]; volumes: Volume[] } {
  const models = objects.filter((o): o is VelocityModel => o.kind === 'velocity model');
  return {
    models: models.sort((a, b) => b.madeBy.started.localeCompare(a.madeBy.started)),
    volumes: objects.filter(
      (o): o is Volume => o.kind === 'volume' && / velocity$/.test(o.quantity) && o.quantity !== 'S velocity',
    ),
  };
}

/** Try another velocity in a layer, or none. */
export function tryVelocity(trial: Conversion['trial']): void {
  const { parts } = useConversion.getState();
  if (!parts) return;
  const model = modelOf(
    trial
      ? {
          ...parts,
          layers: parts.layers.map((l, n) =>
            n === trial.layer
              ? { ...l, law: scaled(l.law, trial.factor), v0Map: l.v0Map?.map((v) => v * trial.factor) ?? null }
              : l,
          ),
        }
      : parts,
  );
  useConversion.setState({ trial, model });
}

/** Keeps what turns time into depth as the project has it. */
export function useKeptConversion(): void {
  const projectId = useProject((s) => s.id);
  const objects = useProject((s) => s.objects);
  const chosen = useConversion((s) => s.chosen);
  const { models, volumes } = convertersOf(objects);
  const source = [...models, ...volumes].find((o) => o.id === chosen) ?? models[0];
  const key = source ? `${projectId} ${source.id}@${source.revision}` : null;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the source
  useEffect(() => {
    useConversion.setState(NONE);
    if (!source || !key) return;
    let wanted = true;
    forViews()
      .modelParts(projectId, source.id)
      .then((outcome) => {
        const parts = unwrap(outcome) as ModelParts;
        if (wanted)
          useConversion.setState({ id: source.id, key, name: source.name, parts, model: modelOf(parts), trial: null });
      })
      .catch((cause) => {
        const { sentence } = asLithagonError(cause);
        if (wanted) toast.error(sentence, { id: sentence, duration: 12000 });
      });
    return () => {
      wanted = false;
    };
  }, [key]);
}

/** Models that were read, by id and revision; most of them that a view asks for. */
const useRead = create<{ read: Map<string, Model> }>(() => ({ read: new Map() }));
const MOST_READ = 4;

/** The latest models of the project and the one in use, with what is tried of that; the one in use first. */
export function useModels(): { inUse: string | null; models: { id: string; name: string; model: Model }[] } {
  const projectId = useProject((s) => s.id);
  const objects = useProject((s) => s.objects);
  const { id, name, model } = useConversion();
  const read = useRead((s) => s.read);
  const others = convertersOf(objects)
    .models.filter((m) => m.id !== id)
    .slice(0, MOST_READ);
  const keys = others.map((m) => `${projectId} ${m.id}@${m.revision}`);
  // biome-ignore lint/correctness/useExhaustiveDependencies: keys stand for the models
  useEffect(() => {
    for (const [n, other] of others.entries()) {
      if (useRead.getState().read.has(keys[n])) continue;
      void forViews()
        .modelParts(projectId, other.id)
        .then((outcome) => {
          const made = modelOf(unwrap(outcome) as ModelParts);
          useRead.setState((s) => ({ read: new Map(s.read).set(keys[n], made) }));
        })
        .catch(() => undefined);
    }
  }, [keys.join()]);
  const known = others.flatMap((m, n) => {
    const made = read.get(keys[n]);
    return made ? [{ id: m.id, name: m.name, model: made }] : [];
  });
  return { inUse: id, models: [...(id && model ? [{ id, name, model }] : []), ...known] };
}

/**
 * Whether something that was converted and stored gives way to what it would be: while a velocity is tried, and where a person
 * chose to see things by another model than made it.
 */
export function givesWay(object: EarthObject | undefined): boolean {
  if (!object?.madeBy.step.startsWith('depth.')) return false;
  const { trial, chosen, id, model } = useConversion.getState();
  const by = askedInputs(object).model?.[0];
  return model !== null && by !== undefined && (trial !== null || (chosen !== null && chosen === id && by !== id));
}

/** Whether something of a domain can be shown in another, as views stand now. */
export const canTurn = (from: Domain, to: Domain): boolean =>
  from === to || (from !== 'age' && to !== 'age' && useConversion.getState().model !== null);
