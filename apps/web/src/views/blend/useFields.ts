import { type Blend, CHANNELS, channelsOf, type QuantityMap, type Volume } from '@lithagon/core';
import { useMemo } from 'react';
import { useProject } from '../../state/project';
import { useArray, usePlane } from '../common/hooks';

/** What a blend is of, in the order of its channels; nothing where one of them is gone. */
export function useChannels(blend: Blend | undefined): (QuantityMap | Volume)[] {
  const objects = useProject((s) => s.objects);
  return useMemo(() => {
    const channels = blend ? channelsOf(blend, objects) : null;
    return channels ? CHANNELS.flatMap((c) => channels[c] ?? []) : [];
  }, [blend, objects]);
}

/** Channels as volumes, or as maps: none of a blend of the other kind. */
export function useChannelsOf<K extends 'map' | 'volume'>(
  blend: Blend | undefined,
  kind: K,
): Extract<QuantityMap | Volume, { kind: K }>[] {
  const channels = useChannels(blend);
  return useMemo(
    () => (blend?.of === kind ? channels : []) as Extract<QuantityMap | Volume, { kind: K }>[],
    [blend?.of, channels, kind],
  );
}

type Four<T> = [T, T, T, T];

/** Values of the maps of a blend, channel by channel, as they are read. */
export function useMapFields(blend: Blend | undefined): { maps: QuantityMap[]; fields: Four<Float32Array | null> } {
  const maps = useChannelsOf(blend, 'map');
  const [a, b, c, d] = maps;
  const first = useArray(a?.id, a?.revision, a?.values);
  const second = useArray(b?.id, b?.revision, b?.values);
  const third = useArray(c?.id, c?.revision, c?.values);
  const fourth = useArray(d?.id, d?.revision, d?.values);
  return { maps, fields: [first, second, third, fourth] };
}

/** Planes of the volumes of a blend, channel by channel: those of one line, once all are read. */
export function usePlaneFields(
  blend: Blend | undefined,
  plane: 'inline' | 'crossline' | 'slice',
  indexOf: (volume: Volume) => number,
): { volumes: Volume[]; fields: Four<Float32Array | null>; problem: string | null; index: number } {
  const volumes = useChannelsOf(blend, 'volume');
  const index = volumes[0] ? indexOf(volumes[0]) : 0;
  const [a, p] = usePlane(volumes[0], plane, index);
  const [b, q] = usePlane(volumes[1], plane, index);
  const [c, r] = usePlane(volumes[2], plane, index);
  const [d, s] = usePlane(volumes[3], plane, index);
  const shown = a?.index ?? index;
  // what is of another line yet, or a first look of other size, is not mixed
  const of = (state: typeof a) => (state && state.index === shown && !state.coarse ? state.data : null);
  return { volumes, fields: [of(a), of(b), of(c), of(d)], problem: p ?? q ?? r ?? s, index: shown };
}
