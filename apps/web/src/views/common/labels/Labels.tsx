import {
  createContext,
  type ReactNode,
  useContext,
  useLayoutEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from 'react';
import { type Placed, placeLabels, type Wish } from './place';

/** What the layers of one picture want written. */
function board() {
  const wishes = new Map<string, Wish[]>();
  const listeners = new Set<() => void>();
  let all: Wish[] = [];
  const tell = () => {
    all = [...wishes.values()].flat();
    for (const listen of listeners) listen();
  };
  return {
    set(key: string, list: Wish[]) {
      wishes.set(key, list);
      tell();
    },
    drop(key: string) {
      if (wishes.delete(key)) tell();
    },
    subscribe(listen: () => void) {
      listeners.add(listen);
      return () => listeners.delete(listen);
    },
    now: () => all,
  };
}

const Board = createContext<ReturnType<typeof board> | null>(null);

/** Holds what the layers inside want written; `Labels` among them writes it. */
export function LabelBoard({ children }: { children: ReactNode }) {
  const [held] = useState(board);
  return <Board.Provider value={held}>{children}</Board.Provider>;
}

/** Ask for labels, for as long as the asking component is there. */
export function useLabels(key: string, wishes: Wish[]): void {
  const held = useContext(Board);
  const state = JSON.stringify(wishes);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the state stands for the wishes
  useLayoutEffect(() => {
    held?.set(key, wishes);
    return () => held?.drop(key);
  }, [held, key, state]);
}

let measure: CanvasRenderingContext2D | null | undefined;

/** Width of a text in the interface's type at 11 px. */
function widthOf(text: string, bold: boolean): number {
  measure ??= typeof document === 'undefined' ? null : document.createElement('canvas').getContext('2d');
  if (!measure) return text.length * 6.4;
  measure.font = `${bold ? 640 : 560} 11px "Hanken Grotesk Variable", sans-serif`;
  return measure.measureText(text)?.width ?? text.length * 6.4;
}

const NONE: Wish[] = [];

/** Writes what was asked for so that nothing covers anything else. Its colours come from the data's ground, not from the theme. */
export function Labels({ room }: { room: { left: number; top: number; width: number; height: number } }) {
  const held = useContext(Board);
  const wishes = useSyncExternalStore(
    (listen) => held?.subscribe(listen) ?? (() => undefined),
    () => held?.now() ?? NONE,
  );
  const { left, top, width, height } = room;
  const placed = useMemo(
    () => placeLabels(wishes, { left, top, width, height }, widthOf),
    [wishes, left, top, width, height],
  );
  return (
    <g>
      {placed.map((label: Placed) => (
        <text
          key={label.id}
          x={label.x}
          y={label.turn === undefined ? label.y : label.y + 4}
          transform={label.turn === undefined ? undefined : `rotate(${label.turn.toFixed(1)} ${label.x} ${label.y})`}
          textAnchor={label.anchor ?? 'start'}
          style={{
            fill: label.color,
            stroke: '#fffdf7',
            strokeWidth: 3,
            paintOrder: 'stroke',
            fontWeight: label.bold ? 640 : 560,
          }}
        >
          {label.text}
        </text>
      ))}
    </g>
  );
}
