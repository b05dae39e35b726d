import type { EarthObject, ResultTable } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { activeOf, changeContents, useSettings } from '../../state/views';
import { viewIn } from '../../state/views/index';
import { Button } from '../../ui/Button';
import { useLabels } from '../../views/common/labels/Labels';
import type { MapLayerProps } from '../define';

/** A row of a table that has a place, and what is written there. */
interface Mark {
  x: number;
  y: number;
  text: string;
  /** Surface or top that it is of. */
  of: string;
  color: string;
}

const column = (table: ResultTable, name: string) => table.columns.findIndex((c) => c.name === name);

/** Whether rows of a table have places on the map. */
export const hasPlaces = (table: ResultTable): boolean => column(table, 'X') >= 0 && column(table, 'Y') >= 0;

/** What a table of residuals or closures says at its places. */
export function marksOf(table: ResultTable, metres: (v: number) => string): Mark[] {
  const of = (name: string) => column(table, name);
  const [x, y] = [of('X'), of('Y')];
  const signed = (v: unknown) => (typeof v === 'number' ? `${v < 0 ? '−' : '+'}${metres(Math.abs(v))}` : '–');
  const [residual, out] = [of('Residual before'), of('Residual with the well left out')];
  const [what, own, deviation] = [of('What'), of('By the model'), of('Deviation')];
  return table.rows.flatMap((row): Mark[] => {
    const [px, py] = [row[x], row[y]];
    if (typeof px !== 'number' || typeof py !== 'number') return [];
    const at = { x: px, y: py };
    if (residual >= 0) {
      const top = String(row[of('Top')]);
      return [
        { ...at, of: top, color: '#8a2f1d', text: `${top} ${signed(row[residual])}, left out ${signed(row[out])}` },
      ];
    }
    if (what >= 0 && (row[what] === 'spill' || row[what] === 'highest place') && typeof row[own] === 'number') {
      const sd = row[deviation];
      return [
        {
          ...at,
          of: String(row[of('Surface')]),
          color: row[what] === 'spill' ? '#1d5b8a' : '#17191b',
          text: `${row[what]} ${metres(row[own])}${typeof sd === 'number' ? ` ± ${metres(sd)}` : ''}`,
        },
      ];
    }
    return [];
  });
}

/** Which surface the map shows, by the names that tables have for it. */
function shownSurface(objects: EarthObject[], shows: string | null): string[] {
  const object = objects.find((o) => o.id === shows);
  if (!object) return [];
  return object.kind === 'horizon' ? [object.name, object.top ?? object.name] : [object.name];
}

/** Width of a letter of a label, about, pixels. */
const LETTER = 5.8;

/** Residuals at tops, or closures with their spills, where they are: those of the surface that the map shows, else all. */
export function TableOnMap({ object, opacity, place }: MapLayerProps<ResultTable>) {
  const units = useUnits();
  const objects = useProject((s) => s.objects);
  const [{ shows }] = useSettings('map');
  const all = marksOf(object, (v) => units.text(v, 'm', 1));
  const names = shownSurface(objects, shows);
  const own = all.filter((m) => names.some((name) => name === m.of || name.endsWith(` of ${m.of}`)));
  const marks = (own.length > 0 ? own : all).map((m) => ({ ...m, at: place(m.x, m.y) }));
  useLabels(
    object.id,
    marks.map(({ text, color, at: [x, y] }, n) => ({
      id: `${object.id} ${n}`,
      text,
      color,
      rank: 4,
      // to the right of its place, or where there is no room to the left
      at: [8, -8 - LETTER * text.length].flatMap((aside) =>
        [16, 28, 40, 52, -18, -30].map((down): [number, number] => [x + aside, y + down]),
      ),
    })),
  );
  return (
    <g opacity={opacity} data-object={object.id} data-marks={marks.length}>
      {marks.map(({ at: [x, y], color, text }, n) => (
        <path key={n} d={`M${x - 5} ${y}h10M${x} ${y - 5}v10`} stroke={color} strokeWidth={1.8} fill="none">
          <title>{text}</title>
        </path>
      ))}
    </g>
  );
}

/** Puts a table with places on the map. */
export function OnTheMap({ object }: { object: ResultTable }) {
  if (!hasPlaces(object)) return null;
  return (
    <Button
      onClick={() => {
        const map = activeOf('map');
        const { shown, out } = viewIn(useDesk.getState(), map).contents;
        changeContents(map, {
          shown: [{ id: object.id, eye: true, opacity: 1 }, ...shown.filter((s) => s.id !== object.id)],
          out: out.filter((id) => id !== object.id),
        });
      }}
    >
      Show on the map
    </Button>
  );
}
