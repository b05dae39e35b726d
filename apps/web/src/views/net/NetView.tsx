import { askedInputs, type Fault, kambDensity, madeTogether } from '@lithagon/core';
import { useMemo } from 'react';
import { runQuietly } from '../../actions/steps';
import { pebble } from '../../color/maps';
import { useFaultFilter } from '../../state/faultFilter';
import { useProject } from '../../state/project';
import { select, useSelection } from '../../state/selection';
import { useSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { Segmented } from '../../ui/Segmented';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import view from '../common/view.module.css';
import { type Circle, Disc } from './Disc';
import css from './Net.module.css';
import { latestSets, planeText, polesOf, UNSORTED } from './poles';
import { Rose } from './Rose';
import { Spread } from './Spread';

/** Strike and dip of all faults: poles on an equal-area net, their density, a rose, the sets they fall into; what is shut here is hidden everywhere. */
export function NetView() {
  const objects = useProject((s) => s.objects);
  const filter = useFaultFilter();
  const selected = useSelection((s) => s.object);
  const [settings, change] = useSettings('net');
  const faults = useMemo(() => objects.filter((o): o is Fault => o.kind === 'fault'), [objects]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is hidden follows from the filter
  const poles = useMemo(
    () => polesOf(faults, objects, settings.velocity),
    [faults, objects, settings.velocity, filter],
  );
  const shown = useMemo(() => poles.filter((p) => !p.hidden), [poles]);
  const kamb = useMemo(
    () =>
      settings.density
        ? kambDensity(
            shown,
            shown.map((p) => p.areaM2),
          )
        : null,
    [shown, settings.density],
  );
  const sets = latestSets(objects);
  const [ref, , size] = useSize<HTMLDivElement>();
  if (poles.length === 0)
    return (
      <ViewFrame subtitle="" notShown={[]}>
        <EmptyView title="The net shows how faults strike and dip.">
          <span>
            Draw sticks of a fault on two sections, or find faults in the seismic: Fault strength in the Interpret bed.
          </span>
        </EmptyView>
      </ViewFrame>
    );
  const run = (params: Record<string, unknown>, inputs = shown.map((p) => p.fault.id)) =>
    void runQuietly({
      step: 'interpret.faultSets',
      inputs: { faults: inputs },
      params,
      ...(sets ? { replaces: madeTogether(objects, sets) } : { name: 'Fault sets' }),
    });
  const circles =
    (sets?.madeBy.params.way === 'drawn on the net' ? (sets.madeBy.params.circles as Circle[]) : []) ?? [];
  const draw = (circle: Circle) =>
    run(
      { way: 'drawn on the net', circles: [...circles, circle] },
      circles.length > 0 && sets ? askedInputs(sets).faults : undefined,
    );
  const found = faults.flatMap((f) => (f.found ? [f.found] : []));
  const disc = Math.max(170, Math.min(size.height - 20, size.width - 242, 460));
  const inNone = poles.filter((p) => p.set < 0).length;
  return (
    <ViewFrame
      subtitle={`${shown.length} of ${poles.length} faults · lower hemisphere, equal areas`}
      notShown={[]}
      menu={
        <label className={view.menuField}>
          velocity
          <input
            type="number"
            aria-label="velocity, m/s"
            title="Turns the time of faults that were not found in a volume into depth"
            value={settings.velocity}
            onChange={(e) => {
              const v = e.target.valueAsNumber;
              if (v >= 300 && v <= 8000) change({ velocity: v });
            }}
          />
          m/s
        </label>
      }
      tools={
        <Segmented
          label="Density"
          value={settings.density ? 'density' : 'poles'}
          options={[
            { value: 'density', label: 'Density' },
            { value: 'poles', label: 'Poles alone' },
          ]}
          onChange={(v) => change({ density: v === 'density' })}
        />
      }
    >
      <div className={css.whole} ref={ref}>
        <div>
          <Disc
            size={disc}
            poles={poles}
            kamb={kamb}
            middles={(sets?.sets ?? []).map((s, n) => ({ ...s, color: pebble(n) }))}
            selected={selected}
            onSelect={select}
            onCircle={draw}
          />
          <Rose poles={poles} size={Math.max(130, Math.min(230, size.height - disc - 24))} />
        </div>
        <div className={css.side}>
          <div className={css.row}>
            <Button main={!sets} onClick={() => run({})}>
              Find sets
            </Button>
            {circles.length > 0 && (
              <Button
                onClick={() => run({ way: 'drawn on the net', circles: circles.slice(0, -1) }, undefined)}
                disabled={circles.length < 2}
              >
                Take back the last circle
              </Button>
            )}
          </div>
          {sets ? (
            <ul className={css.sets} aria-label="Sets">
              {sets.sets.map((s, n) => (
                <li key={s.name}>
                  <label title={planeText(s)}>
                    <input
                      type="checkbox"
                      checked={!filter.shut.includes(s.name)}
                      onChange={(e) =>
                        useFaultFilter.setState({
                          shut: e.target.checked ? filter.shut.filter((f) => f !== s.name) : [...filter.shut, s.name],
                        })
                      }
                    />
                    <i style={{ background: pebble(n) }} />
                    {s.name}
                    <span>
                      {sets.members.filter((m) => m.set === n).length} · {Math.round((s.azimuth + 270) % 360)}°/
                      {Math.round(s.dip)}°
                    </span>
                  </label>
                </li>
              ))}
              {inNone > 0 && (
                <li className={css.none}>
                  <i style={{ background: UNSORTED }} />
                  in no set <span>{inNone}</span>
                </li>
              )}
            </ul>
          ) : (
            <span className={css.small}>Drag a circle over poles to make a set of them.</span>
          )}
          {found.length > 1 && (
            <>
              <Spread
                label="Area"
                unit="km²"
                values={found.map((f) => f.areaM2 / 1e6)}
                at={filter.leastM2 / 1e6}
                onMove={(v) => useFaultFilter.setState({ leastM2: v * 1e6 })}
              />
              <Spread
                label="Strength"
                unit=""
                values={found.map((f) => f.strength)}
                at={filter.leastStrength}
                onMove={(v) => useFaultFilter.setState({ leastStrength: v })}
              />
            </>
          )}
        </div>
      </div>
    </ViewFrame>
  );
}
