import { crosslineAt, inlineAt, pathOfLine, type SeismicLine, sameBins, toMap, type Volume } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { type LiveStep, planeNow, readAlong } from '../../compute/planes';
import { useProject } from '../../state/project';
import { JOINED, type Settings, usePlace } from '../../state/views';
import { type PlaneState, useArray, usePlane } from '../common/hooks';
import { indexAt } from '../common/survey';
import { distancesAlong, evenly, type SectionLine, sectionLine, seismicLine, spacedAlong } from './geometry';
import { joinedOf, partsOf } from './joined';
import { useJoined } from './useJoined';

/** What a section runs along, and the samples that it shows. */
export interface Along {
  line: SectionLine;
  samples: PlaneState | null;
  problem: string | null;
  /** Inline or crossline of a volume, by its index and number. */
  plane: 'inline' | 'crossline' | null;
  index: number;
  number: number;
  /** Where the lines of a composite begin; none of a single line. */
  joints: { name: string; trace: number }[];
  /** The line in words: “inline 1040”, “through QN-1, QN-4”. */
  what: string;
}

const NOTHING: [number, number][] = [
  [0, 0],
  [1, 0],
];

/** How far apart traces are read along a line of one's own: as the closer bins of the volume lie. */
const spacingOf = ({ binGrid }: Volume) =>
  Math.min(Math.hypot(...binGrid.perInline), Math.hypot(...binGrid.perCrossline));

/** Traces of a volume at places on the map, or null while they are read. */
export function useTraces(
  volume: Volume | undefined,
  places: [number, number][] | null,
): [PlaneState | null, string | null] {
  const projectId = useProject((s) => s.id);
  const key = volume && places ? `${volume.id}@${volume.revision}/along/${places.length}/${hashOf(places)}` : '';
  const [read, setRead] = useState<PlaneState | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for volume and places
  useEffect(() => {
    if (!volume || !places) return setRead(null);
    const now = planeNow(key);
    if (now) return setRead({ key, data: now, index: 0 });
    let wanted = true;
    readAlong(projectId, volume, key, places).then(
      (data) => {
        if (!wanted) return;
        setProblem(null);
        setRead({ key, data, index: 0 });
      },
      (cause) => wanted && setProblem(String(cause?.sentence ?? cause)),
    );
    return () => {
      wanted = false;
    };
  }, [key, projectId]);
  return [read?.key === key ? read : null, problem];
}

/** A short word for places, that other places hardly share. */
function hashOf(places: [number, number][]): string {
  let hash = 0x811c9dc5;
  for (const place of places) for (const v of place) hash = Math.imul(hash ^ Math.round(v * 100), 0x01000193);
  return (hash >>> 0).toString(36);
}

/** Samples of another volume on a section, at the same places: its own line where it has the same bins. */
export function useOther(
  volume: Volume | undefined,
  shown: Volume | SeismicLine,
  along: Pick<Along, 'plane' | 'index' | 'line'>,
): PlaneState | null {
  const alike = volume && shown.kind === 'volume' && along.plane !== null && sameBins(volume.binGrid, shown.binGrid);
  const [plane] = usePlane(alike ? volume : undefined, along.plane ?? 'inline', along.index);
  const { line } = along;
  const places = useMemo(
    () => (volume && !alike ? Array.from({ length: line.traces }, (_, t) => line.place(t)) : null),
    [volume, alike, line],
  );
  const [traces] = useTraces(alike ? undefined : volume, places);
  return alike ? plane : traces;
}

