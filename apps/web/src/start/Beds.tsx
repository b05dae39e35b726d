import { BEDS } from '../stages/beds';
import css from './Start.module.css';

/** The ten beds, folded and faulted: the start page's one ornament. */
export function Beds() {
  const top = (n: number, x: number) =>
    34 + n * 78 + 22 * Math.sin(x * 0.011 + 0.6) * (1 + n * 0.04) + 5 * Math.sin(x * 0.043 + n);
  const shape = (n: number, from: number, to: number, down: number) => {
    const line = (m: number, a: number, b: number) => {
      const out: string[] = [];
      for (let s = 0; s <= 24; s++) {
        const x = a + ((b - a) * s) / 24;
        out.push(`${x.toFixed(1)} ${(top(m, x) + down).toFixed(1)}`);
      }
      return out.join('L');
    };
    return `M${line(n, from, to)}L${line(n + 1, to, from)}Z`;
  };
  return (
    <svg className={css.beds} viewBox="0 0 420 800" preserveAspectRatio="xMinYMid slice" aria-hidden="true">
      <defs>
        {BEDS.map((bed) => (
          <pattern key={bed.id} id={`start-${bed.id}`} width="20" height="20" patternUnits="userSpaceOnUse">
            <g fill="none" stroke="currentColor" strokeWidth="1.05" strokeLinecap="round">
              {bed.pattern}
            </g>
          </pattern>
        ))}
        <clipPath id="west">
          <path d="M0 0H300L232 800H0Z" />
        </clipPath>
        <clipPath id="east">
          <path d="M303 0H420V800H235Z" />
        </clipPath>
      </defs>
      {[0, 1].map((side) => (
        <g key={side} clipPath={`url(#${side ? 'east' : 'west'})`}>
          {BEDS.map((bed, n) => (
            <g key={bed.id}>
              <path
                d={shape(n, -10, 430, side ? -46 : 0)}
                fill={
                  bed.id === 'interpret'
                    ? 'color-mix(in oklab, var(--ochre) 22%, var(--vellum))'
                    : n % 2
                      ? 'var(--wash)'
                      : 'var(--vellum)'
                }
              />
              <path
                d={shape(n, -10, 430, side ? -46 : 0)}
                fill={`url(#start-${bed.id})`}
                stroke="var(--slate)"
                strokeWidth="0.8"
                style={{ color: bed.id === 'interpret' ? 'var(--ochre)' : 'var(--slate)' }}
                opacity={0.75}
              />
            </g>
          ))}
        </g>
      ))}
      <path d="M301.500 0 233.500 800" stroke="var(--ink)" strokeWidth="2.4" />
    </svg>
  );
}
