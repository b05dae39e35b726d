import { stepOf } from '@lithagon/core';
import { prepare, runQuietly } from '../../actions/steps';
import { tryVelocity, useConversion } from '../../state/conversion';
import { useProject } from '../../state/project';
import { useUnits } from '../../state/units';
import { useSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { Segmented } from '../../ui/Segmented';
import { ConvertedBy } from '../common/Converted';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import { DepthChart, VelocityChart } from './charts';
import { type Source, useHereOnMap, useSources } from './useSources';
import css from './Velocity.module.css';

/** Velocity and depth by time at the cursor: every source beside each other, and the model in use open to be dragged. */
export function VelocityView() {
  const units = useUnits();
  const objects = useProject((s) => s.objects);
  const [settings, change] = useSettings('velocity');
  const here = useHereOnMap();
  const { sources, latest, inUse } = useSources(here);
  const [ref, , size] = useSize<HTMLDivElement>();
  const layers = stepOf('depth.layers');
  const at = here ? `X ${units.text(here.x, 'm', 0)}, Y ${units.text(here.y, 'm', 0)}` : '';
  if (sources.length === 0)
    return (
      <ViewFrame subtitle={at} notShown={[]} links>
        <EmptyView title="Velocity and depth by time, every source beside each other.">
          <span>
            {objects.some((o) => / velocity$/.test('quantity' in o ? o.quantity : '')) || inUse
              ? 'There is no velocity at this place: move the cursor over the survey in a linked view.'
              : 'Load a velocity volume or checkshots, or make a velocity model of layers or wells.'}
          </span>
          {layers && <Button onClick={() => prepare(layers)}>Model velocities…</Button>}
        </EmptyView>
      </ViewFrame>
    );
  return (
    <ViewFrame
      subtitle={at}
      notShown={[]}
      links
      tools={
        <>
          <ConvertedBy />
          <Segmented
            label="How depths are drawn"
            value={settings.less ? 'less' : 'whole'}
            options={[
              { value: 'whole', label: 'Depth' },
              { value: 'less', label: 'Less the model' },
            ]}
            onChange={(value) => change({ less: value === 'less' })}
          />
        </>
      }
    >
      <div className={css.whole}>
        <Legend sources={sources} inUse={inUse} />
        <Trial />
        <div className={css.charts} ref={ref}>
          {size.width > 200 && size.height > 90 && (
            <>
              <VelocityChart
                size={{ width: size.width / 2 - 3, height: size.height }}
                sources={sources}
                inUse={inUse}
                latest={latest}
              />
              <DepthChart
                size={{ width: size.width / 2 - 3, height: size.height }}
                sources={sources}
                inUse={inUse}
                latest={latest}
                less={settings.less}
              />
            </>
          )}
        </div>
      </div>
    </ViewFrame>
  );
}

/** Which line is which: the model in use first. */
function Legend({ sources, inUse }: { sources: Source[]; inUse: string | null }) {
  const units = useUnits();
  return (
    <ul className={css.legend} aria-label="Sources of velocity">
      {sources.map((s) => (
        <li key={s.id}>
          <svg width="20" height="8" aria-hidden="true">
            <path
              d="M0 4h20"
              stroke={s.color}
              strokeWidth={s.id === inUse ? 3 : 1.6}
              strokeDasharray={s.mean ? '4 3' : s.kind === 'well' ? '1.5 2' : undefined}
            />
          </svg>
          <span className={s.id === inUse ? css.inUse : undefined}>{s.name}</span>
          {s.off !== undefined && <span className={css.aside}>{units.text(s.off, 'm', 0)} off</span>}
          {s.mean && <span className={css.aside}>a mean from time 0</span>}
        </li>
      ))}
    </ul>
  );
}

/** What is tried of the model in use, and what to do with it. */
function Trial() {
  const { trial, parts, id, name } = useConversion();
  const objects = useProject((s) => s.objects);
  if (!parts) return null;
  if (!trial)
    return (
      <p className={css.trial}>
        <span>Drag a ring sideways to try another velocity of its layer: sections in depth follow.</span>
      </p>
    );
  const { base } = parts.layers[trial.layer];
  const model = objects.find((o) => o.id === id && o.kind === 'velocity model');
  const keep = async () => {
    const made = await runQuietly({
      step: 'depth.model',
      name: `${name}, ${base ? `down to ${base}` : 'below'} × ${trial.factor.toFixed(3)}`,
      inputs: { models: [id as string] },
      params: { zones: [{ base, from: '', factor: trial.factor }] },
    });
    if (made) useConversion.setState({ chosen: made[0] ?? null });
  };
  return (
    <p className={css.trial} role="status">
      <span>
        {base ? `Down to ${base}` : 'Below all'} × <b className="num">{trial.factor.toFixed(3)}</b>, tried: nothing is
        changed yet.
      </span>
      {model ? (
        <Button onClick={() => void keep()}>Keep as a model</Button>
      ) : (
        <span>Make a model of the volume to keep it.</span>
      )}
      <Button onClick={() => tryVelocity(null)}>Put back</Button>
    </p>
  );
}
