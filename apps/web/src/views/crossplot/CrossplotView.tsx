import { curvesOf, FACIES, type PlotRequest, topNames, type Volume, type Well } from '@lithagon/core';
import { useMemo } from 'react';
import type { PlotDesk } from '../../state/plotDesk';
import { useProject } from '../../state/project';
import { useSettings } from '../../state/views';
import { Select } from '../../ui/Field';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import view from '../common/view.module.css';
import css from './Crossplot.module.css';
import { Plot } from './Plot';
import { usePlotFacts } from './usePlot';
import { VolumeZone } from './VolumeZone';
import { usualZone, zoneHorizons } from './zone';

/** Two quantities against each other, a third as colour; points drawn round light up in the other views. */
export function CrossplotView() {
  const objects = useProject((s) => s.objects);
  const [desk, change] = useSettings('crossplot');
  const wells = useMemo(() => objects.filter((o): o is Well => o.kind === 'well'), [objects]);
  const curves = useMemo(
    () => [...new Set(wells.flatMap((w) => [...curvesOf(objects, w.name).keys()]))].sort(),
    [objects, wells],
  );
  const tops = useMemo(
    () =>
      topNames(
        objects,
        wells.map((w) => w.name),
      ),
    [objects, wells],
  );
  const grids = objects.filter((o) => o.kind === 'map' || o.kind === 'horizon');
  const volumes = objects.filter((o): o is Volume => o.kind === 'volume');
  const areas = objects.filter((o) => o.kind === 'polygon' && o.closed);
  const options =
    desk.from === 'logs'
      ? curves.map((c) => ({ value: c, label: c }))
      : (desk.from === 'maps' ? grids : volumes).map((o) => ({ value: o.id, label: o.name }));
  const valid = (of: string | null) => of !== null && options.some((o) => o.value === of);
  const request = useMemo<PlotRequest | null>(
    () => {
      // ranges of limits move without points being gathered anew
      const { limits, ...rest } = desk;
      return valid(desk.x.of) && valid(desk.y.of)
        ? {
            ...rest,
            more: limits.filter(({ of }) => valid(of)).map(({ of }) => of),
            color: valid(desk.color) || desk.color === FACIES ? desk.color : null,
            wells: desk.wells ?? wells.map((w) => w.id),
          }
        : null;
    },
    // biome-ignore lint/correctness/useExhaustiveDependencies: what is valid follows from the objects
    [desk, wells, valid],
  );
  const { facts, of, problem, gathering } = usePlotFacts(request);
  const label = (id: string) => objects.find((o) => o.id === id)?.name ?? id;
  const along = objects.find((o): o is Volume => o.id === desk.x.of && o.kind === 'volume');
  const horizons = zoneHorizons(objects, along);
  const from = (kind: PlotDesk['from']) => {
    const list = kind === 'logs' ? curves : (kind === 'maps' ? grids : volumes).map((o) => o.id);
    change({
      from: kind,
      x: { of: kind === 'logs' ? 'sonic' : (list[0] ?? ''), log: false },
      y: { of: kind === 'logs' ? 'density' : (list[1] ?? list[0] ?? ''), log: false },
      color: kind === 'logs' ? 'gamma ray' : null,
      limits: [],
      ...(kind === 'volumes' ? usualZone(objects, volumes[0]) : { top: '', base: '' }),
    });
  };
  return (
    <ViewFrame
      subtitle={[
        request && of && `${label(of.x.of)} against ${label(of.y.of)}`,
        request && facts && `${facts.count.toLocaleString('en').replace(/,/g, '\u202f')} points`,
        gathering && 'gathering …',
      ]
        .filter(Boolean)
        .join(' · ')}
      menu={
        <>
          <label className={view.menuField}>
            <input type="checkbox" checked={desk.fit} onChange={(e) => change({ fit: e.target.checked })} />
            regression
          </label>
          {desk.from === 'logs' && (
            <label className={view.menuField}>
              <input type="checkbox" checked={desk.trends} onChange={(e) => change({ trends: e.target.checked })} />
              trends
            </label>
          )}
          {desk.from !== 'logs' && (
            <span className={view.menuField}>
              Inside
              <Select
                label="Inside"
                value={desk.area ?? ''}
                options={[
                  { value: '', label: 'everywhere' },
                  ...areas.map((a) => ({ value: a.id, label: `inside ${a.name}` })),
                ]}
                onChange={(v) => change({ area: v || null })}
              />
            </span>
          )}
        </>
      }
      notShown={(facts?.notes ?? []).map((n) => ({ name: n.split(' ')[0], why: n.slice(n.indexOf(' ') + 1) }))}
    >
      <div className={css.whole}>
        <div className={css.strip} role="toolbar" aria-label="Crossplot">
          <Select
            label="Points from"
            value={desk.from}
            options={[
              { value: 'logs', label: 'Logs' },
              { value: 'maps', label: 'Maps' },
              { value: 'volumes', label: 'Volumes' },
            ]}
            onChange={(v) => from(v as PlotDesk['from'])}
          />
          {(['x', 'y'] as const).map((axis) => (
            <span key={axis} className={css.axis}>
              {axis === 'x' ? 'across' : 'up'}
              <Select
                label={axis === 'x' ? 'Across' : 'Up'}
                value={desk[axis].of}
                options={options}
                onChange={(v) => change({ [axis]: { of: v, log: v === 'resistivity' } })}
              />
              <label>
                <input
                  type="checkbox"
                  checked={desk[axis].log}
                  onChange={(e) => change({ [axis]: { ...desk[axis], log: e.target.checked } })}
                />
                log
              </label>
            </span>
          ))}
          <span className={css.axis}>
            colour
            <Select
              label="Colour"
              value={desk.color ?? ''}
              options={[
                { value: '', label: 'number of points' },
                ...(desk.from === 'logs' ? [{ value: FACIES, label: 'facies' }] : []),
                ...options,
              ]}
              onChange={(v) => change({ color: v || null })}
            />
          </span>
          {desk.from === 'logs' && (
            <>
              <Select
                label="Well"
                value={desk.wells?.[0] ?? ''}
                options={[{ value: '', label: 'all wells' }, ...wells.map((w) => ({ value: w.id, label: w.name }))]}
                onChange={(v) => change({ wells: v ? [v] : null })}
              />
              <span className={css.axis}>
                from
                <Select
                  label="From top"
                  value={desk.top}
                  options={[{ value: '', label: 'first sample' }, ...tops.map((t) => ({ value: t, label: t }))]}
                  onChange={(v) => change({ top: v })}
                />
                to
                <Select
                  label="To top"
                  value={desk.base}
                  options={[{ value: '', label: 'last sample' }, ...tops.map((t) => ({ value: t, label: t }))]}
                  onChange={(v) => change({ base: v })}
                />
              </span>
            </>
          )}
          {desk.from === 'volumes' && along && (
            <VolumeZone desk={desk} along={along} horizons={horizons} onChange={change} />
          )}
          {desk.limits.length < 2 && (
            <Select
              label="Limit by"
              value=""
              options={[
                { value: '', label: 'limit by …' },
                ...options.filter((o) => ![desk.x.of, desk.y.of, ...desk.limits.map((l) => l.of)].includes(o.value)),
              ]}
              onChange={(v) => v && change({ limits: [...desk.limits, { of: v, range: null }] })}
            />
          )}
        </div>
        {!request && (
          <EmptyView title="A crossplot shows one quantity against another.">
            <span>
              {options.length < 2
                ? 'There are not two of these yet: load logs, or make maps or volumes.'
                : 'Choose what goes across and up.'}
            </span>
          </EmptyView>
        )}
        {request && problem && <EmptyView title={problem} />}
        {request && !facts && !problem && <p className={css.gathering}>Gathering points …</p>}
        {request && facts && of && !problem && (
          <Plot
            key={`${of.from}${of.x.of}${of.x.log}${of.y.of}${of.y.log}`}
            facts={facts}
            // points keep the names of what they were gathered of until the next ones are here
            desk={{ ...desk, ...of }}
            labels={[label(of.x.of), label(of.y.of), label(of.color ?? '')]}
            limits={(of.more ?? []).map((id) => ({
              of: id,
              name: label(id),
              range: desk.limits.find((l) => l.of === id)?.range ?? null,
            }))}
            onLimits={(limits) => change({ limits })}
          />
        )}
      </div>
    </ViewFrame>
  );
}
