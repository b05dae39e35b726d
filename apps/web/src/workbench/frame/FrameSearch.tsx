import { type Crs, searchCrs } from '@lithagon/core';
import { useEffect, useState } from 'react';
import { crsTable } from './crsTable';
import css from './Frame.module.css';
import { Outline } from './Outline';

/** Coordinate systems found by typing part of a name, code or area, with the area of the one in sight on a small map. */
export function FrameSearch({ onChoose }: { onChoose(crs: Crs): void }) {
  const [text, setText] = useState('');
  const [found, setFound] = useState<Crs[]>([]);
  const [looked, setLooked] = useState<Crs | null>(null);
  useEffect(() => {
    let wanted = true;
    void crsTable().then((rows) => {
      if (!wanted) return;
      const next = searchCrs(rows, text);
      setFound(next);
      setLooked(next[0] ?? null);
    });
    return () => {
      wanted = false;
    };
  }, [text]);
  return (
    <div className={css.searching}>
      <input
        className={css.search}
        aria-label="Name, code or area"
        placeholder="utm 40s, 32740, Mauritius …"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Outline crs={looked} />
      <ul className={css.results}>
        {found.map((crs) => (
          <li key={crs.code}>
            <button
              type="button"
              className={looked === crs ? css.looked : ''}
              onMouseEnter={() => setLooked(crs)}
              onFocus={() => setLooked(crs)}
              onClick={() => onChoose(crs)}
            >
              <b>{crs.name}</b> <span className="num">EPSG:{crs.code}</span>
              <small>
                {crs.area} {crs.unit && `Unit: ${crs.unit}.`}
              </small>
            </button>
          </li>
        ))}
        {text !== '' && found.length === 0 && <li className={css.none}>None has all of these words.</li>}
      </ul>
    </div>
  );
}