export function useAlong(shown: Volume | SeismicLine, settings: Settings['section'], live: LiveStep | null): Along {
  const objects = useProject((s) => s.objects);
  const place = usePlace();
  const volume = shown.kind === 'volume' ? shown : undefined;
  const flat = shown.kind === 'seismic line' ? shown : undefined;
  const own = volume && settings.along === 'path' ? settings.path : null;
  const plane = settings.along === 'crossline' ? 'crossline' : 'inline';
  const straight = volume && !own ? volume : undefined;
  const wanted = straight ? indexAt(straight, plane, place) : 0;

  const [ofPlane, planeProblem] = usePlane(straight, plane, wanted, live);
  const flatPath = useMemo(() => (flat ? pathOfLine(objects, flat) : null), [objects, flat]);
  const joined = useJoined(objects, settings);
  const flatData = useArray(flat?.id, flat?.revision, flat?.samples);
  const places = useMemo(() => (volume && own ? spacedAlong(own.points, spacingOf(volume)) : null), [volume, own]);
  const [ofPath, pathProblem] = useTraces(own ? volume : undefined, places);

  // the line of the samples that are shown, until those that are wanted come
  const index = ofPlane && straight ? ofPlane.index : wanted;
  return useMemo((): Along => {
    if (joined) {
      const { path, starts } = joined.joined;
      const even = settings.trueDistance && joined.data ? evenly(path, joined.data) : null;
      const places = even?.path ?? path;
      const data = even?.data ?? joined.data;
      const at = even?.at;
      return {
        line: seismicLine(places, distancesAlong(places), 'distance'),
        samples: data && { key: `${joined.key}${even ? '/even' : ''}`, data, index: 0 },
        problem: joined.problem,
        plane: null,
        index: 0,
        number: 0,
        joints: joined.parts.map(({ line }, n) => ({
          name: line.name,
          trace: Math.max(0, (at ? at.findIndex((t) => t >= starts[n]) : starts[n]) - (n > 0 ? 0.5 : 0)),
        })),
        what: `2D lines ${joined.parts.map(({ line }) => line.name).join(', ')}`,
      };
    }
    if (flat) {
      const path = flatPath ?? NOTHING;
      const even = settings.trueDistance && flatData && flatPath ? evenly(flatPath, flatData) : null;
      const cdpAt = (t: number) => {
        const n = Math.min(flat.cdps.length - 2, Math.floor(t));
        return flat.cdps[n] + (t - n) * (flat.cdps[n + 1] - flat.cdps[n]);
      };
      const line = even ? seismicLine(even.path, even.at.map(cdpAt)) : seismicLine(path, flat.cdps);
      const key = `${flat.id}@${flat.revision}/line${even ? '/even' : ''}`;
      const data = even?.data ?? flatData;
      return {
        line,
        samples: data && { key, data, index: 0 },
        problem: null,
        plane: null,
        index: 0,
        number: 0,
        joints: [],
        what: '2D line',
      };
    }
    if (own && places)
      return {
        line: seismicLine(places, distancesAlong(places), 'distance'),
        samples: ofPath,
        problem: pathProblem,
        plane: null,
        index: 0,
        number: 0,
        joints: [],
        what: own.names.length > 0 ? `through ${own.names.join(', ')}` : 'line of your own',
      };
    const { binGrid } = shown as Volume;
    const number = plane === 'inline' ? inlineAt(binGrid, wanted) : crosslineAt(binGrid, wanted);
    return {
      line: sectionLine(binGrid, plane, index),
      samples: ofPlane,
      problem: planeProblem,
      plane,
      index: wanted,
      number,
      joints: [],
      what: `${plane} ${number}`,
    };
  }, [
    joined,
    flat,
    flatPath,
    flatData,
    settings.trueDistance,
    own,
    places,
    ofPath,
    pathProblem,
    shown,
    plane,
    index,
    wanted,
    ofPlane,
    planeProblem,
  ]);
}

/** Where a section runs, as corners on the map; null where that is not known. */
export function cornersAlong(
  shown: Volume | SeismicLine | undefined,
  settings: Pick<Settings['section'], 'along' | 'path' | 'line' | 'joined'>,
  place: Parameters<typeof indexAt>[2],
  objects: Parameters<typeof pathOfLine>[0],
): [number, number][] | null {
  if (!shown) return null;
  if (settings.line === JOINED && settings.joined) {
    const { path } = joinedOf(partsOf(objects, settings.joined));
    return path.length > 1 ? path : null;
  }
  if (shown.kind === 'seismic line') return pathOfLine(objects, shown);
  if (settings.along === 'path') return settings.path?.points ?? null;
  const { binGrid } = shown;
  const n = indexAt(shown, settings.along, place);
  return settings.along === 'inline'
    ? [toMap(binGrid, n, 0), toMap(binGrid, n, binGrid.crossline.count - 1)]
    : [toMap(binGrid, 0, n), toMap(binGrid, binGrid.inline.count - 1, n)];
}
