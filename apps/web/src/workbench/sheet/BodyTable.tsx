import { type Bodies, domainUnit } from '@lithagon/core';
import { bodyColor } from '../../kinds/bodies/shapes';
import { useUnits } from '../../state/units';
import { domainAxis } from '../../views/common/domains';
import css from './Sheet.module.css';

/** Bodies that are listed: the largest. */
const LISTED = 12;

/** The largest bodies: how large, where, and where they end down dip. */
export function BodyTable({ object }: { object: Bodies }) {
  const units = useUnits();
  const unit = domainUnit(object.domain);
  const { first, step } = object.vertical;
  const at = (k: number) => units.to(first + k * step, unit).toFixed(0);
  const edged = object.bodies.some((b) => b.edgeM !== undefined);
  return (
    <>
      <h3>The largest</h3>
      <table className={css.bodies}>
        <thead>
          <tr>
            <th aria-label="Colour" />
            <th title="Millions of cubic metres">10⁶ m³</th>
            <th>{domainAxis(object.domain, units)}</th>
            {edged && <th>Edge ({units.of('m')})</th>}
            {edged && <th title="How often an outline of that shape has an edge as flat by chance">Chance</th>}
          </tr>
        </thead>
        <tbody>
          {object.bodies.slice(0, LISTED).map((b, n) => (
            <tr key={n} data-body={n + 1}>
              <td>
                <i style={{ background: bodyColor(n + 1) }} /> {n + 1}
              </td>
              <td className="num">{(b.volumeM3 / 1e6).toFixed(2)}</td>
              <td className="num">
                {at(b.top)}–{at(b.base)}
              </td>
              {edged && (
                <td className="num">
                  {b.edgeM === undefined
                    ? '–'
                    : `${units.to(b.edgeM, 'm').toFixed(0)} ± ${(units.to(b.spreadM ?? 0, 'm') / 2).toFixed(0)}`}
                </td>
              )}
              {edged && <td className="num">{b.chance === undefined ? '–' : `${(100 * b.chance).toFixed(1)} %`}</td>}
            </tr>
          ))}
        </tbody>
      </table>
      {edged && (
        <p className={css.note}>A small chance says that the edge follows a contour, as that of a fluid does.</p>
      )}
    </>
  );
}
