import { type Crs, type CrsRow, frameFor, searchCrs } from '@lithagon/core';
import crsUrl from '@lithagon/core/crs-table.json?url';
import { useEffect, useState } from 'react';
import { refreshProject, useProject } from '../state/project';
import { Modal } from '../ui/Modal';
import css from './TopBar.module.css';

let table: Promise<CrsRow[]> | null = null;

/** The table of coordinate reference systems, fetched when it is first searched. */
export function crsTable(): Promise<CrsRow[]> {
  table ??= fetch(crsUrl).then((r) => r.json());
  return table;
}

/** The project's coordinate system, and the sheet in which it is found by typing. */
export function FrameButton() {
  const facts = useProject((s) => s.facts);
  const objects = useProject((s) => s.objects);
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [found, setFound] = useState<Crs[]>([]);
  useEffect(() => {
    let wanted = true;
    void crsTable().then((rows) => wanted && setFound(searchCrs(rows, text)));
    return () => {
      wanted = false;
    };
  }, [text]);
  const choose = async (crs: Crs) => {
    await useProject.getState().store?.commit({ facts: { frame: frameFor(crs) } });
    await refreshProject();
    setOpen(false);
  };
  const fixed = facts?.frame && objects.some((o) => o.kind !== 'polygon');
  return (
    <>
      <button type="button" className={css.frame} onClick={() => setOpen(true)}>
        {facts?.frame ? facts.frame.crs : 'Choose coordinate system'}
      </button>
      <Modal
        open={open}
        title="Coordinate reference system"
        summary={
          fixed
            ? `This project is in ${facts.frame?.crsName}. Choosing another relabels it: coordinates stay as they are.`
            : 'Type part of its name, its EPSG code, or the area it is for.'
        }
        onClose={() => setOpen(false)}
      >
        <input
          className={css.search}
          aria-label="Name, code or area"
          placeholder="utm 40s, 32740, Seychelles …"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <ul className={css.results}>
          {found.map((crs) => (
            <li key={crs.code}>
              <button type="button" onClick={() => void choose(crs)}>
                <b>{crs.name}</b> <span className="num">EPSG:{crs.code}</span>
                <small>
                  {crs.area} {crs.unit && `Unit: ${crs.unit}.`}
                </small>
              </button>
            </li>
          ))}
          {text !== '' && found.length === 0 && (
            <li style={{ padding: 8, color: 'var(--slate)' }}>None is called that.</li>
          )}
        </ul>
      </Modal>
    </>
  );
}
