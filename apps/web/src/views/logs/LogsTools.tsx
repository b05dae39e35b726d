import { columnOfTops, type EarthObject, stratigraphyOf, topsBeside, type Well } from '@lithagon/core';
import { useMemo } from 'react';
import { openView } from '../../state/dock';
import { edit } from '../../state/history';
import type { DepthKind } from '../../state/logsTemplate';
import { select } from '../../state/selection';
import { takeTool } from '../../state/tool';
import { useSettings } from '../../state/views';
import { Select } from '../../ui/Field';
import { changeLogs } from './changeLogs';
import css from './Logs.module.css';
import { faciesColor } from './marks';
import { SCALES } from './scale';
import type { Hands } from './useHands';
import { withWell } from './wellLine';

const DEPTHS: DepthKind[] = ['MD', 'TVD', 'TVDSS', 'TWT'];

/** The strip above the wells: depth, what they hang on, scale, and what hands do. */
export function LogsTools(props: {
  ids: string[];
  wells: Well[];
  objects: EarthObject[];
  topNames: string[];
  faciesNames: string[];
  hands: Hands;
  /** 1 : n as it stands. */
  scale: number;
  onScale(n: number): void;
  onTracks(): void;
  onCarry(): void;
}) {
  const { ids, wells, objects, topNames, faciesNames, hands, scale, onTracks, onCarry } = props;
  const { mode, setMode, topName, setTopName, facies, setFacies } = hands;
  const [desk] = useSettings('logs');
  const inTime = desk.depth === 'TWT';
  const column = useMemo(() => stratigraphyOf(objects), [objects]);
  const beside = useMemo(() => (column ? topsBeside(objects, column).length : 0), [objects, column]);
  const orderRocks = () => {
    if (column) return select(column.id);
    const made = columnOfTops(objects);
    void edit('Make the stratigraphic column', [], [made]).then(() => select(made.id));
  };
  return (
    <div className={css.strip} role="toolbar" aria-label="Logs">
      <Select
        label="Depth"
        value={desk.depth}
        options={DEPTHS.map((d) => ({ value: d, label: d }))}
        onChange={(v) => changeLogs({ depth: v as DepthKind, window: null })}
      />
      <span className={css.chooser}>
        <Select
          label="Hang on"
          value={desk.hang ?? ''}
          options={[
            { value: '', label: 'true elevation' },
            ...topNames.map((t) => ({ value: t, label: `hung on ${t}` })),
          ]}
          onChange={(v) => changeLogs({ hang: v || null, window: null })}
        />
      </span>
      {!inTime && (
        <Select
          label="Scale"
          value={String(SCALES.find((s) => Math.abs(s / scale - 1) < 0.02) ?? '')}
          options={[
            { value: '', label: `1 : ${Math.round(scale)}` },
            ...SCALES.map((s) => ({ value: String(s), label: `1 : ${s}` })),
          ]}
          onChange={(v) => v && props.onScale(Number(v))}
        />
      )}
      <button type="button" className={css.tool} onClick={() => changeLogs({ window: null })}>
        Fit
      </button>
      <button
        type="button"
        className={css.tool}
        aria-pressed={desk.spaced}
        onClick={() => changeLogs({ spaced: !desk.spaced })}
      >
        True spacing
      </button>
      <button
        type="button"
        className={css.tool}
        aria-pressed={desk.zones}
        onClick={() => changeLogs({ zones: !desk.zones })}
      >
        Zones
      </button>
      <button type="button" className={css.tool} onClick={() => onTracks()}>
        Tracks…
      </button>
      <button
        type="button"
        className={css.tool}
        aria-pressed={mode === 'pick'}
        onClick={() => {
          setMode(mode === 'pick' ? 'look' : 'pick');
          setTopName(topName || topNames[0] || 'New top');
        }}
      >
        Pick tops
      </button>
      {mode === 'pick' && (
        <>
          <input
            value={topName}
            aria-label="Top to pick"
            list="top-names"
            onChange={(e) => setTopName(e.target.value)}
          />
          <datalist id="top-names">
            {topNames.map((t) => (
              <option key={t} value={t} />
            ))}
          </datalist>
        </>
      )}
      <button
        type="button"
        className={css.tool}
        onClick={onCarry}
        title="Propose the tops of trusted wells (starred) in the others"
      >
        Correlate tops
      </button>
      <button
        type="button"
        className={css.tool}
        aria-pressed={mode === 'paint'}
        onClick={() => {
          setMode(mode === 'paint' ? 'look' : 'paint');
          setFacies(facies || faciesNames[0] || 'Sand');
        }}
      >
        Paint facies
      </button>
      {mode === 'paint' && (
        <>
          <i className={css.swatch} style={{ background: faciesColor(facies, faciesNames) }} />
          <input
            value={facies}
            aria-label="Facies to paint"
            list="facies-names"
            onChange={(e) => setFacies(e.target.value)}
            placeholder="empty erases"
          />
          <datalist id="facies-names">
            {faciesNames.map((t) => (
              <option key={t} value={t} />
            ))}
          </datalist>
        </>
      )}
      {topNames.length > 0 && (
        <button
          type="button"
          className={css.tool}
          onClick={orderRocks}
          title={beside > 0 ? `The column lacks ${beside} of the wells’ tops` : 'The stratigraphic column'}
        >
          Order the rocks
          {beside > 0 && ` (${beside} new)`}
        </button>
      )}
      {inTime && (
        <Select
          label="Seismic between wells"
          value={desk.seismic ?? ''}
          options={[
            { value: '', label: 'no seismic' },
            ...objects.flatMap((o) =>
              o.kind === 'volume' && o.domain === 'twt' && o.quantity === 'amplitude'
                ? [{ value: o.id, label: o.name }]
                : [],
            ),
          ]}
          onChange={(v) => changeLogs({ seismic: v || null })}
        />
      )}
      <span className={css.chooser}>
        <Select
          label="Add a well"
          value=""
          options={[
            { value: '', label: 'add a well' },
            ...wells.filter((w) => !ids.includes(w.id)).map((w) => ({ value: w.id, label: w.name })),
          ]}
          onChange={(v) => v && changeLogs({ wells: withWell(ids, wells, v) })}
        />
      </span>
      <button
        type="button"
        className={css.tool}
        onClick={() => {
          changeLogs({ wells: [] });
          takeTool({ kind: 'wells' });
          openView('map');
        }}
      >
        On the map
      </button>
    </div>
  );
}
