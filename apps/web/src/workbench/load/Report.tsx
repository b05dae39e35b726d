import type { Declarations, FileReport } from '@lithagon/core';
import { useEffect, useRef } from 'react';
import { colorMap } from '../../color/maps';
import { Select } from '../../ui/Field';
import { Segmented } from '../../ui/Segmented';
import { formatValue } from '../../views/common/look';
import css from './LoadSheet.module.css';

/** One file in full: questions first, then facts, header positions, a sample of what is in it. */
export function Report(props: {
  report: FileReport;
  declare: Declarations;
  onDeclare(key: string, value: string): void;
  onAll(key: string, value: string): void;
}) {
  const { report, declare, onDeclare, onAll } = props;
  const quantity = report.questions.find((q) => q.key === 'quantity');
  return (
    <>
      <h3>{report.takenFor}</h3>
      {report.refused && (
        <p className={css.refusal}>
          {report.refused.message} {report.refused.fix}
        </p>
      )}
      {report.questions.length > 0 && (
        <section className={css.questions} aria-label="What the file cannot say">
          {report.questions.map((q) => (
            <div key={q.key} className={css.question}>
              <span>{q.label}</span>
              {q.options.length <= 3 ? (
                <Segmented
                  label={q.label}
                  value={declare[q.key] ?? ''}
                  options={q.options}
                  onChange={(v) => onDeclare(q.key, v)}
                />
              ) : (
                <Select
                  label={q.label}
                  value={declare[q.key] ?? ''}
                  options={[{ value: '', label: 'choose …' }, ...q.options]}
                  onChange={(v) => onDeclare(q.key, v)}
                />
              )}
              {declare[q.key] && (
                <button type="button" className={css.all} onClick={() => onAll(q.key, declare[q.key])}>
                  the same for all
                </button>
              )}
              {q.hint && !declare[q.key] && (
                <p className={css.hint}>
                  {q.hint.why}{' '}
                  <button type="button" className={css.all} onClick={() => onDeclare(q.key, q.hint?.value ?? '')}>
                    Yes, {q.hint.value}
                  </button>
                </p>
              )}
            </div>
          ))}
          {quantity && declare.quantity === 'amplitude' && (
            <div className={css.question}>
              <span>An increase of impedance is</span>
              <Segmented
                label="Polarity"
                value={declare.polarity ?? ''}
                options={[
                  { value: 'harder-positive', label: 'positive' },
                  { value: 'harder-negative', label: 'negative' },
                ]}
                onChange={(v) => onDeclare('polarity', v)}
              />
            </div>
          )}
          <div className={css.question}>
            <span>Name</span>
            <input
              aria-label="Name"
              className={css.text}
              placeholder={report.file.replace(/\.[^.]*$/, '')}
              value={declare.name ?? ''}
              onChange={(e) => onDeclare('name', e.target.value)}
            />
          </div>
        </section>
      )}
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
      {report.sample && <SampleSection sample={report.sample} />}
      {report.positions && report.positions.length > 0 && (
        <details className={css.more}>
          <summary>Where line numbers and coordinates stand in the trace headers</summary>
          <table>
            <thead>
              <tr>
                <th>Inline</th>
                <th>Crossline</th>
                <th>X</th>
                <th>Y</th>
                <th>Score</th>
                <th>Because</th>
              </tr>
            </thead>
            <tbody>
              {report.positions.map((p) => (
                <tr key={`${p.inline} ${p.crossline} ${p.x}`}>
                  <td>{p.inline}</td>
                  <td>{p.crossline}</td>
                  <td>{p.x}</td>
                  <td>{p.y}</td>
                  <td>{p.score.toFixed(2)}</td>
                  <td>{p.why}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className={css.bytes}>
            {(['inline', 'crossline', 'x', 'y'] as const).map((key) => (
              <label key={key}>
                {key} byte
                <input
                  type="number"
                  min={1}
                  max={237}
                  placeholder={String(report.positions?.[0][key])}
                  value={declare[`byte.${key}`] ?? ''}
                  onChange={(e) => onDeclare(`byte.${key}`, e.target.value || String(report.positions?.[0][key]))}
                />
              </label>
            ))}
          </div>
        </details>
      )}
      {report.text && (
        <details className={css.more}>
          <summary>Text header</summary>
          <pre>{report.text.join('\n').trimEnd()}</pre>
        </details>
      )}
    </>
  );
}

/** A picture of samples from the middle of the file. */
function SampleSection({ sample }: { sample: NonNullable<FileReport['sample']> }) {
  const ref = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const canvas = ref.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = sample.traces;
    canvas.height = sample.samples;
    const image = context.createImageData(sample.traces, sample.samples);
    const colors = colorMap('rust–bone–slate');
    const one = sample.data.some((v) => v < 0) ? -1 : 0;
    for (let t = 0; t < sample.traces; t++)
      for (let k = 0; k < sample.samples; k++) {
        const value = sample.data[t * sample.samples + k];
        if (Number.isNaN(value)) continue;
        const q = (value / (sample.clip || 1) - one) / (1 - one);
        const c = 3 * Math.max(0, Math.min(255, Math.round(q * 255)));
        image.data.set([colors[c], colors[c + 1], colors[c + 2], 255], 4 * (k * sample.traces + t));
      }
    context.putImageData(image, 0, 0);
  }, [sample]);
  return (
    <figure className={css.sample}>
      <canvas ref={ref} role="img" aria-label="Sample section from the middle of the file" />
      <figcaption>
        Middle inline: {sample.traces} traces, {sample.samples} samples. Colours end at{' '}
        {sample.data.some((v) => v < 0) ? '±' : ''}
        {formatValue(sample.clip)}.
      </figcaption>
    </figure>
  );
}
