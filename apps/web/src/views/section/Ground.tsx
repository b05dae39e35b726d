import type { SeismicLine, Volume } from '@lithagon/core';
import { useMemo } from 'react';
import { useDesk } from '../../state/desk';
import { usePages, withoutPages } from '../../state/pages';
import { useProject } from '../../state/project';
import { useSettings } from '../../state/views';
import { Field, Range, Select } from '../../ui/Field';
import css from '../common/LayerList.module.css';
import { curveClassesOf } from '../common/survey';
import { othersOf } from './others';

/** The seismic that a section shows, a second volume over it, and a log or synthetic along wells. */
export function Ground({ shown }: { shown: Volume | SeismicLine }) {
  const objects = useProject((s) => s.objects);
  const [settings, change] = useSettings('section');
  const others = withoutPages(othersOf(objects, shown), objects);
  const blends = objects.filter(
    (o) => ((o.kind === 'blend' && o.of === 'volume') || o.kind === 'turned pair') && o.domain === settings.domain,
  );
  const { over } = settings;
  const logs = useMemo(() => curveClassesOf(objects), [objects]);
  const tied = objects.some((o) => o.kind === 'time-depth relation');
  usePages();
  const all = withoutPages(
    objects.filter((o): o is Volume => o.kind === 'volume' && o.domain === settings.domain),
    objects,
  );
  return (
    <div className={css.ground}>
      {shown.kind === 'volume' && (
        <Field label="Seismic">
          {(id) => (
            <Select
              id={id}
              value={shown.id}
              options={all.map((v) => ({ value: v.id, label: v.name }))}
              onChange={(volume) =>
                settings.volume === null ? useDesk.setState({ volume }) : change({ volume, line: null })
              }
            />
          )}
        </Field>
      )}
      <Field label="Laid over it">
        {(id) => (
          <Select
            id={id}
            value={over?.volume ?? ''}
            options={[
              { value: '', label: 'nothing' },
              ...[...others, ...blends].map((v) => ({ value: v.id, label: v.name })),
            ]}
            onChange={(volume) => change({ over: volume ? { volume, opacity: over?.opacity ?? 0.5 } : null })}
          />
        )}
      </Field>
      {over && (
        <Field label="Strength" aside={`${Math.round(100 * over.opacity)} %`}>
          {() => (
            <Range
              label="Strength of what lies over"
              value={over.opacity}
              min={0.05}
              max={1}
              step={0.05}
              onChange={(opacity) => change({ over: { ...over, opacity } })}
            />
          )}
        </Field>
      )}
      <Field label="Along wells">
        {(id) => (
          <Select
            id={id}
            value={settings.log ?? ''}
            options={[
              { value: '', label: 'nothing' },
              ...(tied ? [{ value: 'synthetic', label: 'synthetic of the tie' }] : []),
              ...logs.map((c) => ({ value: c, label: c })),
            ]}
            onChange={(log) => change({ log: (log || null) as typeof settings.log })}
          />
        )}
      </Field>
    </div>
  );
}
