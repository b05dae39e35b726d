import type { Declarations, FileReport, NameMatch, Question } from '@lithagon/core';
import { type ReactNode, useEffect, useState } from 'react';
import { Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import { ColumnMap } from './ColumnMap';
import css from './LoadSheet.module.css';
import { NameTable } from './NameTable';
import { SegyHeaders } from './SegyHeaders';
import { SegyPictures } from './SegyPictures';
import { SegyRange } from './SegyRange';
import { TraceHeaders } from './TraceHeaders';

const PAGES = [
  { value: 'summary', label: 'Summary' },
  { value: 'positions', label: 'Positions' },
  { value: 'traces', label: 'Trace headers' },
  { value: 'headers', label: 'File headers' },
];

/** One file in full: questions first, then facts, what is in it, and where that was read. */
export function Report(props: {
  report: FileReport;
  file: File;
  declare: Declarations;
  parts: ReactNode;
  /** Names of wells in it that nearly agree with others. */
  names: NameMatch[];
  onDeclare(said: Declarations): void;
  onAll(key: string, value: string): void;
}) {
  const { report, file, declare, parts, names, onDeclare, onAll } = props;
  const [page, setPage] = useState('summary');
  const { segy, table } = report;
  const shown = segy ? page : 'summary';
  return (
    <>
      <div className={css.top}>
        <h3>{report.takenFor}</h3>
        {segy && <Segmented label="Part of the report" value={page} options={PAGES} onChange={setPage} />}
      </div>
      {report.refused && (
        <p className={css.refusal}>
          {report.refused.message} {report.refused.fix}
        </p>
      )}
      {shown === 'summary' && (
        <>
          {(report.questions.length > 0 || segy) && (
            <section className={css.questions} aria-label="What the file cannot say">
              {report.questions.map((q) => (
                <Answer
                  key={q.key}
                  question={q}
                  value={declare[q.key] ?? ''}
                  onAnswer={(value) => onDeclare({ [q.key]: value })}
                  onAll={(value) => onAll(q.key, value)}
                />
              ))}
              {declare.quantity === 'amplitude' && segy && (
                <Answer
                  question={{
                    key: 'polarity',
                    label: 'An increase of impedance is',
                    optional: true,
                    options: [
                      { value: 'harder-positive', label: 'positive' },
                      { value: 'harder-negative', label: 'negative' },
                    ],
                  }}
                  value={declare.polarity ?? ''}
                  onAnswer={(polarity) => onDeclare({ polarity })}
                  onAll={(value) => onAll('polarity', value)}
                />
              )}
              {segy && / velocity$/.test(declare.quantity ?? '') && (
                <Answer
                  question={{
                    key: 'unit',
                    label: 'in',
                    optional: true,
                    options: ['m/s', 'ft/s', 'km/s'].map((value) => ({ value, label: value })),
                  }}
                  value={declare.unit ?? 'm/s'}
                  onAnswer={(unit) => onDeclare({ unit })}
                  onAll={(value) => onAll('unit', value)}
                />
              )}
              <div className={css.question}>
                <span>Name</span>
                <input
                  aria-label="Name"
                  className={css.text}
                  placeholder={report.file.replace(/\.[^.]*$/, '')}
                  value={declare.name ?? ''}
                  onChange={(e) => onDeclare({ name: e.target.value })}
                />
              </div>
            </section>
          )}
          {parts}
          {names.length > 0 && <NameTable names={names} declare={declare} onDeclare={onDeclare} />}
          {table && <ColumnMap table={table} declare={declare} onDeclare={onDeclare} />}
          <dl className={css.facts}>
            {report.facts.map((f) => (
              <div key={f.label}>
                <dt>{f.label}</dt>
                <dd>{f.value}</dd>
              </div>
            ))}
          </dl>
          {report.problems.map((p) => (
            <p key={p} className={css.note}>
              {p}
            </p>
          ))}
          {segy && <SegyPictures segy={segy} />}
          {segy?.whole && <SegyRange segy={segy} declare={declare} onDeclare={onDeclare} />}
        </>
      )}
      {segy && shown === 'positions' && <SegyHeaders segy={segy} declare={declare} onDeclare={onDeclare} />}
      {segy && shown === 'traces' && <TraceHeaders file={file} declare={declare} onDeclare={onDeclare} />}
      {segy && shown === 'headers' && (
        <>
          <pre className={css.pre}>{segy.text.join('\n').trimEnd()}</pre>
          <table className={css.table}>
            <thead>
              <tr>
                <th>Byte</th>
                <th>Binary header</th>
                <th className={css.right}>Value</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {segy.binary.map((b) => (
                <tr key={b.byte}>
                  <td className="num">{b.byte}</td>
                  <td>{b.meaning}</td>
                  <td className={`num ${css.right}`}>{b.value}</td>
                  <td className={css.quiet}>{b.says}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </>
  );
}

/** A question with its options, and what the file hints at. */
function Answer(props: {
  question: Question;
  value: string;
  onAnswer(value: string): void;
  onAll(value: string): void;
}) {
  const { question: q, value, onAnswer, onAll } = props;
  return (
    <div className={css.question}>
      <span>{q.label}</span>
      {q.typed ? (
        <TypedAnswer question={q} value={value} onAnswer={onAnswer} />
      ) : q.options.length <= 3 ? (
        <Segmented
          label={q.label === 'An increase of impedance is' ? 'Polarity' : q.label}
          value={value}
          options={q.options}
          onChange={onAnswer}
        />
      ) : (
        <Select
          label={q.label}
          value={value}
          options={[{ value: '', label: 'choose …' }, ...q.options]}
          onChange={onAnswer}
        />
      )}
      {value && !q.typed && (!q.optional || q.key === 'polarity') && (
        <button type="button" className={css.all} onClick={() => onAll(value)}>
          {q.hint ? 'the same for all like it' : 'the same for all'}
        </button>
      )}
      {q.hint && !value && (
        <p className={css.hint}>
          {q.hint.why}{' '}
          {q.hint.value !== null && (
            <button type="button" className={css.all} onClick={() => onAnswer(q.hint?.value ?? '')}>
              Yes, {q.options.find((o) => o.value === q.hint?.value)?.label ?? q.hint.value}
            </button>
          )}
        </p>
      )}
    </div>
  );
}

/** An answer that is typed, with what is known to choose from; kept when it is left. */
function TypedAnswer(props: { question: Question; value: string; onAnswer(value: string): void }) {
  const { question: q, value } = props;
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const list = `known-${q.key}`;
  const keep = () => text !== value && props.onAnswer(text.trim());
  return (
    <>
      <input
        className={css.text}
        aria-label={q.label}
        list={list}
        maxLength={100}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onBlur={keep}
        onKeyDown={(e) => e.key === 'Enter' && keep()}
      />
      <datalist id={list}>
        {q.options.map((o) => (
          <option key={o.value} value={o.value} />
        ))}
      </datalist>
    </>
  );
}
