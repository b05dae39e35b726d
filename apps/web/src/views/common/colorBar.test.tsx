import '../../testing/browser';
import { unitsOf } from '@lithagon/core';
import { renderToStaticMarkup } from 'react-dom/server';
import { beforeEach, describe, expect, test, vi } from 'vitest';

let display: 'metric' | 'field' = 'metric';
// what is rendered without a page sees no change of a store
vi.mock('../../state/units', () => ({ useUnits: () => unitsOf({ display }) }));
const { ColorBar, quantityText } = await import('./ColorBar');
const { Legend } = await import('../crossplot/Legend');

const textOf = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
beforeEach(() => {
  display = 'metric';
});

describe('a colour bar', () => {
  const bar = (low: number, high: number, unit?: string) =>
    renderToStaticMarkup(<ColorBar look={{ map: 'strata', low, high, reverse: false }} text="Depth" unit={unit} />);
  test('has its ends, and nought in the middle where both sides are alike', () => {
    expect(textOf(bar(-2600, 2600))).toMatch(/^−2 ?600 0 2 ?600 Depth$/);
    expect(textOf(bar(1000, 1500, 'm'))).toMatch(/^1 ?000 1 ?500 Depth$/);
  });
  test('shows its ends in the units of the project', () => {
    display = 'field';
    expect(textOf(bar(1000, 2000, 'm'))).toMatch(/^3 ?281 6 ?562 Depth$/);
    // what has no unit stays
    expect(textOf(bar(0, 1))).toMatch(/^0(\.0+)? 1(\.0+)? Depth$/);
  });
  test('names quantity, unit and polarity, and says where none was declared', () => {
    const amplitude = { quantity: 'amplitude', unit: '' };
    expect(quantityText({ ...amplitude, polarity: 'harder-positive' })).toBe('amplitude, + is harder');
    expect(quantityText({ ...amplitude, polarity: 'harder-negative' })).toBe('amplitude, − is harder');
    expect(quantityText(amplitude)).toBe('amplitude, polarity not declared');
    const velocity = { quantity: 'interval velocity', unit: 'm/s' };
    expect(quantityText(velocity)).toBe('interval velocity (m/s)');
    expect(quantityText(velocity, unitsOf({ display: 'field' }))).toBe('interval velocity (ft/s)');
  });
});

describe('the legend of a crossplot', () => {
  const facts = { classes: [], colorRange: null, unitColor: '' };
  const legend = (more: object, most?: number) =>
    renderToStaticMarkup(
      <Legend facts={{ ...facts, ...more } as never} label="gamma ray" picture={most ? ({ most } as never) : null} />,
    );
  test('counts points where nothing colours them, from one to the most in a cell', () => {
    expect(textOf(legend({}, 214))).toBe('1 214 points in a cell');
    expect(textOf(legend({}))).toBe('1 1 points in a cell');
  });
  test('gives the range of what colours them with its unit, as the project shows it', () => {
    expect(textOf(legend({ colorRange: [2000, 3000], unitColor: 'kg/m3' }))).toBe('2000 3000 gamma ray (kg/m³)');
    display = 'field';
    expect(textOf(legend({ colorRange: [2000, 3000], unitColor: 'kg/m3' }))).toBe('2 3 gamma ray (g/cm³)');
    // a part of one has no unit to name
    expect(textOf(legend({ colorRange: [0, 1], unitColor: '1' }))).toBe('0 1 gamma ray');
  });
  test('names facies, and what has none', () => {
    expect(textOf(legend({ classes: ['sand', 'shale'] }))).toBe('sand shale no facies');
  });
});
