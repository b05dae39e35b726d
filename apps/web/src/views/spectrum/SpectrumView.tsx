import {
  FREQUENCY_METHODS,
  type FrequencyMethod,
  type Horizon,
  SEISMIC_LIKE,
  stepOf,
  threeFrequencies,
  toMap,
  type Volume,
  velocityAt,
} from '@lithagon/core';
import { useMemo } from 'react';
import { initialParams } from '../../actions/initial';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { useSelection } from '../../state/selection';
import { activeOf, usePlace, useSettings } from '../../state/views';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import { useSize } from '../common/hooks';
import { indexAt, shownHorizons, shownVolume } from '../common/survey';
import { EmptyView, ViewFrame } from '../common/ViewFrame';
import view from '../common/view.module.css';
import { type Band, smearText, specOfBand } from './bands';
import { Chart, type ChartBox, endOf } from './Chart';
import { Gather } from './Gather';
import css from './Spectrum.module.css';
import { Three } from './Three';
import { type Asked, useSpectra } from './useSpectra';

/** What stands for a velocity where no well has one, m/s: about that of soft rock, and to be typed over. */
const UNKNOWN_VELOCITY = 2000;

/** Quantities that have frequencies of their own: those that the transforms take. */
const SEISMIC: string[] = SEISMIC_LIKE;

