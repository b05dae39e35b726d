import { curvesOf, type Well } from '@lithagon/core';
import { useMemo, useState } from 'react';
import { type CurveStyle, styleOf, TRACKS, type Track } from '../../state/logsTemplate';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { useSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { Modal } from '../../ui/Modal';
import { changeLogs } from './changeLogs';
import type { WellColumn } from './columns';
import css from './TracksSheet.module.css';

const FACTS = ['status', 'kelly bushing', 'total depth', 'position', 'tie', 'facies', 'note'];

/** Tracks, their curves and fills; limits for a class of curve, or for one well; what a heading says. */
export function TracksSheet({ open, onClose, columns }: { open: boolean; onClose(): void; columns: WellColumn[] }) {
  const [desk] = useSettings('logs');
  const objects = useProject((s) => s.objects);
  const units = useUnits();
  const [well, setWell] = useState('');
  const keys = useMemo(() => {
    const all = new Map<string, { unit: string; class: string; min: number; max: number }>();
    for (const o of objects)
      if (o.kind === 'well')
        for (const [key, held] of curvesOf(objects, (o as Well).name)) if (!all.has(key)) all.set(key, held.curve);
    return all;
  }, [objects]);
  const set = (n: number, change: Partial<Track>) =>
    changeLogs({ tracks: desk.tracks.map((t, k) => (k === n ? { ...t, ...change } : t)) });
  const used = [...new Set(desk.tracks.flatMap((t) => t.curves))];
  const style = (key: string): CurveStyle =>
    styleOf(key, (keys.get(key) ?? { class: 'other', min: 0, max: 1 }) as never, well, desk.styles);
  const restyle = (key: string, change: Partial<CurveStyle>) =>
    changeLogs({ styles: { ...desk.styles, [well ? `${well}/${key}` : key]: { ...style(key), ...change } } });
  return (
    <Modal
      open={open}
      onClose={onClose}
      title="Tracks and headings"
      summary="Set once for a class of curve, or for one well."
      wide
    >
      <div className={css.body}>
        <h3>Tracks</h3>
        {desk.tracks.map((track, n) => (
          <div key={track.id} className={css.track}>
            <input
              aria-label={`Title of track ${n + 1}`}
              value={track.title}
              onChange={(e) => set(n, { title: e.target.value })}
            />
            <label>
              wide{' '}
              <input
                className={css.short}
                type="number"
                min={20}
                max={400}
                aria-label={`Width of ${track.title}`}
                value={track.width}
                onChange={(e) => set(n, { width: Math.max(20, Math.min(400, Number(e.target.value) || 60)) })}
              />{' '}
              px
            </label>
            {track.beds ? (
              <span>beds of facies</span>
            ) : (
              <>
                <span className={css.curves}>
                  {track.curves.map((key) => (
                    <button
                      key={key}
                      type="button"
                      title="Take out"
                      onClick={() => set(n, { curves: track.curves.filter((c) => c !== key), fill: undefined })}
                    >
                      {key} ×
                    </button>
                  ))}
                  <select
                    aria-label={`Add a curve to ${track.title}`}
                    value=""
                    onChange={(e) => e.target.value && set(n, { curves: [...track.curves, e.target.value] })}
                  >
                    <option value="">add a curve</option>
                    {[...keys.keys()]
                      .filter((k) => !track.curves.includes(k))
                      .map((k) => (
                        <option key={k} value={k}>
                          {k}
                        </option>
                      ))}
                  </select>
                </span>
                <select
                  aria-label={`Fill of ${track.title}`}
                  value={track.fill ? (track.fill.kind === 'limit' ? track.fill.side : track.fill.kind) : ''}
                  onChange={(e) => {
                    const [a, b] = track.curves;
                    const kind = e.target.value;
                    if (kind === 'value' && a) set(n, { fill: { kind, curve: a } });
                    else if (kind === 'between' && b)
                      set(n, { fill: { kind, curves: [a, b], colors: ['#e9c75b', '#b9b3a2'] } });
                    else if ((kind === 'left' || kind === 'right') && a)
                      set(n, { fill: { kind: 'limit', curve: a, side: kind, color: '#d9c9a3' } });
                    else set(n, { fill: undefined });
                  }}
                >
                  <option value="">no fill</option>
                  <option value="value">by the first curve’s value</option>
                  <option value="left">from the first curve to the left</option>
                  <option value="right">from the first curve to the right</option>
                  <option value="between" disabled={track.curves.length < 2}>
                    between the first two, where they cross
                  </option>
                </select>
              </>
            )}
            <Button
              small
              disabled={n === 0}
              onClick={() => {
                const next = [...desk.tracks];
                [next[n - 1], next[n]] = [next[n], next[n - 1]];
                changeLogs({ tracks: next });
              }}
            >
              ←
            </Button>
            <Button small onClick={() => changeLogs({ tracks: desk.tracks.filter((_, k) => k !== n) })}>
              Remove
            </Button>
          </div>
        ))}
        <div className={css.row}>
          <Button
            onClick={() =>
              changeLogs({
                tracks: [...desk.tracks, { id: `track-${Date.now()}`, title: 'New track', width: 70, curves: [] }],
              })
            }
          >
            Add a track
          </Button>
          <Button
            onClick={() =>
              changeLogs({
                tracks: [
                  ...desk.tracks,
                  { id: `beds-${Date.now()}`, title: 'Facies', width: 30, curves: [], beds: 'facies' },
                ],
              })
            }
          >
            Add a track of facies
          </Button>
          <Button onClick={() => changeLogs({ tracks: TRACKS, styles: {} })}>As they were at first</Button>
        </div>
        <h3>
          Limits for{' '}
          <select aria-label="Limits for" value={well} onChange={(e) => setWell(e.target.value)}>
            <option value="">all wells</option>
            {columns.map((c) => (
              <option key={c.well.id} value={c.well.name}>
                {c.well.name} only
              </option>
            ))}
          </select>
        </h3>
        <table className={css.limits}>
          <thead>
            <tr>
              <th>Curve</th>
              <th>Left</th>
              <th>Right</th>
              <th>Unit</th>
              <th>Logarithmic</th>
              <th>Colour</th>
            </tr>
          </thead>
          <tbody>
            {used.map((key) => {
              const s = style(key);
              const unit = keys.get(key)?.unit ?? '';
              const shown = (v: number) => Number(units.to(v, unit).toPrecision(5));
              const typed = (text: string) => units.from(Number(text.replace('−', '-')), unit);
              return (
                <tr key={key}>
                  <td>{key}</td>
                  {(['from', 'to'] as const).map((side) => (
                    <td key={side}>
                      <input
                        key={`${well}${s[side]}`}
                        className={css.short}
                        inputMode="decimal"
                        aria-label={`${side === 'from' ? 'Left' : 'Right'} limit of ${key}`}
                        defaultValue={shown(s[side])}
                        onBlur={(e) => {
                          const v = typed(e.target.value);
                          if (Number.isFinite(v) && v !== s[side]) restyle(key, { [side]: v });
                        }}
                      />
                    </td>
                  ))}
                  <td>{units.of(unit) || '–'}</td>
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`${key} logarithmic`}
                      checked={s.log}
                      disabled={s.from <= 0 || s.to <= 0}
                      onChange={(e) => restyle(key, { log: e.target.checked })}
                    />
                  </td>
                  <td>
                    <input
                      type="color"
                      aria-label={`Colour of ${key}`}
                      value={s.color}
                      onChange={(e) => restyle(key, { color: e.target.value })}
                    />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <h3>Headings say</h3>
        <div className={css.row}>
          {FACTS.map((fact) => (
            <label key={fact}>
              <input
                type="checkbox"
                checked={desk.heading.includes(fact)}
                onChange={(e) =>
                  changeLogs({
                    heading: e.target.checked ? [...desk.heading, fact] : desk.heading.filter((h) => h !== fact),
                  })
                }
              />
              {fact}
            </label>
          ))}
        </div>
        <p className={css.note}>The first two that are not empty stand under the well’s name.</p>
      </div>
    </Modal>
  );
}
