import { useState } from 'react';
import { takeTool, useTool } from '../state/tool';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { counted } from '../ui/format';
import css from '../workbench/sheet/Sheet.module.css';

/** Strokes of a brush on a section: how many there are, the brush itself, and the way back. */
export function StrokesField(props: {
  label: string;
  help?: string;
  error?: string;
  value: unknown[];
  onChange(value: unknown[]): void;
}) {
  const { value, onChange } = props;
  const tool = useTool((s) => s.tool);
  const [brush, setBrush] = useState({ wide: 100, tall: 12 });
  const take = (does: 'takes out' | 'puts in') =>
    takeTool(tool?.kind === 'body brush' && tool.does === does ? null : { kind: 'body brush', does, ...brush });
  const size = (part: Partial<typeof brush>) => {
    const next = { ...brush, ...part };
    setBrush(next);
    if (tool?.kind === 'body brush') takeTool({ ...tool, ...next });
  };
  const holds = (does: string) => tool?.kind === 'body brush' && tool.does === does;
  const typed = (label: string, key: 'wide' | 'tall', unit: string) => (
    <label className={css.brush}>
      {label}
      <input
        type="number"
        min={1}
        className={css.number}
        aria-label={`${label} of the brush`}
        value={brush[key]}
        onChange={(e) => e.target.valueAsNumber > 0 && size({ [key]: e.target.valueAsNumber })}
      />
      {unit}
    </label>
  );
  return (
    <Field label={props.label} help={props.help} error={props.error} aside={counted(value.length, 'touch', 'touches')}>
      {() => (
        <div className={css.strokes}>
          <Button small aria-pressed={holds('takes out')} onClick={() => take('takes out')}>
            Take out
          </Button>
          <Button small aria-pressed={holds('puts in')} onClick={() => take('puts in')}>
            Put in
          </Button>
          <Button small disabled={value.length === 0} onClick={() => onChange([])}>
            Clear
          </Button>
          {typed('Radius', 'wide', 'm')}
          {typed('Half height', 'tall', 'ms or m')}
        </div>
      )}
    </Field>
  );
}
