import { asideOf, type EarthObject, kindNamed } from '@lithagon/core';
import { ChevronRight, Eye, EyeOff } from 'lucide-react';
import { useMemo, useState } from 'react';
import { canShow, isLayered, seenIn, setEyes, toggleIn } from '../../actions/contents';
import { showObject } from '../../actions/show';
import { colorOf } from '../../kinds';
import { useDesk } from '../../state/desk';
import { useProject } from '../../state/project';
import { select, useSelection } from '../../state/selection';
import { useUnits } from '../../state/units';
import { kindOfView, titleOf } from '../../state/views';
import { IconButton } from '../../ui/Button';
import { DRAGGED } from '../../views/common/useDropped';
import css from './Tray.module.css';

/** A group with more than this is folded until it is opened. */
const MANY = 12;

/** The last view in front that holds a list of objects: its eyes are those of the tray. */
function useEyes(): string | null {
  return useDesk(({ active, recent }) => {
    const id = [active, ...recent].find((each) => each !== null && isLayered(kindOfView(each)));
    return id ?? null;
  });
}

/** What is seen in a view, worked out anew when its list or the project changes. */
function useSeen(view: string | null): Set<string> {
  const state = useDesk((s) => (view ? s.views[view] : undefined));
  const volume = useDesk((s) => s.volume);
  const objects = useProject((s) => s.objects);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the view's state, the desk's volume and the objects are what it rests on
  return useMemo(() => (view ? seenIn(view) : new Set<string>()), [view, state, volume, objects]);
}

/** Objects of a bed by kind; what belongs to a well under its well. */
export function Members({ objects: held, text }: { objects: EarthObject[]; text: string }) {
  const view = useEyes();
  const seen = useSeen(view);
  const [open, setOpen] = useState<Record<string, boolean>>({});
  const selected = useSelection((s) => s.object);
  const old = useProject((s) => s.old);
  const waiting = useProject((s) => s.waiting);
  const wanted = text.trim().toLowerCase();
  const tree = useMemo(() => {
    const wells = new Map(held.filter((o) => o.kind === 'well').map((o) => [o.name, o]));
    const under = new Map<string, EarthObject[]>();
    const loose: EarthObject[] = [];
    for (const o of held) {
      const well = 'well' in o && typeof o.well === 'string' ? wells.get(o.well) : undefined;
      if (well) under.set(well.id, [...(under.get(well.id) ?? []), o]);
      else loose.push(o);
    }
    return { under, loose };
  }, [held]);
  const matches = (o: EarthObject): boolean =>
    `${o.name} ${o.kind}`.toLowerCase().includes(wanted) || (tree.under.get(o.id) ?? []).some(matches);
  const kinds = [...new Set(tree.loose.map((o) => o.kind))];
  const alert = (o: EarthObject): boolean =>
    old.has(o.id) || waiting.has(o.id) || (tree.under.get(o.id) ?? []).some(alert);
  return (
    <>
      {kinds.map((kind) => {
        const members = tree.loose.filter((o) => o.kind === kind && (wanted === '' || matches(o)));
        const whole = tree.loose.filter((o) => o.kind === kind).length;
        if (members.length === 0) return null;
        const unfolded = open[kind] ?? (members.length <= MANY || wanted !== '');
        // what is selected or needs attention stays in sight
        const listed = unfolded ? members : members.filter((o) => o.id === selected || alert(o));
        return (
          <section key={kind}>
            <h3>
              <button
                type="button"
                className={css.fold}
                aria-expanded={unfolded}
                aria-label={`${unfolded ? 'Fold' : 'Unfold'} ${kindNamed(kind).plural}`}
                onClick={() => setOpen((s) => ({ ...s, [kind]: !unfolded }))}
              >
                <ChevronRight size={12} aria-hidden="true" />
                {kindNamed(kind).plural}
              </button>
              <span className={`num ${css.count}`}>
                {members.length < whole ? `${members.length} of ${whole}` : whole}
              </span>
              <GroupEye {...{ members, kind, view, seen }} />
            </h3>
            {listed.map((o) => {
              const parts = tree.under.get(o.id) ?? [];
              const found = wanted === '' || o.name.toLowerCase().includes(wanted) ? parts : parts.filter(matches);
              const key = `of ${o.id}`;
              const shown =
                open[key] ??
                ((wanted !== '' && !o.name.toLowerCase().includes(wanted)) ||
                  parts.some((p) => p.id === selected || alert(p)));
              return (
                <div key={o.id}>
                  <ObjectRow
                    {...{ object: o, view, seen }}
                    fold={
                      parts.length > 0
                        ? { open: shown, count: parts.length, toggle: () => setOpen((s) => ({ ...s, [key]: !shown })) }
                        : undefined
                    }
                  />
                  {shown && found.map((p) => <ObjectRow key={p.id} {...{ object: p, view, seen }} within={o.name} />)}
                </div>
              );
            })}
          </section>
        );
      })}
      {wanted !== '' && !held.some(matches) && <p className={css.summary}>Nothing here is called that.</p>}
    </>
  );
}

