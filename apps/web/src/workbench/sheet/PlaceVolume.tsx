import { asLithagonError, type BinGrid, placedAt, placedLike, placedVolume, type Volume } from '@lithagon/core';
import { useState } from 'react';
import { toast } from 'sonner';
import { edit } from '../../state/history';
import { useProject } from '../../state/project';
import { useMapUnit } from '../../state/units';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import css from './Sheet.module.css';

const FIELDS = [
  ['inline', 'Inline'],
  ['crossline', 'Crossline'],
  ['x', 'X'],
  ['y', 'Y'],
] as const;
type Corner = Record<(typeof FIELDS)[number][0], string>;

/** Three corners of a grid, as far as its own numbers say them. */
function cornersOfNumbers({ inline, crossline }: BinGrid): Corner[] {
  const last = (a: BinGrid['inline']) => String(a.first + a.step * (a.count - 1));
  const [i0, j0] = [String(inline.first), String(crossline.first)];
  return [
    { inline: i0, crossline: j0, x: '', y: '' },
    { inline: i0, crossline: last(crossline), x: '', y: '' },
    { inline: last(inline), crossline: j0, x: '', y: '' },
  ];
}

/** Give a volume without coordinates its place: by the line numbers of another, or by three corners. */
export function PlaceVolume({ volume }: { volume: Volume }) {
  const objects = useProject((s) => s.objects);
  const map = useMapUnit();
  const [corners, setCorners] = useState(() => cornersOfNumbers(volume.binGrid));
  const others = objects.filter((o): o is Volume => o.kind === 'volume' && !o.binGrid.local);
  const put = (make: () => BinGrid, how: string) => {
    try {
      void edit(`Place ${volume.name} ${how}`, [volume], [placedVolume(volume, make())]);
    } catch (cause) {
      toast.error(asLithagonError(cause).sentence);
    }
  };
  const number = (text: string) => (text.trim() === '' ? Number.NaN : Number(text));
  return (
    <details className={css.text} open>
      <summary>Place it on the map</summary>
      <div className={css.declare}>
        {others.length > 0 && (
          <div>
            <span>Numbered as</span>
            <Select
              label="Line numbers are those of"
              value=""
              options={[
                { value: '', label: 'choose a volume …' },
                ...others.map(({ id, name }) => ({ value: id, label: name })),
              ]}
              onChange={(id) => {
                const other = others.find((o) => o.id === id);
                if (other) put(() => placedLike(volume.binGrid, other.binGrid), `as ${other.name}`);
              }}
            />
          </div>
        )}
        <table className={css.corners}>
          <thead>
            <tr>
              {FIELDS.map(([key, label]) => (
                <th key={key}>{key === 'x' || key === 'y' ? `${label}, ${map.unit}` : label}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {corners.map((corner, n) => (
              <tr key={n}>
                {FIELDS.map(([key, label]) => (
                  <td key={key}>
                    <input
                      aria-label={`${label} of corner ${n + 1}`}
                      inputMode="decimal"
                      value={corner[key]}
                      onChange={(e) => {
                        const value = e.target.value;
                        setCorners((all) => all.map((c, m) => (m === n ? { ...c, [key]: value } : c)));
                      }}
                    />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
        <Button
          small
          disabled={corners.some((c) => FIELDS.some(([key]) => Number.isNaN(number(c[key]))))}
          onClick={() =>
            put(
              () =>
                placedAt(
                  volume.binGrid,
                  corners.map((c) => ({
                    inline: number(c.inline),
                    crossline: number(c.crossline),
                    x: number(c.x) * map.metres,
                    y: number(c.y) * map.metres,
                  })),
                ),
              'by three corners',
            )
          }
        >
          Place by these corners
        </Button>
      </div>
    </details>
  );
}
