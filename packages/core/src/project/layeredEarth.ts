import type { BinGrid } from '../earth/binGrid.ts';
import { LithagonError } from '../earth/errors.ts';
import type { Horizon, VelocityModel } from '../earth/objects.ts';
import { gridAt } from '../horizons/grid.ts';
import { readWhole } from '../storage/arrays.ts';
import type { Store } from '../storage/store.ts';
import { columnOf, type LayeredColumn } from '../velocity/layered.ts';

/** A velocity model with the horizons that bound its layers, ready to be asked anywhere. */
export interface LayeredEarth {
  /** Names of the bases, from the top down. */
  bases: string[];
  column(x: number, y: number): LayeredColumn;
}

/** What a layered earth is made from: plain values and arrays, as they cross from one thread to another. */
export interface EarthParts {
  model: VelocityModel;
  sea: { values: Float32Array; binGrid: BinGrid } | undefined;
  layers: {
    law: VelocityModel['layers'][number];
    binGrid: BinGrid;
    values: Float32Array;
    v0Map: Float32Array | null;
  }[];
}

/**
 * Bring a model together with its horizons in time and the sea bed in depth, down to the layer that ends at `last`; with no
 * sea bed the first layer begins at the datum.
 */
export async function earthParts(
  store: Store,
  model: VelocityModel,
  horizons: Horizon[],
  seaBed: Horizon | undefined,
  last?: string,
): Promise<EarthParts> {
  const end = last === undefined ? model.layers.length - 1 : model.layers.findIndex((l) => l.base === last);
  if (end < 0)
    throw new LithagonError(
      'velocity',
      `${model.name} has no layer that ends at “${last}”; it has ${model.layers.map((l) => `“${l.base}”`).join(', ')}.`,
      { object: last, fix: 'Make the model with this horizon in it.' },
    );
  const sea = seaBed && { values: await readWhole(store, seaBed.values), binGrid: seaBed.binGrid };
  const layers = await Promise.all(
    model.layers.slice(0, end + 1).map(async (layer) => {
      const horizon = horizons.find((h) => h.name === layer.base);
      if (!horizon)
        throw new LithagonError('input', `The horizon “${layer.base}” of ${model.name} was not given.`, {
          object: layer.base,
          fix: 'Choose it under “Horizons of the model”.',
        });
      return {
        law: layer,
        binGrid: horizon.binGrid,
        values: await readWhole(store, horizon.values),
        v0Map: layer.v0Map ? await readWhole(store, layer.v0Map) : null,
      };
    }),
  );
  return { model, sea, layers };
}

/** A layered earth of its parts. */
export function earthOf({ model, sea, layers }: EarthParts): LayeredEarth {
  return {
    bases: layers.map((l) => l.law.base),
    column(x, y) {
      const laws = layers.map(({ law, v0Map, binGrid }) => {
        const v0 = v0Map ? gridAt(v0Map, model.binGrid ?? binGrid, x, y) : law.v0;
        return { v0: Number.isNaN(v0) ? law.v0 : v0, k: law.k };
      });
      const times = layers.map((l) => gridAt(l.values, l.binGrid, x, y));
      const begins = sea ? gridAt(sea.values, sea.binGrid, x, y) : -(model.datumM ?? 0);
      return columnOf(begins, model, times, laws);
    },
  };
}

/** The same in one go. */
export const layeredEarth = async (...parts: Parameters<typeof earthParts>): Promise<LayeredEarth> =>
  earthOf(await earthParts(...parts));