interface Eyes {
  /** The view whose eyes these are, and what is seen in it. */
  view: string | null;
  seen: Set<string>;
}

/** Shows or hides all of a kind in the view in front. */
function GroupEye({ members, kind, view, seen }: Eyes & { members: EarthObject[]; kind: EarthObject['kind'] }) {
  if (!view || members.length < 2 || !canShow(view, members[0]) || kind === 'volume' || kind === 'seismic line')
    return null;
  const some = members.some((o) => seen.has(o.id));
  return (
    <IconButton
      className={css.eye}
      label={`${some ? 'Hide' : 'Show'} all ${kindNamed(kind).plural.toLowerCase()} in ${titleOf(view)}`}
      onClick={() => setEyes(view, members, !some)}
    >
      {some ? <Eye size={13} /> : <EyeOff size={13} />}
    </IconButton>
  );
}

function ObjectRow(
  props: Eyes & {
    object: EarthObject;
    /** The well that it stands under. */
    within?: string;
    fold?: { open: boolean; count: number; toggle(): void };
  },
) {
  const { object, within, fold, view } = props;
  const objects = useProject((s) => s.objects);
  const old = useProject((s) => s.old);
  const waiting = useProject((s) => s.waiting);
  const selected = useSelection((s) => s.object === object.id);
  const units = useUnits();
  const aside = old.has(object.id) ? 'out of date' : waiting.has(object.id) ? 'waits' : asideOf(object, units);
  const why = () => {
    if (old.has(object.id)) return `Out of date: ${old.get(object.id)}`;
    return waiting.has(object.id) ? `Waits for ${waiting.get(object.id)}` : object.name;
  };
  const seen = props.seen.has(object.id);
  return (
    <div className={`${css.row} ${selected ? css.selected : ''} ${within ? css.within : ''}`}>
      {fold && (
        <button
          type="button"
          className={css.foldWell}
          aria-expanded={fold.open}
          aria-label={`What ${object.name} has, ${fold.count}`}
          onClick={fold.toggle}
        >
          <ChevronRight size={12} aria-hidden="true" />
        </button>
      )}
      <button
        type="button"
        className={css.object}
        aria-pressed={selected}
        title={why()}
        draggable
        onDragStart={(event) => {
          event.dataTransfer.setData(DRAGGED, object.id);
          event.dataTransfer.effectAllowed = 'copy';
        }}
        onClick={() => select(object.id)}
        onDoubleClick={() => showObject(object)}
      >
        <i style={{ background: colorOf(object, objects) }} />
        <span>{object.name}</span>
        <small className={old.has(object.id) || waiting.has(object.id) ? css.old : ''}>{aside}</small>
      </button>
      {view && canShow(view, object) && (
        <IconButton
          className={`${css.eye} ${seen ? css.open : ''}`}
          label={`${seen ? 'Hide' : 'Show'} ${object.name} in ${titleOf(view)}`}
          aria-pressed={seen}
          onClick={() => toggleIn(view, object)}
        >
          {seen ? <Eye size={13} /> : <EyeOff size={13} />}
        </IconButton>
      )}
    </div>
  );
}
