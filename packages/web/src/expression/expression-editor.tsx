import {
  acceptCompletion,
  autocompletion,
  closeBrackets,
  completionStatus,
  moveCompletionSelection,
  selectedCompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { history, historyKeymap, standardKeymap } from '@codemirror/commands';
import { linter, type Diagnostic } from '@codemirror/lint';
import { EditorState, Prec } from '@codemirror/state';
import { EditorView, hoverTooltip, keymap, tooltips } from '@codemirror/view';
import {
  BUILTINS,
  signature,
  termsFor,
  type ExpressionFault,
  type PartValue,
} from '@crooked-lantern/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { Jump } from '../ui/button.tsx';
import { Kbd } from '../ui/pill.tsx';
import { partAtOffset, usePartValues } from './part-values.tsx';

const Box = styled.div`
  .cm-editor {
    border: 1px solid var(--sight);
    border-radius: 5px;
    background: var(--night);
  }
  .cm-editor.cm-focused {
    outline: none;
  }
  .cm-content {
    padding: 1px 0;
    font-family: var(--mono);
    caret-color: var(--bone);
  }
  .cm-line {
    padding: 0 4px;
  }
  .cm-cursor {
    border-color: var(--bone);
  }
  .cm-selectionBackground,
  .cm-editor.cm-focused .cm-selectionBackground {
    background: var(--line2) !important;
  }
  .cm-lintRange-error {
    background: none;
    text-decoration: underline wavy var(--harm);
  }
`;

const Problem = styled.p`
  margin-top: 2px;
  color: var(--harm);
  font-family: var(--text);
`;

const Below = styled.div`
  display: flex;
  flex-wrap: wrap;
  justify-content: end;
  gap: 0 12px;
  margin-top: 2px;
`;

const Ask = styled(Jump)`
  flex: none;
  font-size: 0.92em;
`;

const Now = styled.p`
  flex: 1;
  color: var(--mute);
  font-family: var(--mono);
  overflow-wrap: anywhere;
  b {
    color: var(--bone);
    font-weight: 400;
  }
`;

const look = EditorView.theme({
  '.cm-tooltip': {
    background: 'var(--panel)',
    color: 'var(--bone)',
    border: '1px solid var(--line2)',
    borderRadius: '6px',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--mono)', maxHeight: '14em' },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
    background: 'var(--line2)',
    color: 'var(--bone)',
  },
  '.cm-completionDetail': { fontStyle: 'normal', color: 'var(--mute)', fontFamily: 'var(--text)' },
  '.cm-value': { padding: '2px 8px', fontFamily: 'var(--mono)' },
  '.cm-completionInfo': { fontFamily: 'var(--text)', padding: '4px 8px', maxWidth: '30ch' },
});

export interface KnownKey {
  name: string;
  type: string;
  note?: string;
  /** Left out: in memory. */
  where?: 'tree';
}

/** Letters from which on built-ins are found by what else they are called. */
const ALIAS_FROM = 3;

/** Built-ins by the words practitioners have for them: `dot` offers `bearing`, with “dot product” beside it. */
function aliasOptions(typed: string, known: readonly Completion[]): Completion[] {
  const text = typed.toLowerCase();
  return termsFor(text).flatMap(({ term, aliases, builtins = [] }) => {
    const alias = [term, ...aliases].find((name) =>
      name
        .toLowerCase()
        .split(/[^a-z]+/)
        .some((word) => word.startsWith(text)),
    );
    if (alias === undefined) return [];
    return builtins.flatMap((name) => {
      const option = known.find(({ label }) => label === name || label === `${name}()`);
      if (!option || name.toLowerCase().startsWith(text)) return [];
      // It is matched by what was typed, and shown by what it is.
      return [{ ...option, label: typed, displayLabel: option.label, detail: alias, boost: -50 }];
    });
  });
}

