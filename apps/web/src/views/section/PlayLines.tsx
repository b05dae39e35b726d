import { Pause, Play } from 'lucide-react';
import { useEffect } from 'react';
import { stepLine } from '../../actions/lines';
import { useHere } from '../../state/here';
import { play, usePlaying } from '../../state/playing';
import css from '../common/view.module.css';

/** Lines a second. */
const SPEEDS = [1, 2, 5, 10];

/** Lets the lines of this view go by for as long as it is asked to. */
export function usePlayedLines(): void {
  const here = useHere();
  const perSecond = usePlaying((s) => s[here] ?? 0);
  useEffect(() => {
    if (perSecond === 0) return;
    const timer = setInterval(() => stepLine(1, here), 1000 / perSecond);
    return () => clearInterval(timer);
  }, [perSecond, here]);
}

/** Lines one after the other, by themselves. */
export function PlayLines() {
  const here = useHere();
  const speed = usePlaying((s) => s[here] ?? 0);
  return (
    <span className={css.menuField}>
      <button
        type="button"
        className={css.menuAct}
        aria-pressed={speed > 0}
        onClick={() => play(here, speed > 0 ? 0 : 2)}
      >
        {speed > 0 ? <Pause size={14} aria-hidden="true" /> : <Play size={14} aria-hidden="true" />}
        {speed > 0 ? 'Stop' : 'Play the lines'}
      </button>
      {speed > 0 && (
        <select aria-label="Lines a second" value={speed} onChange={(e) => play(here, Number(e.target.value))}>
          {SPEEDS.map((s) => (
            <option key={s} value={s}>
              {s} a second
            </option>
          ))}
        </select>
      )}
    </span>
  );
}
