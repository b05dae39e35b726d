import type { SeismicLine } from '@lithagon/core';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { Select } from '../../ui/Field';
import css from '../common/view.module.css';

/** Whether the section shows the volume or a 2D line, where there are any. */
export function LineChoice() {
  const objects = useProject((s) => s.objects);
  const line = useDesk((s) => s.line);
  const lines = objects.filter((o): o is SeismicLine => o.kind === 'seismic line');
  if (lines.length === 0) return null;
  return (
    <span className={css.choice}>
      <Select
        label="Volume or 2D line"
        value={lines.some((l) => l.id === line) ? (line ?? '') : ''}
        options={[{ value: '', label: 'Volume' }, ...lines.map((l) => ({ value: l.id, label: l.name }))]}
        onChange={(id) => useDesk.setState({ line: id || null })}
      />
    </span>
  );
}
