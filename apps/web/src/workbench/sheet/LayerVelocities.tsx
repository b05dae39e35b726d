import type { ModelLayer, VelocityModel } from '@lithagon/core';
import { scaleLinear } from 'd3-scale';
import { pathText } from '../../picture/path';
import { useUnits } from '../../state/units';
import css from './Sheet.module.css';

const [W, H, LEFT, TOP, FOOT] = [226, 96, 44, 8, 30];

/** A well's own mean velocity in a layer, m/s. */
const velocityOf = ({ top, base }: NonNullable<ModelLayer['wells']>[number]) =>
  (2000 * (base.z - top.z)) / (base.t - top.t);

/** What wells have of each layer of a model beside what its law makes there, and how far the two lie apart. */
export function LayerVelocities({ object }: { object: VelocityModel }) {
  return (
    <>
      {object.layers.map((layer) =>
        layer.wells && layer.wells.length > 0 ? <Layer key={layer.base} layer={layer} /> : null,
      )}
    </>
  );
}

function Layer({ layer }: { layer: ModelLayer }) {
  const units = useUnits();
  const wells = layer.wells ?? [];
  const own = wells.map(velocityOf);
  // the law's mean over each well's layer: by its miss at the base
  const byLaw = wells.map((w) => (2000 * (w.base.z + w.miss - w.top.z)) / (w.base.t - w.top.t));
  const depths = wells.map((w) => 0.5 * (w.top.z + w.base.z));
  const speeds = [...own, ...byLaw];
  const room = (values: number[], least: number): [number, number] => {
    const [low, high] = [Math.min(...values), Math.max(...values)];
    const more = Math.max(least, 0.15 * (high - low));
    return [low - more, high + more];
  };
  const [v0, v1] = room(speeds, 20);
  const [z0, z1] = room(depths, 20);
  const x = scaleLinear([units.to(v0, 'm/s'), units.to(v1, 'm/s')], [LEFT + 4, W - 8]);
  const y = scaleLinear([units.to(z0, 'm'), units.to(z1, 'm')], [TOP, H - FOOT]);
  const px = (v: number) => x(units.to(v, 'm/s'));
  const py = (z: number) => y(units.to(z, 'm'));
  const order = depths.map((_, n) => n).sort((a, b) => depths[a] - depths[b]);
  const mean = own.reduce((a, b) => a + b, 0) / own.length;
  const spread = Math.sqrt(own.reduce((s, v, n) => s + (v - byLaw[n]) ** 2, 0) / Math.max(1, own.length - 1));
  return (
    <>
      <h3>{layer.base ? `Down to ${layer.base}` : 'Below all'}</h3>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        width={W}
        height={H}
        role="img"
        aria-label={`Velocities of wells ${layer.base ? `down to ${layer.base}` : 'below all'}`}
        className={css.small}
      >
        {y.ticks(3).map((v) => (
          <text key={v} x={LEFT - 4} y={y(v) + 4} textAnchor="end">
            {v}
          </text>
        ))}
        {x.ticks(4).map((v) => (
          <text key={v} x={x(v)} y={H - FOOT + 13} textAnchor="middle">
            {v}
          </text>
        ))}
        <rect x={LEFT} y={TOP} width={W - LEFT - 2} height={H - FOOT - TOP} fill="none" stroke="var(--ash)" />
        <path
          d={pathText(order.map((n) => [px(byLaw[n]), py(depths[n])]))}
          fill="none"
          stroke="var(--ochre)"
          strokeWidth={1.6}
        />
        {wells.map((w, n) => (
          <circle key={w.well} cx={px(own[n])} cy={py(depths[n])} r={3.2} fill="var(--ink)">
            <title>
              {w.well}: {units.text(own[n], 'm/s', 0)}, by the model {units.text(byLaw[n], 'm/s', 0)}
            </title>
          </circle>
        ))}
        <text x={(LEFT + W) / 2} y={H - 3} textAnchor="middle">
          {units.of('m/s')} by depth ({units.of('m')}); line: {layer.corrections ? 'before kriging' : 'the model'}
        </text>
      </svg>
      <p className={css.note}>
        {wells.map((w, n) => `${w.well} ${units.text(own[n], 'm/s', 0)}`).join(', ')}; on the mean{' '}
        {units.text(mean, 'm/s', 0)}
        {own.length > 1 ? `, off the model by ${units.text(spread, 'm/s', 0)}` : ''}.
      </p>
    </>
  );
}
