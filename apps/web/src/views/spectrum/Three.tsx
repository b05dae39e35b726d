import type { Horizon, QuantityMap, Volume } from '@lithagon/core';
import { blendOfThree, volumesOfThree } from '../../actions/blendOfThree';
import { useProject } from '../../state/project';
import type { Settings } from '../../state/views';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import { specOfBand } from './bands';
import css from './Spectrum.module.css';

/** Three frequencies of a spectrum, to be mapped on the horizon and blended. */
export function Three(props: {
  three: [number, number, number];
  from: 'peaks' | 'equal parts' | 'you';
  settings: Settings['spectrum'];
  volume: Volume;
  horizon: Horizon | null;
  onReset(): void;
  onShade(shade: string): void;
}) {
  const { three, from, settings, volume, horizon, onReset, onShade } = props;
  const maps = useProject((s) => s.objects).filter((o): o is QuantityMap => o.kind === 'map');
  const { spec } = specOfBand(settings.method, settings.band ?? [three[1] * 0.75, three[1] * 1.25]);
  return (
    <div className={css.foot}>
      <span
        title={
          from === 'peaks' ? 'The highest peaks that are far enough apart' : 'The middles of equal parts of the power'
        }
      >
        <b className="num">{three.map((f) => f.toFixed(1)).join(' · ')} Hz</b>{' '}
        {from === 'you' && (
          <button type="button" className={css.plain} onClick={onReset}>
            as offered
          </button>
        )}
      </span>
      <Select
        label="Shade of the blend"
        value={settings.shade}
        options={[
          { value: 'none', label: 'no shade' },
          { value: 'semblance', label: 'shade: least semblance' },
          ...maps.map((m) => ({ value: m.id, label: `shade: ${m.name}` })),
        ]}
        onChange={onShade}
      />
      <Button
        title="Magnitudes at the three as volumes that need no room, for crossplots, bodies and sections"
        onClick={() => void volumesOfThree({ seismic: volume, three, spec })}
      >
        As volumes
      </Button>
      <Button
        main
        disabled={!horizon}
        title={
          horizon
            ? 'Maps of the three on the horizon, as red, green and blue'
            : 'Choose “around a horizon” first: the blend lies on it'
        }
        onClick={() =>
          horizon &&
          void blendOfThree({
            seismic: volume,
            horizon,
            three,
            spec,
            above: settings.above,
            below: settings.below,
            shade: settings.shade,
          })
        }
      >
        Blend
      </Button>
    </div>
  );
}