/** The names an expression may use; those whose type fits come first. */
function completions(keys: readonly KnownKey[], wants: readonly string[], isDirector: boolean) {
  const fit = (type: string) => (wants.includes(type) ? 4 : 0);
  const options = [
    ...keys.map(({ name, type, note, where }) => ({
      label: name,
      detail: where === 'tree' ? `${type}, a parameter of the tree` : `${type} in memory`,
      info: note,
      boost: 2 + fit(type),
    })),
    ...BUILTINS.filter(({ directorOnly }) => isDirector || !directorOnly)
      .filter(({ name }, i, known) => known.findIndex((other) => other.name === name) === i)
      .map(({ name, parameters, result }) => ({
        label: parameters ? `${name}()` : name,
        apply: parameters
          ? (view: EditorView, _: unknown, from: number, to: number) => {
              view.dispatch({
                changes: { from, to, insert: `${name}()` },
                selection: { anchor: from + name.length + 1 },
              });
            }
          : name,
        detail: result,
        boost: fit(result),
        info: BUILTINS.filter((other) => other.name === name)
          .map((other) => `${signature(other)}: ${other.about}`)
          .join('; '),
      })),
  ];
  return (context: CompletionContext): CompletionResult | null => {
    const word = context.matchBefore(/[\w.]+/);
    if (!word && !context.explicit) return null;
    const from = word?.from ?? context.pos;
    // Until so much is typed that the trade's words are looked for too, the list is made again with each letter.
    if (!word || word.text.length < ALIAS_FROM) return { from, options };
    return {
      from,
      options: [...options, ...aliasOptions(word.text, options)],
      validFor: /^[\w.]*$/,
    };
  };
}

/** Marks the field with the name at the cursor, for the reference. */
function markWord({ state }: EditorView, field: HTMLElement | null): void {
  const { head } = state.selection.main;
  const [before] = /[\w.]*$/.exec(state.sliceDoc(0, head)) ?? [''];
  const [behind] = /^[\w.]*/.exec(state.sliceDoc(head)) ?? [''];
  field?.setAttribute('data-reference', `builtin ${before}${behind}`);
}

/** Enter takes a completion only where one was chosen with the arrows; else it keeps what is typed. */
function takeChosen(view: EditorView): boolean {
  return selectedCompletion(view.state) !== null && acceptCompletion(view);
}

/** Tab takes the chosen completion, or the first. */
function takeFirst(view: EditorView): boolean {
  if (completionStatus(view.state) !== 'active') return false;
  if (selectedCompletion(view.state) === null) moveCompletionSelection(true)(view);
  return acceptCompletion(view);
}

/** The value of the part under the pointer, beside it. */
function valueOnHover(values: () => readonly PartValue[] | null) {
  return hoverTooltip((_, offset) => {
    const part = partAtOffset(values(), offset);
    if (!part) return null;
    const [pos, end] = part.at;
    return {
      pos,
      end,
      above: true,
      create({ state }) {
        const dom = document.createElement('div');
        dom.className = 'cm-value';
        dom.textContent = `${state.sliceDoc(pos, end)} is ${part.value}`;
        return { dom };
      },
    };
  });
}

/** A question asked while an expression is edited: what was written until then, and what the answer goes between. */
export interface Asked {
  text: string;
  before: string;
  after: string;
}

export interface ExpressionEditorProps {
  label: string;
  value: string;
  /** Whose values are shown; null for what belongs to no mind. */
  mind: string | null;
  /** The tree it is written in. */
  tree: string | undefined;
  keys: readonly KnownKey[];
  /** Types that fit here. */
  wants: readonly string[];
  /** What only a director may ask is offered too. */
  isDirector: boolean;
  check: (source: string) => Promise<ExpressionFault[]>;
  onCommit: (value: string, byKey: boolean) => void;
  onCancel: () => void;
  /** Asks for an expression by questions, which then takes the place of what was chosen. */
  onAsk: (rest: Asked) => void;
}

