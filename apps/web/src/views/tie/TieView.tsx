import type { Tie, TieParams, TimeDepthRelation } from '@lithagon/core';
import { stepOf } from '@lithagon/core';
import { useEffect, useMemo, useState } from 'react';
import { lacks, prepareNamed } from '../../actions/steps';
import { useProject } from '../../state/project';
import { Button } from '../../ui/Button';
import { useSize } from '../common/hooks';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import { MatchPlot } from './MatchPlot';
import { Scores } from './Scores';
import css from './Tie.module.css';
import { ShiftMap, TieTable } from './TieTable';
import { Tracks } from './Tracks';
import { useTie, useTieRequest } from './useTie';
import { WaveletPlot } from './WaveletPlot';

/** A well and the seismic side by side: every link of the chain from the logs to the match, live. */
export function TieView() {
  const request = useTieRequest();
  const byId = useProject((s) => s.byId);
  const objects = useProject((s) => s.objects);
  const { tie, problem } = useTie(request);
  if (!request) {
    const step = stepOf('tie.well');
    const missing = step ? lacks(step, objects) : null;
    return (
      <ViewFrame subtitle="" notShown={[]}>
        <EmptyView title="A tie matches a well’s synthetic to the seismic along its path.">
          {missing ? (
            <span>It needs {missing}.</span>
          ) : (
            <Button onClick={() => prepareNamed('tie.well')}>Tie a well</Button>
          )}
          {missing?.startsWith('wavelet') && (
            <Button onClick={() => prepareNamed('tie.wavelet')}>Make a wavelet</Button>
          )}
        </EmptyView>
      </ViewFrame>
    );
  }
  const wellName = byId.get(request.well)?.name;
  const others = objects.filter(
    (o): o is TimeDepthRelation => o.kind === 'time-depth relation' && o.well === wellName && o.id !== request.relation,
  );
  const name = (id: string) => byId.get(id)?.name ?? '';
  return (
    <ViewFrame
      subtitle={
        <>
          <em>{name(request.well)}</em> · {name(request.seismic)} · {name(request.wavelet)}
          {request.draft ? ' · draft' : ' · accepted'}
        </>
      }
      notShown={[]}
    >
      {problem && (
        <EmptyView title={problem.message}>
          <span>{problem.fix ?? 'Choose other inputs in the Sheet.'}</span>
        </EmptyView>
      )}
      {tie && !problem && <Chain tie={tie} draft={request.draft} params={request.params} others={others} />}
      {!tie && !problem && <EmptyView title="Reading logs and seismic…" />}
    </ViewFrame>
  );
}

function Chain(props: { tie: Tie; draft: boolean; params: TieParams; others: TimeDepthRelation[] }) {
  const { tie, draft, params, others } = props;
  const [ref, element, size] = useSize<HTMLDivElement>();
  const whole = useMemo((): [number, number] => {
    const [from, to] = tie.windowMs;
    return [from - 90, to + 90];
  }, [tie.windowMs]);
  const [kept, setKept] = useState<[number, number] | null>(null);
  const window = kept ?? whole;
  useEffect(() => {
    if (!element) return;
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const [a, b] = window;
      const first = tie.chain.elastic.firstMs;
      const last = first + tie.chain.elastic.impedance.length * tie.chain.elastic.stepMs;
      if (event.ctrlKey) {
        const rect = element.getBoundingClientRect();
        const at = a + ((event.clientY - rect.top) / rect.height) * (b - a);
        const f = Math.exp(event.deltaY * 0.0025);
        const next: [number, number] = [at + (a - at) * f, at + (b - at) * f];
        if (next[1] - next[0] > 60 && next[1] - next[0] < 2500) setKept(next);
        return;
      }
      const by = Math.sign(event.deltaY) * (b - a) * 0.08;
      if (a + by > first - 200 && b + by < last + 200) setKept([a + by, b + by]);
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  });
  return (
    <div className={css.whole}>
      <div ref={ref} className={css.tracks} onDoubleClick={() => setKept(null)}>
        {size.width > 200 && (
          <Tracks
            tie={tie}
            window={window}
            size={size}
            draft={draft}
            moved={params.knees}
            pins={params.stretch === 'pins' ? params.pins : []}
            bound={params.mostChange / 100}
            others={others}
          />
        )}
      </div>
      <div className={`${css.strip} ${draft ? '' : css.accepted}`}>
        {!draft && <TieTable />}
        {!draft && <ShiftMap />}
        <MatchPlot tie={tie} draft={draft} />
        <WaveletPlot wavelet={tie.chain.wavelet} />
        <Scores tie={tie} />
      </div>
    </div>
  );
}
