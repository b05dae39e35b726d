import { ArrowLeft, ArrowRight } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useSelection } from '../../state/selection';
import { Button } from '../../ui/Button';
import { STOPS } from './stops';
import css from './Walk.module.css';

/** Room round what is pointed at, pixels. */
const ROOM = 4;

/** The first walk: stop by stop round the workbench, left at any moment. */
export function Walk() {
  const open = useSelection((s) => s.walking);
  return open ? <Stops /> : null;
}

const leave = () => useSelection.setState({ walking: false });

function Stops() {
  const [n, setN] = useState(0);
  const [box, setBox] = useState<DOMRect | null>(null);
  const card = useRef<HTMLDivElement>(null);
  const stop = STOPS[n];
  useEffect(() => {
    stop.before?.();
    // what was opened takes a moment to be there
    const look = () => setBox(document.querySelector(stop.at)?.getBoundingClientRect() ?? null);
    const timer = setInterval(look, 120);
    look();
    card.current?.focus();
    return () => clearInterval(timer);
  }, [stop]);
  useEffect(() => {
    const key = (event: KeyboardEvent) => event.key === 'Escape' && leave();
    addEventListener('keydown', key);
    return () => removeEventListener('keydown', key);
  }, []);
  return (
    <>
      {box && (
        <div
          className={css.ring}
          aria-hidden="true"
          style={{
            left: box.left - ROOM,
            top: box.top - ROOM,
            width: box.width + 2 * ROOM,
            height: box.height + 2 * ROOM,
          }}
        />
      )}
      <div ref={card} className={css.card} role="dialog" aria-label="A first walk" tabIndex={-1}>
        <p className={css.count}>
          {n + 1} of {STOPS.length}
        </p>
        <h2>{stop.title}</h2>
        <p>{stop.words}</p>
        <div className={css.row}>
          <Button small onClick={leave}>
            Leave
          </Button>
          <span className={css.grow} />
          {n > 0 && (
            <Button small onClick={() => setN(n - 1)}>
              <ArrowLeft size={12} aria-hidden="true" /> Back
            </Button>
          )}
          <Button small main onClick={() => (n + 1 < STOPS.length ? setN(n + 1) : leave())}>
            {n + 1 < STOPS.length ? (
              <>
                Next <ArrowRight size={12} aria-hidden="true" />
              </>
            ) : (
              'Done'
            )}
          </Button>
        </div>
      </div>
    </>
  );
}