/** Frequencies of what is in view: a line, what lies around a horizon, inside an outline; a band dragged on them is tried at once. */
export function SpectrumView() {
  const objects = useProject((s) => s.objects);
  const desk = useDesk((s) => s.volume);
  const [settings, change] = useSettings('spectrum');
  const section = activeOf('section');
  const [{ along }] = useSettings('section', section);
  const place = usePlace(section);
  const volumes = useMemo(
    () => objects.filter((o): o is Volume => o.kind === 'volume' && o.domain === 'twt' && SEISMIC.includes(o.quantity)),
    [objects],
  );
  const volume = volumes.find((v) => v.id === settings.volume) ?? shownVolume(volumes, settings.volume ?? desk, 'twt');
  const horizons = useMemo(() => shownHorizons(objects, 'twt'), [objects]);
  // the horizon of the map, until another is chosen
  const [{ shows }] = useSettings('map', activeOf('map'));
  const horizon = horizons.find((h) => h.id === (settings.horizon ?? shows)) ?? horizons[0];
  const outlines = objects.filter((o) => o.kind === 'polygon' && o.closed);
  const plane = along === 'crossline' ? 'crossline' : 'inline';
  const times: [number, number] = volume
    ? [volume.vertical.first, volume.vertical.first + volume.vertical.step * (volume.vertical.count - 1)]
    : [0, 0];
  const range = settings.range ?? times;
  const asked: Asked | null = !volume
    ? null
    : settings.scope === 'horizon'
      ? horizon
        ? {
            outline: settings.outline ?? undefined,
            around: { horizon: horizon.id, above: settings.above, below: settings.below },
          }
        : null
      : settings.scope === 'line'
        ? { line: { plane, index: indexAt(volume, plane, place) }, around: { from: range[0], to: range[1] } }
        : { outline: settings.outline ?? undefined, around: { from: range[0], to: range[1] } };
  const { spectra, problem, busy } = useSpectra(volume, asked);
  const middle =
    settings.scope === 'horizon' && horizon ? (horizon.range[0] + horizon.range[1]) / 2 : (range[0] + range[1]) / 2;
  const known = useMemo(() => velocityAt(objects, middle), [objects, middle]);
  const velocity = settings.velocity ?? known?.velocity ?? UNKNOWN_VELOCITY;
  const offered = useMemo(() => (spectra ? threeFrequencies(spectra) : null), [spectra]);
  const three = settings.three ?? offered?.hz ?? [15, 30, 45];
  const [ref, , size] = useSize<HTMLDivElement>();

  const tryBand = (band: Band | null, held = false, method = settings.method) => {
    change({ band });
    // a sheet that opens while the band is held would narrow the axis under the pointer
    const { setup, object } = useSelection.getState();
    const open = (setup !== null && !setup.held) || object !== null;
    if (!band || !volume) {
      // a trial of a band that is gone is gone too
      if (setup?.step.startsWith('attributes.frequency')) useSelection.setState({ setup: null });
      return;
    }
    const { hz, spec } = specOfBand(method, band);
    const step = settings.scope === 'horizon' && horizon ? 'attributes.frequencyMap' : 'attributes.frequency';
    const known = stepOf(step);
    const params = { ...(known && initialParams(known)), gives: 'magnitude', hz, ...spec };
    useSelection.setState({
      object: null,
      setup:
        settings.scope === 'horizon' && horizon
          ? {
              step,
              inputs: { seismic: [volume.id], horizon: [horizon.id], base: [] },
              params: { ...params, taken: 'rms', above: settings.above, below: settings.below },
              live: true,
              held: held && !open,
            }
          : { step, inputs: { seismic: [volume.id] }, params, live: true, held: held && !open },
    });
    if (settings.scope !== 'horizon') useDesk.setState({ volume: volume.id });
  };

  if (!volume)
    return (
      <ViewFrame subtitle="" notShown={[]}>
        <EmptyView title="A spectrum shows the frequencies of seismic in TWT.">
          <span>Load a volume first.</span>
        </EmptyView>
      </ViewFrame>
    );
  const typed = (label: string, value: number, unit: string, onChange: (v: number) => void) => (
    <label>
      {label}
      <input
        className={css.short}
        type="number"
        aria-label={`${label}, ${unit}`}
        value={Math.round(value)}
        onChange={(e) =>
          e.target.value !== '' && Number.isFinite(e.target.valueAsNumber) && onChange(e.target.valueAsNumber)
        }
      />
      {unit}
    </label>
  );
  const { hz, spec } = specOfBand(settings.method, settings.band ?? [three[1] * 0.75, three[1] * 1.25]);
  const chartTall = Math.max(150, Math.round(0.56 * size.height));
  const box: ChartBox = { left: 48, right: 14, width: size.width, height: chartTall };
  const gatherBox: ChartBox = { ...box, height: Math.max(60, size.height - chartTall - 2) };
  const last = spectra ? endOf(spectra) : 100;
  const [i, j] = [indexAt(volume, 'inline', place), indexAt(volume, 'crossline', place)];
  const near: [number, number] =
    settings.scope === 'horizon' && horizon
      ? [Math.max(times[0], horizon.range[0] - 120), Math.min(times[1], horizon.range[1] + 120)]
      : range;
  return (
    <ViewFrame
      subtitle={[
        settings.band ? `${hz} Hz smears ${smearText(spec, hz, velocity)}` : volume.name,
        spectra && !settings.band && `${spectra.traces.toLocaleString('en').replace(/,/g, '\u202f')} traces`,
        busy && 'working …',
      ]
        .filter(Boolean)
        .join(' · ')}
      notShown={[]}
      menu={
        <>
          <span
            className={view.menuField}
            title={known && settings.velocity === null ? `As ${known.wells.join(', ')} have it` : undefined}
          >
            {typed('velocity', velocity, 'm/s', (v) => v >= 300 && v <= 9000 && change({ velocity: v }))}
          </span>
          {settings.scope !== 'line' && outlines.length > 0 && (
            <span className={view.menuField}>
              Inside
              <Select
                label="Inside"
                value={settings.outline ?? ''}
                options={[
                  { value: '', label: 'everywhere' },
                  ...outlines.map((o) => ({ value: o.id, label: `inside ${o.name}` })),
                ]}
                onChange={(v) => change({ outline: v || null, three: null })}
              />
            </span>
          )}
        </>
      }
      tools={
        <Segmented
          label="Amplitudes"
          value={settings.decibels ? 'dB' : 'linear'}
          options={[
            { value: 'linear', label: 'Linear' },
            { value: 'dB', label: 'dB' },
          ]}
          onChange={(v) => change({ decibels: v === 'dB' })}
        />
      }
    >
      <div className={css.whole}>
        <div className={css.strip} role="toolbar" aria-label="Spectrum">
          <Select
            label="Volume"
            value={volume.id}
            options={volumes.map((v) => ({ value: v.id, label: v.name }))}
            onChange={(id) => change({ volume: id, three: null })}
          />
          <Select
            label="Of what"
            value={settings.scope}
            options={[
              { value: 'line', label: `this ${plane}` },
              { value: 'horizon', label: 'around a horizon' },
              { value: 'all', label: 'the whole volume' },
            ]}
            onChange={(scope) => change({ scope: scope as 'line', three: null, band: null })}
          />
          {settings.scope === 'horizon' && horizon && (
            <>
              <Select
                label="Horizon"
                value={horizon.id}
                options={horizons.map((h) => ({ value: h.id, label: h.name }))}
                onChange={(id) => change({ horizon: id, three: null })}
              />
              {typed('from above', settings.above, 'ms', (above) => change({ above }))}
              {typed('to below', settings.below, 'ms', (below) => change({ below }))}
            </>
          )}
          {settings.scope !== 'horizon' && (
            <>
              {typed('from', range[0], 'ms', (v) => change({ range: [v, range[1]] }))}
              {typed('to', range[1], 'ms', (v) => change({ range: [range[0], v] }))}
            </>
          )}
          <Select
            label="Transform"
            value={settings.method}
            options={FREQUENCY_METHODS.map((value) => ({ value, label: value }))}
            onChange={(v) => {
              change({ method: v as FrequencyMethod });
              if (settings.band) tryBand(settings.band, false, v as FrequencyMethod);
            }}
          />
        </div>
        {settings.scope === 'horizon' && !horizon ? (
          <EmptyView title="There is no horizon in TWT yet.">
            <Button onClick={() => change({ scope: 'line' })}>Look at this {plane} instead</Button>
          </EmptyView>
        ) : problem ? (
          <EmptyView title={problem} />
        ) : (
          <div ref={ref} className={css.charts}>
            {spectra && size.width > 60 && (
              <>
                <Chart
                  spectra={spectra}
                  box={box}
                  last={last}
                  velocity={velocity}
                  decibels={settings.decibels}
                  band={settings.band}
                  three={three}
                  onBand={tryBand}
                  onThree={(v) => change({ three: v })}
                />
                <Gather
                  volume={volume}
                  spec={spec}
                  place={toMap(volume.binGrid, i, j)}
                  times={near}
                  velocity={velocity}
                  last={last}
                  box={gatherBox}
                />
              </>
            )}
            {!spectra && <p className={css.gathering}>Working out the spectrum …</p>}
          </div>
        )}
        {spectra && (
          <Three
            three={three}
            from={settings.three ? 'you' : (offered?.from ?? 'peaks')}
            settings={settings}
            volume={volume}
            horizon={settings.scope === 'horizon' ? ((horizon as Horizon | undefined) ?? null) : null}
            onReset={() => change({ three: null })}
            onShade={(shade) => change({ shade })}
          />
        )}
      </div>
    </ViewFrame>
  );
}
