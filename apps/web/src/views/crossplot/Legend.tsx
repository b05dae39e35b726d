import { colorMap } from '../../color/maps';
import { useUnits } from '../../state/units';
import { faciesColor } from '../logs/marks';
import css from './Crossplot.module.css';
import { UNNAMED } from './Density';
import type { Picture, PlotFacts } from './usePlot';

/** What the colours of the raster mean. */
export function Legend({ facts, label, picture }: { facts: PlotFacts; label: string; picture: Picture | null }) {
  const units = useUnits();
  if (facts.classes.length > 0)
    return (
      <span className={css.legend}>
        {facts.classes.map((c) => (
          <span key={c} className={css.legend}>
            <i style={{ background: faciesColor(c, facts.classes), width: 11 }} />
            {c}
          </span>
        ))}
        <span className={css.legend}>
          <i style={{ background: `rgba(${UNNAMED.slice(0, 3)}, ${UNNAMED[3] / 255})`, width: 11 }} />
          no facies
        </span>
      </span>
    );
  const map = colorMap(facts.colorRange ? 'strata' : 'lichen');
  const stops = [0, 0.25, 0.5, 0.75, 1].map((f) => {
    const c = 3 * Math.round(255 * f);
    return `rgb(${map[c]},${map[c + 1]},${map[c + 2]})`;
  });
  const ends = facts.colorRange
    ? facts.colorRange.map((v) => Number(units.to(v, facts.unitColor).toPrecision(3)))
    : [1, picture?.most ?? 1];
  return (
    <span className={css.legend}>
      <span className="num">{ends[0]}</span>
      <i style={{ background: `linear-gradient(90deg, ${stops.join(', ')})` }} />
      <span className="num">{ends[1]}</span>
      {facts.colorRange
        ? `${label}${units.of(facts.unitColor) && units.of(facts.unitColor) !== '1' ? ` (${units.of(facts.unitColor)})` : ''}`
        : 'points in a cell'}
    </span>
  );
}
