import type { LineFit, Units } from '@lithagon/core';

/** An axis of a crossplot: its unit as kept, and whether its logarithm is what is plotted. */
interface Axis {
  name: string;
  unit: string;
  log: boolean;
}

/** How what is plotted along an axis goes over to what is shown: times `k`, plus `c`. */
function shown({ unit, log }: Axis, units: Units): { k: number; c: number } {
  const [zero, one] = [units.to(0, unit), units.to(1, unit)];
  return log ? { k: 1, c: Math.log10(one) } : { k: one - zero, c: zero };
}

const plain = (v: number, digits: number) => (v === 0 ? '0' : String(Number(v.toPrecision(digits)))).replace('-', '−');

/** The regression as a formula in the units that are shown, with its correlation and what it leaves over. */
export function fitText(fit: LineFit, x: Axis, y: Axis, units: Units): string {
  const [over, up] = [shown(x, units), shown(y, units)];
  const slope = (fit.slope * up.k) / over.k;
  const intercept = fit.intercept * up.k + up.c - slope * over.c;
  const name = (axis: Axis) => (axis.log ? `log ${axis.name}` : axis.name);
  const unit = y.log ? 'of its logarithm' : units.of(y.unit).replace(/^1$/, '');
  const left = `${plain(Math.abs(fit.spread * up.k), 3)}${unit ? ` ${unit}` : ''}`;
  const sign = slope < 0 ? '−' : '+';
  return `${name(y)} = ${plain(intercept, 4)} ${sign} ${plain(Math.abs(slope), 3)} × ${name(x)} · r ${plain(fit.r, 2)} · ± ${left} rms`;
}
