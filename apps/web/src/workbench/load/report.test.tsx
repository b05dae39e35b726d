import '../../testing/browser';
import { type Declarations, type FileReport, inspectFile, memorySource } from '@lithagon/core';
import { makeSegy, PLAIN_SEGY } from '@lithagon/core/testing/segyWriter';
import { renderToStaticMarkup } from 'react-dom/server';
import { beforeAll, describe, expect, test } from 'vitest';
import type { Entry } from './entries';
import { NameTable } from './NameTable';
import { Parts } from './Parts';
import { Report } from './Report';
import { SegyHeaders } from './SegyHeaders';
import { SegyRange } from './SegyRange';

const even = (n: number) => Array.from({ length: n }, (_, k) => k);
const none = () => undefined;
const bytes = (text: string) => new TextEncoder().encode(text);
/** What a person reads: tags gone, spaces one. */
const textOf = (markup: string) =>
  markup
    .replace(/<[^>]+>/g, ' ')
    .replace(/&[a-z#0-9]+;/g, ' ')
    .replace(/\s+/g, ' ');
const shown = (report: FileReport, declare: Declarations = {}) =>
  renderToStaticMarkup(
    <Report
      report={report}
      file={new File([], report.file)}
      declare={declare}
      parts={null}
      names={[]}
      onDeclare={none}
      onAll={none}
    />,
  );

let seismic: FileReport;
beforeAll(async () => {
  const layout = { ...PLAIN_SEGY, inlines: even(12).map((n) => n + 1), crosslines: even(10).map((n) => n + 11) };
  seismic = await inspectFile(memorySource('made.sgy', makeSegy({ ...layout, samples: 60 }, even)));
});

describe('what the sheet says of seismic', () => {
  test('are first the questions that the file cannot answer, then what it says itself', () => {
    const markup = shown(seismic);
    const text = textOf(markup);
    for (const part of ['3D seismic volume', 'Vertical axis', 'Samples are', 'Inlines 1 to 12', 'Crosslines 11 to 20'])
      expect(text).toContain(part);
    expect(text.indexOf('Vertical axis')).toBeLessThan(text.indexOf('Inlines 1 to 12'));
    expect(text).not.toMatch(/NaN|undefined|\[object/);
    // nothing is chosen before a person has said it
    const questions = /<section[^>]*aria-label="What the file cannot say".*?<\/section>/s.exec(markup)?.[0] ?? '';
    expect(questions).toContain('role="radio"');
    expect(questions).not.toContain('aria-checked="true"');
  });
  test('asks for the polarity of amplitudes and the unit of velocities, and of nothing else', () => {
    const asks = (quantity: string) => textOf(shown(seismic, { quantity }));
    expect(asks('amplitude')).toContain('An increase of impedance is');
    expect(asks('amplitude')).not.toContain('km/s');
    expect(asks('interval velocity')).toContain('km/s');
    expect(asks('variance')).not.toContain('An increase of impedance is');
  });
  test('offers an answer that was given for the other files, those that look alike where it was a guess', () => {
    expect(textOf(shown(seismic))).not.toContain('the same for all');
    expect(textOf(shown(seismic, { domain: 'twt' }))).toContain('the same for all');
    const guessed = {
      ...seismic,
      questions: seismic.questions.map((q) =>
        q.key === 'quantity' ? { ...q, hint: { value: 'amplitude', why: 'Samples swing.' } } : q,
      ),
    };
    expect(textOf(shown(guessed))).toContain('Yes, amplitude');
    const answered = textOf(shown(guessed, { quantity: 'amplitude' }));
    expect(answered).toContain('the same for all like it');
    expect(answered).not.toContain('Yes, amplitude');
  });
  test('ranks where numbers may stand with the reason for each, marks those in use, and offers the others', () => {
    if (!seismic.segy) throw new Error('it is no SEG-Y');
    const [first] = seismic.segy.positions ?? [];
    const segy = { ...seismic.segy, positions: [first, { ...first, inline: 9, score: 0.41, why: 'Nearly a grid.' }] };
    const text = textOf(renderToStaticMarkup(<SegyHeaders segy={segy} declare={{}} onDeclare={none} />));
    expect(text).toContain(`${first.inline} ${first.crossline} ${first.x} ${first.y} ${first.score.toFixed(2)}`);
    expect(text).toContain('0.41 Nearly a grid. Use');
    const other = textOf(
      renderToStaticMarkup(<SegyHeaders segy={segy} declare={{ 'byte.inline': '9' }} onDeclare={none} />),
    );
    // now the second is used and the first on offer
    expect(other).toContain('0.41 Nearly a grid. used');
  });
  test('says how much of it there is, and what 16 bits would cost', () => {
    if (!seismic.segy) throw new Error('it is no SEG-Y');
    const segy = { ...seismic.segy, compact: { error: 0.02, rms: 4, saves: 0.5 } };
    const markup = renderToStaticMarkup(<SegyRange segy={segy} declare={{ inlines: '3-7' }} onDeclare={none} />);
    expect(markup).toContain('placeholder="1-12"');
    expect(markup).toContain('value="3-7"');
    expect(textOf(markup)).toContain('samples off by at most about 0.0200, which is 0.50 % of their rms');
    expect(renderToStaticMarkup(<SegyRange segy={{ ...segy, whole: undefined }} declare={{}} onDeclare={none} />)).toBe(
      '',
    );
  });
});

describe('what the sheet says of a table', () => {
  test('names the kind, what each column was taken for with its unit, and what it cannot place', async () => {
    const report = await inspectFile(
      memorySource('tops.csv', bytes('Well,Surface,MD (ft),Remark\nQN-1,Tolven Top,3000,ok\n')),
    );
    const markup = shown(report);
    const text = textOf(markup);
    expect(text).toContain('Tops');
    for (const column of ['Well', 'Surface', 'Remark']) expect(text).toContain(column);
    expect(markup).toMatch(/aria-label="Unit of MD[^"]*"/);
    expect(text).toContain('QN-1');
    expect(text).not.toMatch(/NaN|undefined|\[object/);
  });
  test('that cannot be loaded says why and what to do, before anything else', async () => {
    const report = await inspectFile(memorySource('odd.csv', bytes('alpha,beta\n1,2\n3,4\n')));
    const text = textOf(shown(report));
    const refused = report.refused;
    if (!refused) throw new Error('it was not refused');
    expect(text).toContain(textOf(refused.message).trim().slice(0, 40));
    if (refused.fix)
      expect(text).toContain(
        refused.fix
          .slice(0, 30)
          .replace(/["'&<>]/g, ' ')
          .trim()
          .slice(0, 20),
      );
  });
  test('shows what a file holds as text, whatever is written in it', async () => {
    const report = await inspectFile(
      memorySource('tops.csv', bytes('well,top,md_m\n<img src=x onerror=alert(1)>,Tolven Top,900\n')),
    );
    const markup = shown(report);
    expect(markup).not.toContain('<img');
    expect(markup).toContain('&lt;img');
  });
});

describe('names of wells that almost agree', () => {
  const names = [{ name: 'QN 1', suggested: 'QN-1', others: ['QN-1', 'QN-2'] }];
  test('are merged by nobody but a person: nothing is chosen, the likely one is on offer', () => {
    const text = textOf(renderToStaticMarkup(<NameTable names={names} declare={{}} onDeclare={none} />));
    expect(text).toContain('Nothing is merged unless you say so');
    expect(text).toContain('It is QN-1');
    const markup = renderToStaticMarkup(<NameTable names={names} declare={{}} onDeclare={none} />);
    expect(/<option value="" selected="">/.test(markup)).toBe(true);
  });
  test('once said, are not offered again', () => {
    const markup = renderToStaticMarkup(<NameTable names={names} declare={{ 'well.QN 1': 'QN-2' }} onDeclare={none} />);
    expect(textOf(markup)).not.toContain('It is QN-1');
    expect(/<option value="QN-2" selected="">/.test(markup)).toBe(true);
  });
});

test('files that may be parts of one volume are named only where their lines lie beside each other', () => {
  const entry = (name: string): Entry => ({
    file: new File([], name),
    beside: [],
    report: seismic,
    declare: {},
    wanted: true,
  });
  const [one, two, three] = ['a.sgy', 'b.sgy', 'c.sgy'].map(entry);
  const parts = (alike: (e: Entry) => boolean, of = one) =>
    renderToStaticMarkup(<Parts entry={of} candidates={[two, three]} alike={alike} onJoin={none} />);
  expect(parts(() => false)).toBe('');
  expect(textOf(parts((e) => e === two))).toContain('b.sgy');
  expect(textOf(parts((e) => e === two))).not.toContain('c.sgy');
  // one that was joined stays in sight, though nothing tells it
  expect(textOf(parts(() => false, { ...one, beside: [three.file] }))).toContain('c.sgy');
});
