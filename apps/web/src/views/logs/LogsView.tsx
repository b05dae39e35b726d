import { columnOfTops, stepOf, stratigraphyOf, type Well } from '@lithagon/core';
import { Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { initialParams } from '../../actions/initial';
import { openView } from '../../state/dock';
import { useProject } from '../../state/project';
import { takeTool } from '../../state/tool';
import { useUnits } from '../../state/units';
import { useSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { download } from '../../ui/download';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import { CarryPanel } from './CarryPanel';
import { changeLogs } from './changeLogs';
import { useColumns } from './columns';
import { HeadTools } from './HeadTools';
import css from './Logs.module.css';
import { LogsTools } from './LogsTools';
import { layOut, wholeWindow } from './layout';
import { faciesColor } from './marks';
import { LitUp, NeighbourCurve, ProposalLine, Stroke, TopLine } from './Overlays';
import { printPanel } from './print';
import { SeismicBetween } from './SeismicBetween';
import { nearestScale, PIXEL_M } from './scale';
import { TopStrip } from './TopStrip';
import { TracksSheet } from './TracksSheet';
import { useCarry } from './useCarry';
import { useHands } from './useHands';
import { usePanelPaint } from './usePanelPaint';

/** Wells side by side: tracks on one scale of depth, with tops, zones and facies that are worked on by hand. */
export function LogsView() {
  const objects = useProject((s) => s.objects);
  const [desk] = useSettings('logs');
  const wells = useMemo(() => objects.filter((o): o is Well => o.kind === 'well'), [objects]);
  const shown = useMemo(() => desk.wells.filter((id) => wells.some((w) => w.id === id)), [desk.wells, wells]);
  if (wells.length === 0)
    return (
      <ViewFrame subtitle="" notShown={[]}>
        <EmptyView title="Logs stand side by side here, well by well.">
          <span>Load well heads and LAS files first: drop them anywhere.</span>
        </EmptyView>
      </ViewFrame>
    );
  if (shown.length === 0)
    return (
      <ViewFrame subtitle="" notShown={[]}>
        <EmptyView title="Choose the wells that stand side by side.">
          <span>Click them on the map in the order of the line, or take all from west to east.</span>
          <Button
            onClick={() => {
              takeTool({ kind: 'wells' });
              openView('map');
            }}
          >
            Choose on the map
          </Button>
          <Button onClick={() => changeLogs({ wells: [...wells].sort((a, b) => a.x - b.x).map((w) => w.id) })}>
            Take all, west to east
          </Button>
        </EmptyView>
      </ViewFrame>
    );
  return <Panels ids={shown} wells={wells} />;
}

function Panels({ ids, wells }: { ids: string[]; wells: Well[] }) {
  const objects = useProject((s) => s.objects);
  const [desk] = useSettings('logs');
  const units = useUnits();
  const wanted = useMemo(() => [...new Set(desk.tracks.flatMap((t) => t.curves))], [desk.tracks]);
  const columns = useColumns(ids, wanted, desk.depth);
  // until somebody orders them, zones are drawn by the mean depths of their tops
  const stratigraphy = useMemo(() => stratigraphyOf(objects) ?? columnOfTops(objects), [objects]);
  const [ref, element, size] = useSize<HTMLDivElement>();
  const [scroll, setScroll] = useState(0);
  const [trusted, setTrusted] = useState<string[]>([]);
  const [tracksOpen, setTracksOpen] = useState(false);
  const carry = useCarry();

  const whole = useMemo(() => wholeWindow(columns, desk.hang), [columns, desk.hang]);
  const window = desk.window ?? whole;
  const spacing = useMemo(
    () =>
      columns
        .slice(0, -1)
        .map((c, n) => Math.hypot(columns[n + 1].well.x - c.well.x, columns[n + 1].well.y - c.well.y)),
    [columns],
  );
  const panel = useMemo(
    () => layOut(columns, desk, size, window, spacing, scroll),
    [columns, desk, size, window, spacing, scroll],
  );
  const faciesNames = useMemo(
    () => [...new Set(objects.flatMap((o) => (o.kind === 'facies' ? o.rows.map((r) => String(r[2])) : [])))].sort(),
    [objects],
  );
  const topNames = useMemo(() => [...new Set(columns.flatMap((c) => c.tops.map((t) => t.name)))], [columns]);
  const inTime = desk.depth === 'TWT';
  const shownUnit = inTime ? 'ms' : units.of('m');

  const canvas = usePanelPaint(panel, size, objects, stratigraphy, faciesNames);
  const hands = useHands({ element, size, panel, columns, objects, window, whole, carry, setScroll });
  const { drag, stroke } = hands;

  const perPixel = (window[1] - window[0]) / panel.height;
  const scale = perPixel / PIXEL_M;
  const setScale = (n: number) => {
    const half = (n * PIXEL_M * panel.height) / 2;
    const middle = (window[0] + window[1]) / 2;
    changeLogs({ window: [middle - half, middle + half] });
  };
  const notHung = panel.wells
    .filter((w) => !w.hangs)
    .map((w) => ({ name: w.column.well.name, why: `has no ${desk.hang} to hang on${inTime ? ', or no times' : ''}` }));
  const noTime = inTime
    ? columns
        .filter((c) => Number.isNaN(c.axisAt(c.last * 0.8)))
        .map((c) => ({ name: c.well.name, why: 'has neither a tie nor checkshots, so its depths have no times' }))
    : [];
  const swap = (n: number, by: number) => {
    const next = [...ids];
    [next[n], next[n + by]] = [next[n + by], next[n]];
    changeLogs({ wells: next });
  };
  const startCarry = () => {
    const step = stepOf('wells.carry');
    if (!step) return;
    const stars =
      trusted.length > 0
        ? trusted
        : ids.filter((id) => columns.some((c) => c.well.id === id && c.tops.length > 0)).slice(0, 1);
    setTrusted(stars);
    void carry.propose({
      trusted: stars,
      wells: ids.filter((id) => !stars.includes(id)),
      params: carry.state?.asked.params ?? initialParams(step, objects),
    });
  };

  return (
    <ViewFrame
      subtitle={
        <>
          <em>{columns.map((c) => c.well.name).join(' – ')}</em> · {desk.depth} ({shownUnit})
          {desk.hang ? `, hung on ${desk.hang}` : ''}
        </>
      }
      summary={`${columns.map((c) => c.well.name).join(' – ')}, ${desk.depth}`}
      notShown={[...notHung, ...noTime]}
      tools={
        <button
          type="button"
          className={css.tool}
          onClick={() =>
            download(
              'logs.svg',
              printPanel(
                columns,
                desk,
                stratigraphy,
                objects,
                units,
                faciesNames,
                window,
                spacing,
                nearestScale(scale),
              ),
            )
          }
          title="An SVG on paper at this scale"
        >
          <Printer size={12} aria-hidden="true" /> Print to scale
        </button>
      }
    >
      <div className={css.whole}>
        <LogsTools
          ids={ids}
          wells={wells}
          objects={objects}
          topNames={topNames}
          faciesNames={faciesNames}
          hands={hands}
          scale={scale}
          onScale={setScale}
          onTracks={() => setTracksOpen(true)}
          onCarry={startCarry}
        />
        <div
          ref={ref}
          className={css.panel}
          role="application"
          aria-label="Logs of wells side by side"
          // biome-ignore lint/a11y/noNoninteractiveTabindex: tops are moved and the panel is scrolled by keys here
          tabIndex={0}
          style={{ cursor: hands.mode === 'look' ? 'default' : 'crosshair' }}
          {...hands.on}
        >
          {inTime && desk.seismic && <SeismicBetween panel={panel} volume={desk.seismic} window={window} />}
          <canvas
            ref={canvas}
            data-testid="logs-canvas"
            style={{ width: size.width, height: size.height, pointerEvents: 'none' }}
          />
          <svg
            width={size.width}
            height={size.height}
            style={{ pointerEvents: 'none' }}
            className={css.tops}
            aria-hidden="true"
          >
            {panel.wells.flatMap((well) =>
              well.hangs
                ? well.column.tops.map((top) => (
                    <TopLine
                      key={`${well.column.well.id} ${top.name} ${top.md}`}
                      well={well}
                      top={top}
                      panel={panel}
                      chosen={hands.chosen?.well === well.column.well.name && hands.chosenTop === top}
                      onDown={(e) => hands.grip(e, well.column.well.name, top)}
                    />
                  ))
                : [],
            )}
            {carry.state?.proposals.map((p) => {
              const well = panel.wells.find((w) => w.column.well.name === p.well);
              if (!well?.hangs) return null;
              const top = { name: p.name, md: p.md, confidence: null, kind: 'top' as const, missingM: null, how: '' };
              return (
                <ProposalLine
                  key={`${p.well} ${p.name}`}
                  well={well}
                  proposal={p}
                  md={drag?.proposal === p ? drag.md : p.md}
                  onDown={(e) => hands.grip(e, p.well, top, p)}
                />
              );
            })}
            <LitUp panel={panel} />
            {drag && <NeighbourCurve drag={drag} panel={panel} desk={desk} />}
            {stroke && <Stroke stroke={stroke} panel={panel} color={faciesColor(hands.facies, faciesNames)} />}
          </svg>
          {panel.wells.map((well, n) => {
            const { id } = well.column.well;
            return (
              <HeadTools
                key={id}
                well={well}
                first={n === 0}
                last={n === panel.wells.length - 1}
                trusted={trusted.includes(id)}
                onTrust={() => setTrusted((t) => (t.includes(id) ? t.filter((each) => each !== id) : [...t, id]))}
                onMove={(by) => swap(n, by)}
                onRemove={() => changeLogs({ wells: ids.filter((each) => each !== id) })}
              />
            );
          })}
        </div>
        {hands.chosen && hands.chosenTop && (
          <TopStrip well={hands.chosen.well} top={hands.chosenTop} onDone={hands.letGo} />
        )}
        {carry.state && (
          <CarryPanel
            state={carry.state}
            onAccept={(some) => void carry.accept(some)}
            onRefuse={carry.refuse}
            onAgain={(params) => carry.state && void carry.propose({ ...carry.state.asked, params })}
            onClose={carry.close}
          />
        )}
      </div>
      <TracksSheet open={tracksOpen} onClose={() => setTracksOpen(false)} columns={columns} />
    </ViewFrame>
  );
}
