import { quantityFacts, type Volume } from '@lithagon/core';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { tryOut } from '../../compute/pool';
import { useProject } from '../../state/project';
import { type Cloud, makeCloud } from './cloud';
import type { SceneFrame } from './planes';
import type { World } from './world';

/** Samples along each axis that are looked through at most. */
const MOST: [number, number, number] = [96, 96, 160];

/** A volume to be looked through, once it has been thinned; null while it is, or where that is not asked for. */
export function useCloud(
  world: World,
  volume: Volume,
  frame: SceneFrame,
  wanted: boolean,
  redraw: () => void,
): Cloud | null {
  const projectId = useProject((s) => s.id);
  const [cloud, setCloud] = useState<Cloud | null>(null);
  const latest = useRef(redraw);
  latest.current = redraw;
  useEffect(() => {
    if (!wanted) return;
    const made = makeCloud(volume, frame);
    const signed = quantityFacts(volume.quantity).symmetric;
    const reading = tryOut((remote, task) => remote.cube(task, projectId, volume, MOST, signed));
    let there = true;
    reading.done.then(
      (cube) => {
        if (!there) return;
        made.setCube(cube);
        world.root.add(made.mesh);
        setCloud(made);
      },
      (cause) => there && toast.error(String(cause?.sentence ?? cause)),
    );
    return () => {
      there = false;
      reading.stop();
      made.mesh.removeFromParent();
      made.free();
      setCloud(null);
    };
  }, [world, volume, frame, wanted, projectId]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: drawn anew when it comes or goes
  useEffect(() => latest.current(), [cloud]);
  return cloud;
}
