import { type Crs, crsOf, type Frame, previewReframe, type Reframing } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { useProject } from '../../state/project';
import { crsTable } from '../../storage/crsTable';
import { Button } from '../../ui/Button';
import css from './Frame.module.css';

const at = (p: [number, number] | null) => (p ? `${p[0].toFixed(2)}  ${p[1].toFixed(2)}` : '–');

/** Another system for a project that holds something: relabel or convert, and what each does. */
export function Reframe(props: { frame: Frame; to: Crs; onTake(convert: boolean): void; onBack(): void }) {
  const { frame, to, onTake, onBack } = props;
  const objects = useProject((s) => s.objects);
  const [preview, setPreview] = useState<Reframing | null>(null);
  useEffect(() => {
    let wanted = true;
    void crsOf(frame.crs, crsTable).then((from) => wanted && setPreview(previewReframe(objects, from, to)));
    return () => {
      wanted = false;
    };
  }, [frame, to, objects]);
  if (!preview) return <p className={css.note}>Working out what it does …</p>;
  return (
    <div className={css.reframe}>
      <p>
        From <b>{frame.crsName}</b> to <b>{to.name}</b>. Was the system wrong, or is another wanted?
      </p>
      <table>
        <thead>
          <tr>
            <th />
            <th>now</th>
            <th>relabelled</th>
            <th>converted</th>
          </tr>
        </thead>
        <tbody>
          {preview.examples.map((e) => (
            <tr key={e.name}>
              <td>{e.name}</td>
              <td className="num">{at(e.now)}</td>
              <td className="num">{at(e.relabelled)}</td>
              <td className="num">{at(e.converted)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={css.note}>
        Relabel: the numbers were right and the system was not; nothing moves on paper, everything does on the earth.
      </p>
      <p className={css.note}>
        Convert: everything stays where it is on the earth and gets new numbers. {preview.says ?? preview.refused}
      </p>
      <p className={css.note}>Either can be undone.</p>
      <footer>
        <Button onClick={onBack}>Back</Button>
        <span />
        <Button onClick={() => onTake(false)}>Relabel</Button>
        <Button main disabled={!preview.says} onClick={() => onTake(true)}>
          Convert
        </Button>
      </footer>
    </div>
  );
}
