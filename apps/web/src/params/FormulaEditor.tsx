import {
  acceptCompletion,
  autocompletion,
  type CompletionContext,
  closeBrackets,
  closeBracketsKeymap,
  completionKeymap,
} from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands';
import { bracketMatching } from '@codemirror/language';
import { type Diagnostic, linter } from '@codemirror/lint';
import { Compartment, EditorState, RangeSetBuilder } from '@codemirror/state';
import { Decoration, EditorView, keymap, ViewPlugin, type ViewUpdate } from '@codemirror/view';
import { FUNCTION_NAMES, partsOfFormula, troublesOfFormula } from '@lithagon/core';
import { type Ref, useEffect, useImperativeHandle, useRef } from 'react';
import css from './FormulaEditor.module.css';

export interface FormulaHands {
  /** Put a name where the caret is. */
  put(name: string): void;
}

interface Props {
  id: string;
  label: string;
  value: string;
  /** What may be named, and the unit that each has. */
  units: ReadonlyMap<string, string>;
  onChange(value: string): void;
  hands: Ref<FormulaHands>;
}

const LOOK = {
  name: Decoration.mark({ class: css.name }),
  function: Decoration.mark({ class: css.function }),
  number: Decoration.mark({ class: css.number }),
  text: Decoration.mark({ class: css.text }),
};

function decorated(view: EditorView) {
  const out = new RangeSetBuilder<Decoration>();
  for (const part of partsOfFormula(view.state.doc.toString()))
    if (part.is !== 'sign') out.add(part.from, part.to, LOOK[part.is]);
  return out.finish();
}

const coloured = ViewPlugin.fromClass(
  class {
    decorations;
    constructor(view: EditorView) {
      this.decorations = decorated(view);
    }
    update(update: ViewUpdate) {
      if (update.docChanged) this.decorations = decorated(update.view);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

/** Names as they are typed, each with its unit, and functions. */
const offered = (units: Props['units']) => (context: CompletionContext) => {
  const word = context.matchBefore(/[A-Za-z_]\w*/);
  if (!word && !context.explicit) return null;
  return {
    from: word?.from ?? context.pos,
    options: [
      ...[...units].map(([label, unit]) => ({ label, detail: unit, boost: 1 })),
      ...FUNCTION_NAMES.map((label) => ({ label, detail: 'function', apply: `${label}(` })),
    ],
  };
};

const troubles = (units: Props['units']) =>
  linter(
    (view): Diagnostic[] =>
      troublesOfFormula(view.state.doc.toString(), [...units.keys()]).map(({ from, to, says }) => ({
        from,
        to,
        severity: 'error',
        message: says,
      })),
    { delay: 250 },
  );

/** Where a formula is typed: names, functions and numbers told apart, offered as one types, and what is wrong marked at its place. */
export default function FormulaEditor({ id, label, value, units, onChange, hands }: Props) {
  const place = useRef<HTMLDivElement>(null);
  const editor = useRef<EditorView>(null);
  const names = useRef(new Compartment());
  const changed = useRef(onChange);
  changed.current = onChange;
  const byUnits = (of: Props['units']) => [autocompletion({ override: [offered(of)], icons: false }), troubles(of)];
  // biome-ignore lint/correctness/useExhaustiveDependencies: the editor is made once and told of changes below
  useEffect(() => {
    if (!place.current) return;
    const view = new EditorView({
      parent: place.current,
      state: EditorState.create({
        doc: value,
        extensions: [
          history(),
          bracketMatching(),
          closeBrackets(),
          coloured,
          names.current.of(byUnits(units)),
          EditorView.lineWrapping,
          // a formula is one line, however long: Enter takes what is offered and breaks nothing, nor does what is pasted
          EditorView.clipboardInputFilter.of((text) => text.trim().replace(/\s*\n\s*/g, ' ')),
          keymap.of([
            { key: 'Enter', run: (view) => acceptCompletion(view) || true },
            { key: 'Tab', run: acceptCompletion },
            ...completionKeymap,
            ...closeBracketsKeymap,
            ...defaultKeymap,
            ...historyKeymap,
          ]),
          EditorView.contentAttributes.of({ id, 'aria-label': label, spellcheck: 'false' }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) changed.current(update.state.doc.toString());
          }),
        ],
      }),
    });
    editor.current = view;
    return () => view.destroy();
  }, []);
  // what was changed elsewhere, as by undo or another well
  useEffect(() => {
    const view = editor.current;
    if (view && view.state.doc.toString() !== value)
      view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: value } });
  }, [value]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: names are compared by what they say
  useEffect(() => {
    editor.current?.dispatch({ effects: names.current.reconfigure(byUnits(units)) });
  }, [JSON.stringify([...units])]);
  useImperativeHandle(hands, () => ({
    put(name) {
      const view = editor.current;
      if (!view) return;
      view.dispatch(view.state.replaceSelection(name));
      view.focus();
    },
  }));
  return <div ref={place} className={css.editor} />;
}