/** One line of expression, checked and completed as it is typed. Enter keeps it, faults and all: a broken one stays a draft that does not run. */
export default function ExpressionEditor({
  label,
  value,
  mind,
  tree,
  keys,
  wants,
  isDirector,
  check,
  onCommit,
  onCancel,
  onAsk,
}: ExpressionEditorProps) {
  const host = useRef<HTMLDivElement>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [text, setText] = useState({ source: value, caret: value.length });
  const values = usePartValues(mind, text.source, tree);
  const shownValues = useRef(values);
  shownValues.current = values;
  // The editor owns its text from here on; a new value means a new editor.
  const initial = useRef({ value, label, keys, wants, isDirector });
  const latest = useRef({ check, onCommit, onCancel, onAsk, done: false });
  latest.current = { ...latest.current, check, onCommit, onCancel, onAsk };
  const editor = useRef<EditorView>(null);
  const askInstead = useRef(({ state }: EditorView) => {
    const { from, to } = state.selection.main;
    latest.current.done = true;
    const text = state.doc.toString();
    latest.current.onAsk({ text, before: text.slice(0, from), after: text.slice(to) });
    return true;
  });

  useEffect(() => {
    latest.current.done = false;
    const first = initial.current;
    const finish = (view: EditorView, byKey: boolean) => {
      if (latest.current.done) return true;
      latest.current.done = true;
      latest.current.onCommit(view.state.doc.toString().trim(), byKey);
      return true;
    };
    const view = new EditorView({
      parent: host.current!,
      state: EditorState.create({
        doc: first.value,
        selection: { anchor: 0, head: first.value.length },
        extensions: [
          look,
          tooltips({ parent: document.body }),
          closeBrackets(),
          autocompletion({
            override: [completions(first.keys, first.wants, first.isDirector)],
            icons: false,
            interactionDelay: 0,
            selectOnOpen: false,
          }),
          EditorView.contentAttributes.of({ 'aria-label': first.label }),
          EditorView.lineWrapping,
          EditorState.transactionFilter.of((transaction) =>
            transaction.newDoc.lines > 1 ? [] : transaction,
          ),
          linter(
            async (current): Promise<Diagnostic[]> => {
              const length = current.state.doc.length;
              const faults = await latest.current.check(current.state.doc.toString());
              setFault(faults[0]?.message ?? null);
              return faults.map(({ at: [from, to], message }) => ({
                from: Math.min(from, length),
                to: Math.min(Math.max(to, from), length),
                severity: 'error',
                message,
              }));
            },
            { delay: 120 },
          ),
          Prec.highest(
            keymap.of([
              { key: 'Enter', run: (current) => takeChosen(current) || finish(current, true) },
              { key: 'Tab', run: takeFirst },
              { key: 'F2', run: (current) => askInstead.current(current) },
              {
                key: 'Escape',
                run: (current) => {
                  if (completionStatus(current.state) === 'active') return false;
                  latest.current.done = true;
                  latest.current.onCancel();
                  return true;
                },
              },
            ]),
          ),
          history(),
          EditorView.updateListener.of(({ view: current, state, docChanged, selectionSet }) => {
            markWord(current, host.current);
            if (!docChanged && !selectionSet) return;
            setText({ source: state.doc.toString(), caret: state.selection.main.head });
          }),
          valueOnHover(() => shownValues.current),
          keymap.of([...standardKeymap, ...historyKeymap]),
          EditorView.domEventHandlers({
            blur: (_, current) => {
              finish(current, false);
            },
          }),
        ],
      }),
    });
    editor.current = view;
    view.focus();
    return () => {
      latest.current.done = true;
      view.destroy();
    };
  }, []);

  const part = partAtOffset(values, text.caret);
  const isWhole = part === values?.[0];
  return (
    <Box>
      <div ref={host} />
      <Below>
        {part && !fault && (
          <Now data-testid="part-value">
            {isWhole ? 'now' : `${text.source.slice(...part.at)} is`} <b>{part.value}</b>
          </Now>
        )}
        <Ask
          type="button"
          tabIndex={-1}
          // The editor keeps the focus: losing it ends the editing.
          onPointerDown={(event) => event.preventDefault()}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => editor.current && askInstead.current(editor.current)}
        >
          ask by questions <Kbd>F2</Kbd>
        </Ask>
      </Below>
      {fault && <Problem role="alert">{fault}</Problem>}
    </Box>
  );
}
