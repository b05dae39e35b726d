import type { FrequencySpec, Horizon, Volume } from '@lithagon/core';
import { toast } from 'sonner';
import { useProject } from '../state/project';
import { select } from '../state/selection';
import { showBlend } from './blends';
import { runQuietly } from './steps';

/** What shades a blend: nothing, how alike traces are at the least, or a map by its id. */
export type Shade = 'none' | 'semblance' | (string & {});

/**
 * Map three frequencies in a window around a horizon and blend them: each map is an object of its own, so that any of them can be
 * changed and the blend rebuilt. Ends quietly where one of the runs was cancelled or failed, which says so itself.
 */
export async function blendOfThree(given: {
  seismic: Volume;
  horizon: Horizon;
  three: [number, number, number];
  spec: FrequencySpec;
  above: number;
  below: number;
  shade: Shade;
}): Promise<void> {
  const { seismic, horizon, three, spec, above, below, shade } = given;
  const on = { seismic: [seismic.id], horizon: [horizon.id] };
  const maps: string[] = [];
  for (const hz of three) {
    const [map] =
      (await runQuietly({
        step: 'attributes.frequencyMap',
        inputs: on,
        params: { hz, method: spec.method, windowMs: spec.windowMs, cycles: spec.cycles, above, below },
        name: `${hz} Hz on ${horizon.name}`,
      })) ?? [];
    if (!map) return;
    maps.push(map);
  }
  const shaded = shade === 'semblance' ? await leastSemblance(seismic, horizon, above, below) : shade;
  if (!shaded) return;
  const [blend] =
    (await runQuietly({
      step: 'attributes.blend',
      inputs: {
        red: [maps[0]],
        green: [maps[1]],
        blue: [maps[2]],
        ...(shaded === 'none' ? {} : { shade: [shaded] }),
      },
      params: {},
      name: `${three.join(', ')} Hz on ${horizon.name}`,
    })) ?? [];
  const made = useProject.getState().byId.get(blend ?? '');
  if (made?.kind !== 'blend') return;
  select(made.id);
  showBlend(made);
  toast(`${made.name} is on the map; its four maps are among the attributes.`);
}

/** Magnitudes at three frequencies as live volumes. */
export async function volumesOfThree(given: {
  seismic: Volume;
  three: [number, number, number];
  spec: FrequencySpec;
}): Promise<void> {
  const { seismic, three, spec } = given;
  for (const hz of three) {
    const made = await runQuietly({
      step: 'attributes.frequency',
      inputs: { seismic: [seismic.id] },
      params: { hz, method: spec.method, windowMs: spec.windowMs, cycles: spec.cycles },
      name: `${hz} Hz of ${seismic.name}`,
      live: true,
    });
    if (!made) return;
  }
  toast(`${three.join(', ')} Hz of ${seismic.name} are among the attributes, as live volumes.`);
}

/** A map of how alike neighbouring traces are at the least in the window: faults and edges are dark in it. */
async function leastSemblance(
  seismic: Volume,
  horizon: Horizon,
  above: number,
  below: number,
): Promise<string | undefined> {
  const [volume] =
    (await runQuietly({
      step: 'attributes.coherence',
      inputs: { seismic: [seismic.id] },
      params: { measure: 'semblance' },
      name: `Semblance of ${seismic.name}`,
      live: true,
    })) ?? [];
  if (!volume) return undefined;
  const [map] =
    (await runQuietly({
      step: 'attributes.onHorizon',
      inputs: { horizon: [horizon.id], volume: [volume] },
      params: { gives: 'least', above, below },
      name: `Least semblance on ${horizon.name}`,
    })) ?? [];
  return map;
}
