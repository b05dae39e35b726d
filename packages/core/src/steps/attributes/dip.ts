import { z } from 'zod';
import { defineStep } from '../define.ts';
import { dipHalo, dipParams, dipWay, slopesIn, steeringOf } from './steering.ts';

const params = z.object({ by: dipWay, ...dipParams });

const NONE = { inline: 0, crossline: 0, sample: 0 };

export const dip = defineStep({
  id: 'attributes.dip',
  version: 1,
  stage: 'attributes',
  purpose: 'Structure',
  title: 'Dip',
  summary:
    'How reflections dip along inlines and crosslines: ms, or m, a kilometre, downward positive. Steers other steps.',
  formula:
    'p = −n₁/n₃, q = −n₂/n₃; n the first eigenvector of the smoothed ∇d·∇dᵀ, or the slopes of greatest semblance.',
  avoid: 'Where beds are so steep that they pass half a period from a trace to the next: their dip is aliased.',
  source:
    'van Vliet & Verbeek (1995), Proc. ASCI’95, 442–449; Fehmers & Höcker (2003), Geophysics 68, 1286–1293; Marfurt (2006), Geophysics 71, P29–P40',
  reach: 'local',
  inputs: { seismic: { kind: 'volume', title: 'Seismic', quantity: ['amplitude', 'attribute'] } },
  params,
  outputs: {
    inline: { kind: 'volume', title: 'Dip along inlines’ count' },
    crossline: { kind: 'volume', title: 'Dip along crosslines’ count' },
  },
  local: {
    volumes: ['seismic'],
    halo: dipHalo,
    ready: (_, __, volumes) => steeringOf(volumes),
    evaluate(blocks, p, steering) {
      const slopes = slopesIn(blocks, p, steering, NONE);
      return {
        inline: slopes.p.map((v) => v / steering.perInline),
        crossline: slopes.q.map((v) => v / steering.perCrossline),
      };
    },
    outputOf: ({ domain }) => ({ quantity: 'dip', unit: domain === 'depth' ? 'm/km' : 'ms/km' }),
  },
});
