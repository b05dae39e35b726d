/** A velocity model with what bounds its layers: asked for wherever something is taken to depth. */
export const modelInputs = {
  model: { kind: 'velocity model', title: 'Velocity model' },
  layers: { kind: 'horizon', title: 'Horizons of the model', many: true, domain: 'twt' },
  seaBed: { kind: 'horizon', title: 'Sea bed or ground', domain: 'depth', optional: true },
} as const;
