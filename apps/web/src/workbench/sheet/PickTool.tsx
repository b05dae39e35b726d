import { PICK_EVENTS, type Picks } from '@lithagon/core';
import { changePicking } from '../../actions/picking/picks';
import { useProject } from '../../state/project';
import { type PickHow, type PickTool, takeTool } from '../../state/tool';
import { Field, Range, Select } from '../../ui/Field';
import { counted } from '../../ui/format';
import { Segmented } from '../../ui/Segmented';
import css from './Sheet.module.css';

const HELP: Record<PickHow, string> = {
  'free-hand': 'Picks stand where you put them. Click, or draw with the pointer held down.',
  snapped: 'Each pick goes to the event nearest to it. Click, or draw with the pointer held down.',
  followed: 'From click to click the event is followed on every trace, and never through a fault that is shown.',
};

/** How picks are made and taken away. */
export function PickFields({ tool }: { tool: PickTool }) {
  const picks = useProject((s) => (tool.id ? (s.byId.get(tool.id) as Picks | undefined) : undefined));
  return (
    <>
      <Field label="Picks are" help={HELP[tool.how]}>
        {() => (
          <Segmented
            label="How picks are made"
            value={tool.how}
            options={[
              { value: 'free-hand', label: 'Free-hand' },
              { value: 'snapped', label: 'Snapped' },
              { value: 'followed', label: 'Followed' },
            ]}
            onChange={(how) => void changePicking(tool, { how })}
          />
        )}
      </Field>
      {tool.how !== 'free-hand' && (
        <>
          <Field label="Event" help="What of the waveform picks go to; + is harder where the volume says so.">
            {(id) => (
              <Select
                id={id}
                value={tool.event}
                options={PICK_EVENTS.map((v) => ({ value: v, label: v }))}
                onChange={(v) => void changePicking(tool, { event: v as PickTool['event'] })}
              />
            )}
          </Field>
          <Field label="Snap within" aside={`${tool.snapMs} ms`} help="How far from the pointer the event may lie.">
            {() => (
              <Range
                label="Snap within"
                value={tool.snapMs}
                min={2}
                max={60}
                step={2}
                onChange={(snapMs) => takeTool({ ...tool, snapMs })}
              />
            )}
          </Field>
        </>
      )}
      <Field label="Take away" help="With the brush, inside a ring, or all between two faults of this section.">
        {() => (
          <Segmented
            label="Take picks away"
            value={tool.rub ?? 'no'}
            options={[
              { value: 'no', label: 'Off' },
              { value: 'brush', label: 'Brush' },
              { value: 'ring', label: 'Ring' },
              { value: 'between faults', label: 'Block' },
            ]}
            onChange={(to) => takeTool({ ...tool, rub: to === 'no' ? null : to })}
          />
        )}
      </Field>
      {tool.rub === 'brush' && (
        <Field label="Brush" aside={`${tool.brush} px`}>
          {() => (
            <Range
              label="Size of the brush"
              value={tool.brush}
              min={4}
              max={60}
              step={2}
              onChange={(brush) => takeTool({ ...tool, brush })}
            />
          )}
        </Field>
      )}
      <p className={css.note}>{picks ? `${counted(picks.points.length, 'pick')} so far.` : 'Nothing picked yet.'}</p>
      <p className={css.note}>
        On the next line the picks of this one are proposed as rings: Shift+Enter takes them over.
      </p>
    </>
  );
}
