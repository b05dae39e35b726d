import { Slider } from 'radix-ui';
import ui from '../../ui/ui.module.css';
import css from '../common/view.module.css';
import { type Crop, isWhole } from './crop';

const AXES = ['Inlines', 'Crosslines', 'Samples'] as const;

/** Which part of the survey a scene shows. */
export function CropFields({ crop, onChange }: { crop: Crop; onChange(crop: Crop): void }) {
  return (
    <>
      {AXES.map((name, axis) => {
        const [from, to] = [crop[2 * axis], crop[2 * axis + 1]];
        return (
          <div key={name} className={css.menuField}>
            {name}
            <Slider.Root
              className={ui.slider}
              style={{ width: 170 }}
              value={[from, to]}
              min={0}
              max={1}
              step={0.01}
              minStepsBetweenThumbs={2}
              onValueChange={([a, b]) => onChange(crop.with(2 * axis, a).with(2 * axis + 1, b) as Crop)}
            >
              <Slider.Track className={ui.track}>
                <Slider.Range className={ui.range} />
              </Slider.Track>
              <Slider.Thumb className={ui.thumb} aria-label={`${name} from`} />
              <Slider.Thumb className={ui.thumb} aria-label={`${name} to`} />
            </Slider.Root>
          </div>
        );
      })}
      {!isWhole(crop) && (
        <button type="button" className={css.menuAct} onClick={() => onChange([0, 1, 0, 1, 0, 1])}>
          Show the whole survey
        </button>
      )}
    </>
  );
}
