import type { PayParams } from '@lithagon/core';
import type { ReactNode } from 'react';
import { change, prepareNamed } from '../../actions/steps';
import { useProject } from '../../state/project';
import { useSelection } from '../../state/selection';
import { useUnits } from '../../state/units';
import { Button } from '../../ui/Button';
import { Range } from '../../ui/Field';
import type { ChartSize } from '../common/Chart';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import { AtWells, PayMap, Tuning, WedgeChart } from './charts';
import css from './Pay.module.css';
import { scaleOrNot, usePayRequest, usePaySpread, usePayWork } from './usePay';

function Panel({ title, children }: { title: string; children(size: ChartSize): ReactNode }) {
  const [ref, , size] = useSize<HTMLDivElement>();
  return (
    <section className={css.panel} ref={ref} aria-label={title}>
      <h4>{title}</h4>
      {size.width > 80 && size.height > 70 && children(size)}
    </section>
  );
}

/** Net pay at one scale in four charts at once: tuning, wedge, wells and map; moving the scale moves all four. */
export function PayView() {
  const units = useUnits();
  const objects = useProject((s) => s.objects);
  const request = usePayRequest();
  const { found, work, problem } = usePayWork(request);
  const scale = scaleOrNot(work, request?.params);
  const spread = usePaySpread(work, request?.params, scale);
  if (!request)
    return (
      <ViewFrame subtitle="" notShown={[]}>
        <EmptyView title="Net pay of thin beds, from amplitude and apparent thickness.">
          <span>It needs relative impedance, a top and a base; wells with net pay set its scale.</span>
          <Button
            disabled={!objects.some((o) => o.kind === 'volume' && o.quantity === 'relative impedance')}
            onClick={() => prepareNamed('invert.netPay')}
          >
            Set it up
          </Button>
        </EmptyView>
      </ViewFrame>
    );
  const say = (part: Partial<PayParams>) =>
    useSelection.setState((s) => ({ setup: s.setup && { ...s.setup, params: { ...s.setup.params, ...part } } }));
  const move = (value: number) => say({ scaleBy: 'typed', scale: Number(value.toPrecision(5)) });
  const { params, open, of } = request;
  const figure = (v: number) => units.text(v, 'm', 1);
  const own = scale && work && found ? { work, scale, params } : null;
  return (
    <ViewFrame
      subtitle={open ? 'as it is set up in the Sheet' : `${of?.name}`}
      notShown={[]}
      tools={!open && of && <Button onClick={() => change(of)}>Change its settings</Button>}
    >
      <div className={css.whole}>
        <div className={css.bar}>
          {scale && (
            <label>
              Scale
              {open ? (
                <Range
                  label="Scale of net pay"
                  value={Math.log(scale.scale)}
                  min={Math.log(scale.scale) - 1.2}
                  max={Math.log(scale.scale) + 1.2}
                  step={0.01}
                  onChange={(v) => move(Math.exp(v))}
                />
              ) : (
                <span />
              )}
              <output className="num" aria-label="Scale">
                {scale.scale.toPrecision(3)}
              </output>
            </label>
          )}
          {spread && (
            <span className={css.figures}>
              Mean in the area:{' '}
              <span>
                P90 (low) <b className="num">{figure(spread.low)}</b>
              </span>
              <span>
                P50 <b className="num">{figure(spread.middle)}</b>
              </span>
              <span>
                P10 (high) <b className="num">{figure(spread.high)}</b>
              </span>
            </span>
          )}
          {open && params.scaleBy !== 'by wells' && work && work.wells.length > 0 && (
            <Button onClick={() => say({ scaleBy: 'by wells' })}>As the wells have it</Button>
          )}
        </div>
        {problem && <p className={css.problem}>{problem.sentence}</p>}
        {own && found && (
          <>
            <Panel title="Amplitude and tuning">
              {(size) => <Tuning {...own} size={size} onScale={open ? move : null} />}
            </Panel>
            <Panel title="Wedge of the band">{(size) => <WedgeChart {...own} size={size} />}</Panel>
            <Panel title="At wells">{(size) => <AtWells {...own} size={size} />}</Panel>
            <Panel title="Map">{(size) => <PayMap {...own} size={size} binGrid={found.binGrid} />}</Panel>
          </>
        )}
      </div>
    </ViewFrame>
  );
}
