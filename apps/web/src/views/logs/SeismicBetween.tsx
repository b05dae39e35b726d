import type { Volume } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { forViews, unwrap } from '../../compute/pool';
import { useDisplays } from '../../state/displays';
import { useProject } from '../../state/project';
import { displayOf } from '../../state/views/display';
import { lookOf } from '../common/look';
import { Raster } from '../raster/Raster';
import type { Panel } from './layout';

/** Traces between two wells. */
const TRACES = 48;

/** Seismic along the straight lines between neighbouring wells, behind what is drawn of them. */
export function SeismicBetween({
  panel,
  volume: id,
  window,
}: {
  panel: Panel;
  volume: string;
  window: [number, number];
}) {
  const volume = useProject((s) => s.byId.get(id)) as Volume | undefined;
  const projectId = useProject((s) => s.id);
  const display = useDisplays();
  const [traces, setTraces] = useState<{ key: string; data: Float32Array } | null>(null);
  const line = panel.wells.map((w) => [w.column.well.x, w.column.well.y] as [number, number]);
  const key = `${id}@${volume?.revision} ${JSON.stringify(line)}`;
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for volume and line
  useEffect(() => {
    if (volume?.kind !== 'volume' || line.length < 2) return;
    let wanted = true;
    const points = line.slice(1).flatMap((b, n) =>
      Array.from({ length: TRACES }, (_, t) => {
        const f = t / (TRACES - 1);
        return [line[n][0] + f * (b[0] - line[n][0]), line[n][1] + f * (b[1] - line[n][1])] as [number, number];
      }),
    );
    forViews()
      .along(projectId, volume, points)
      .then((outcome) => wanted && setTraces({ key, data: unwrap(outcome) as Float32Array }))
      .catch(() => undefined);
    return () => {
      wanted = false;
    };
  }, [key, projectId]);
  const parts = useMemo(() => {
    if (!traces || volume?.kind !== 'volume') return [];
    const size = TRACES * volume.vertical.count;
    return panel.wells
      .slice(1)
      .map((_, n) => ({ key: `${traces.key}/${n}`, data: traces.data.subarray(n * size, (n + 1) * size), index: n }));
  }, [traces, volume, panel.wells]);
  if (volume?.kind !== 'volume' || traces?.key !== key) return null;
  return (
    <>
      {parts.map((plane, n) => {
        const [a, b] = [panel.wells[n], panel.wells[n + 1]];
        if (!b || !a.hangs || !b.hangs) return null;
        return (
          <Raster
            key={plane.key}
            name={`between-${n}`}
            plane={plane}
            traces={TRACES}
            vertical={volume.vertical}
            look={lookOf(volume, displayOf(display, volume))}
            window={{ x0: 0, x1: TRACES - 1, y0: window[0] - a.hung, y1: window[1] - a.hung }}
            box={{
              left: a.left + a.width + 1,
              top: panel.top,
              width: Math.max(4, b.left - a.left - a.width - 2),
              height: panel.height,
            }}
          />
        );
      })}
    </>
  );
}
