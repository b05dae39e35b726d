import {
  asLithagonError,
  attached,
  crossings,
  curveClassSchema,
  type Declarable,
  type EarthObject,
  nearestName,
  type ObjectOf,
  quantitiesOf,
  quantityFacts,
  reclassed,
  redeclared,
} from '@lithagon/core';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { edit } from '../../state/history';
import { refreshProject, useProject } from '../../state/project';
import { Button } from '../../ui/Button';
import { Select } from '../../ui/Field';
import css from './Sheet.module.css';

/** Domain, quantity, unit and polarity of seismic, declared anew: what rests on it is out of date then. */
export function Redeclare({ object }: { object: ObjectOf<'volume' | 'seismic line'> }) {
  const say = (said: Partial<Declarable>) => {
    try {
      const next = redeclared(object, said);
      void edit(`Declare ${object.name} ${Object.values(said).join(' ')}`, [object], [next]);
    } catch (cause) {
      toast.error(asLithagonError(cause).sentence);
    }
  };
  if (object.madeBy.step !== 'data.load') return null;
  return (
    <details className={css.text}>
      <summary>Declare anew</summary>
      <div className={css.declare}>
        <div>
          <span>Vertical axis</span>
          <Select
            label="Vertical axis"
            value={object.domain}
            options={[
              { value: 'twt', label: 'two-way time' },
              { value: 'depth', label: 'depth' },
            ]}
            onChange={(domain) => say({ domain: domain as Declarable['domain'] })}
          />
        </div>
        <div>
          <span>Samples are</span>
          <Select
            label="Samples are"
            value={object.quantity}
            options={quantitiesOf('volume').map((value) => ({ value, label: value }))}
            onChange={(value) => {
              const quantity = value as Declarable['quantity'];
              say({ quantity, unit: quantityFacts(quantity).unit });
            }}
          />
        </div>
        {/ velocity$/.test(object.quantity) && (
          <div>
            <span>Unit</span>
            <Select
              label="Unit"
              value={object.unit}
              options={['m/s', 'ft/s', 'km/s'].map((value) => ({ value, label: value }))}
              onChange={(unit) => say({ unit })}
            />
          </div>
        )}
        {object.quantity === 'amplitude' && (
          <div>
            <span>Harder is</span>
            <Select
              label="Harder is"
              value={object.polarity ?? ''}
              options={[
                { value: '', label: 'not declared' },
                { value: 'harder-positive', label: 'positive' },
                { value: 'harder-negative', label: 'negative' },
              ]}
              onChange={(v) => say({ polarity: (v || undefined) as Declarable['polarity'] })}
            />
          </div>
        )}
      </div>
    </details>
  );
}

/** Tags and what people wrote about an object; neither makes anything out of date. */
export function Notes({ object }: { object: EarthObject }) {
  const [text, setText] = useState(object.note ?? '');
  useEffect(() => setText(object.note ?? ''), [object.note]);
  return (
    <>
      <h3>Tags and notes</h3>
      <div className={css.notes}>
        {(object.tags ?? []).map((tag) => (
          <button
            key={tag}
            type="button"
            title={`Take the tag “${tag}” off`}
            onClick={() =>
              void edit(
                `Take the tag “${tag}” off ${object.name}`,
                [object],
                [{ ...object, tags: object.tags?.filter((t) => t !== tag) }],
              )
            }
          >
            {tag} ×
          </button>
        ))}
        <input
          aria-label="New tag"
          placeholder="tag"
          maxLength={60}
          onKeyDown={(e) => {
            const tag = e.currentTarget.value.trim();
            if (e.key !== 'Enter' || !tag || object.tags?.includes(tag)) return;
            e.currentTarget.value = '';
            void edit(`Tag “${tag}” on ${object.name}`, [object], [{ ...object, tags: [...(object.tags ?? []), tag] }]);
          }}
        />
        <textarea
          aria-label="Note"
          placeholder="What others should know of it"
          rows={2}
          value={text}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => {
            const note = text.trim().slice(0, 20000) || undefined;
            if (note !== object.note) void edit(`Note on ${object.name}`, [object], [{ ...object, note }]);
          }}
        />
      </div>
    </>
  );
}

/** For what waits for a well that almost agrees in name with one that is there. */
export function Attach({ object }: { object: EarthObject & { well: string } }) {
  const objects = useProject((s) => s.objects);
  const heads = objects.filter((o) => o.kind === 'well').map((o) => o.name);
  const near = nearestName(object.well, heads);
  if (heads.length === 0) return null;
  const give = (well: string) =>
    void edit(`Give ${object.name} to ${well}`, [object], [attached(object, well) as EarthObject]);
  return (
    <div className={css.declare}>
      {near && (
        <Button small onClick={() => give(near)}>
          It is {near}
        </Button>
      )}
      <div>
        <span>It belongs to</span>
        <Select
          label="It belongs to"
          value=""
          options={[{ value: '', label: 'choose a well …' }, ...heads.map((h) => ({ value: h, label: h }))]}
          onChange={(well) => well && give(well)}
        />
      </div>
    </div>
  );
}

/** Classes of curves, corrected once for all wells that have a curve of the name. */
export function CurveClasses({ logs }: { logs: ObjectOf<'logs'> }) {
  const objects = useProject((s) => s.objects);
  const say = async (mnemonic: string, value: string) => {
    const cls = curveClassSchema.parse(value);
    const key = mnemonic.toLowerCase();
    const { store, facts } = useProject.getState();
    const before = objects.filter(
      (o): o is ObjectOf<'logs'> => o.kind === 'logs' && o.curves.some((c) => c.mnemonic.toLowerCase() === key),
    );
    const after = before.map((o) => reclassed(o, key, cls));
    await store?.commit({ facts: { curveClasses: { ...facts?.curveClasses, [key]: cls } } });
    await edit(`${mnemonic} is ${cls}, in ${before.length} sets of logs`, before, after);
    await refreshProject();
  };
  return (
    <details className={css.text}>
      <summary>What its curves are</summary>
      <div className={css.declare}>
        {logs.curves.map((c) => (
          <div key={c.mnemonic}>
            <span>
              {c.mnemonic} {c.unit && <small>{c.unit}</small>}
            </span>
            <Select
              label={`What ${c.mnemonic} is`}
              value={c.class}
              options={curveClassSchema.options.map((value) => ({ value, label: value }))}
              onChange={(value) => void say(c.mnemonic, value)}
            />
          </div>
        ))}
        <p className={css.note}>A change holds for this name in all wells, and for files loaded later.</p>
      </div>
    </details>
  );
}

/** Where a 2D line crosses others and enters and leaves surveys. */
export function Crossings({ line }: { line: ObjectOf<'seismic line'> }) {
  const objects = useProject((s) => s.objects);
  const met = crossings(objects).filter((c) => c.line === line.name || c.with === line.name);
  return (
    <>
      <h3>Crossings</h3>
      {met.length === 0 && <p className={css.note}>It crosses nothing that has a position.</p>}
      <dl className={css.facts}>
        {met.map((c, n) => {
          const own = c.line === line.name ? c.trace : 'trace' in c.at ? c.at.trace : c.trace;
          return (
            <div key={n}>
              <dt>CDP {line.cdps[Math.min(line.cdps.length - 1, Math.round(own))]}</dt>
              <dd>
                {c.line === line.name ? c.with : c.line}
                {'inline' in c.at ? `, inline ${c.at.inline}, crossline ${c.at.crossline}` : ''}
              </dd>
            </div>
          );
        })}
      </dl>
    </>
  );
}
