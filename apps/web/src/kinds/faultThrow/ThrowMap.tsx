import { domainName, domainUnit, type FaultThrow } from '@lithagon/core';
import { useEffect, useRef } from 'react';
import { colorMap } from '../../color/maps';
import { useArray } from '../../views/common/hooks';
import css from './ThrowMap.module.css';

const [WIDTH, HEIGHT, LEFT, PROFILE] = [218, 150, 34, 60];

/** Places whose two sides match less than this are drawn faint. */
const FAINT = 0.4;

/** Throw over the surface of a fault, strike across and depth down, with the greatest of each row above it. */
export function ThrowMap({ object }: { object: FaultThrow }) {
  const values = useArray(object.id, object.revision, object.values);
  const match = useArray(object.id, object.revision, object.match);
  const ref = useRef<HTMLCanvasElement>(null);
  const [rows, levels] = object.values.shape;
  const end = Math.max(8, Math.abs(object.greatest ?? 0));
  useEffect(() => {
    const canvas = ref.current?.getContext('2d');
    if (!canvas || !values || !match) return;
    const image = canvas.createImageData(rows, levels);
    const colors = colorMap('rust–bone–slate');
    for (let r = 0; r < rows; r++)
      for (let k = 0; k < levels; k++) {
        const [v, m] = [values[r * levels + k], match[r * levels + k]];
        if (Number.isNaN(v)) continue;
        const c = 3 * Math.round(127.5 + 127.5 * Math.max(-1, Math.min(1, v / end)));
        image.data.set([colors[c], colors[c + 1], colors[c + 2], m >= FAINT ? 255 : 70], 4 * (k * rows + r));
      }
    canvas.putImageData(image, 0, 0);
  }, [values, match, rows, levels, end]);
  const unit = domainUnit(object.domain);
  const x = (r: number) => LEFT + (r / Math.max(1, rows - 1)) * (WIDTH - LEFT);
  const most = Math.max(...object.profile.map((v) => Math.abs(v ?? 0)), 1e-9);
  const y = (v: number) => PROFILE - 4 - (Math.abs(v) / most) * (PROFILE - 14);
  const line = object.profile
    .map((v, r) =>
      v === null ? null : `${object.profile[r - 1] == null ? 'M' : 'L'}${x(r).toFixed(1)} ${y(v).toFixed(1)}`,
    )
    .filter(Boolean)
    .join('');
  const last = object.first + (levels - 1) * object.step;
  return (
    <figure className={css.figure}>
      <svg
        width={WIDTH}
        height={PROFILE}
        role="img"
        aria-label={`Greatest throw along strike, up to ${most.toFixed(0)} ${unit}`}
      >
        <path d={`M${LEFT} ${PROFILE - 4}H${WIDTH}`} className={css.axis} />
        <path d={line} className={css.line} />
        <text x={LEFT - 4} y={y(most) + 4} textAnchor="end">
          {most.toFixed(0)}
        </text>
        <text x={LEFT - 4} y={PROFILE - 2} textAnchor="end">
          0
        </text>
        <text x={LEFT + 2} y={10}>
          throw, {unit}
        </text>
        {object.tapers.map((dies, n) =>
          dies || object.greatest === null ? null : (
            <text
              key={n === 0 ? 'first' : 'last'}
              x={n === 0 ? LEFT + 2 : WIDTH}
              y={PROFILE - 8}
              textAnchor={n === 0 ? 'start' : 'end'}
              className={css.open}
            >
              does not die out
            </text>
          ),
        )}
      </svg>
      <div className={css.map}>
        <span>{object.first.toFixed(0)}</span>
        <canvas
          ref={ref}
          width={rows}
          height={levels}
          style={{ width: WIDTH - LEFT, height: HEIGHT }}
          role="img"
          aria-label={`Throw by strike and ${domainName(object.domain)}`}
        />
        <span>
          {last.toFixed(0)} {unit}
        </span>
      </div>
      <figcaption>
        <span>0</span>
        <span>{(object.alongM / 1000).toFixed(1)} km along strike</span>
      </figcaption>
      <p>
        Rust: the hanging wall is down, slate: up, to {end.toFixed(0)} {unit}; faint where the sides do not match.
      </p>
    </figure>
  );
}
