import { type Crs, searchCrs } from '@lithagon/core';
import { useEffect, useId, useState } from 'react';
import { crsTable } from '../../storage/crsTable';
import css from './Frame.module.css';
import { Outline } from './Outline';

/** Coordinate systems found by typing part of a name, code or area, with the area of the one in sight on a small map. */
export function FrameSearch({ now, onChoose }: { now?: string; onChoose(crs: Crs): void }) {
  const results = useId();
  const [text, setText] = useState('');
  const [found, setFound] = useState<Crs[]>([]);
  const [looked, setLooked] = useState<Crs | null>(null);
  useEffect(() => {
    let wanted = true;
    void crsTable().then((rows) => {
      if (!wanted) return;
      const next = searchCrs(rows, text);
      setFound(next);
      const own = Number(now?.replace('EPSG:', ''));
      setLooked(next[0] ?? (text === '' ? (searchCrs(rows, String(own), 1)[0] ?? null) : null));
    });
    return () => {
      wanted = false;
    };
  }, [text, now]);
  const step = (by: number) => {
    const at = looked ? found.indexOf(looked) : -1;
    setLooked(found[Math.max(0, Math.min(found.length - 1, at + by))] ?? null);
  };
  return (
    <div className={css.searching}>
      <input
        className={css.search}
        aria-label="Name, code or area"
        placeholder="utm 40s, 32740, Mauritius …"
        role="combobox"
        aria-expanded={found.length > 0}
        aria-controls={results}
        aria-activedescendant={looked && found.includes(looked) ? `${results}-${looked.code}` : undefined}
        value={text}
        onChange={(e) => setText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
            e.preventDefault();
            step(e.key === 'ArrowDown' ? 1 : -1);
          }
          if (e.key === 'Enter' && looked && found.includes(looked)) onChoose(looked);
        }}
      />
      <Outline crs={looked} />
      <ul className={css.results} id={results}>
        {found.map((crs) => (
          <li key={crs.code}>
            <button
              type="button"
              id={`${results}-${crs.code}`}
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
