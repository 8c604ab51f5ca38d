import {
  directingMinds,
  NAME_PATTERN,
  namesOf,
  namesWithin,
  wantedTypes,
  type ExpressionPlace,
  type Finding,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { Suspense, useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { useEngine } from '../engine/use-engine.tsx';
import { Jump } from '../ui/button.tsx';
import { useLookedAt } from '../ui/overlays/tooltip.tsx';
import { useDeclareKey } from './declare-key.tsx';
import { PartValues } from './part-values.tsx';
import type { Asked, KnownKey } from './expression-editor.tsx';
import { latePart, overThePage } from '../loading/late-part.tsx';

export const ExpressionEditor = latePart('the editor of expressions', () =>
  import('./expression-editor.tsx').then((file) => file.default),
);
const QuestionDialog = latePart(
  'the questions',
  () => import('./question-dialog.tsx').then((file) => file.QuestionDialog),
  overThePage,
);

const Shown = styled.button`
  max-width: 100%;
  min-height: 24px;
  padding: 0 4px;
  border: 1px solid transparent;
  border-radius: 5px;
  background: none;
  color: var(--bone);
  font-family: var(--mono);
  text-align: left;
  overflow-wrap: anywhere;
  cursor: text;
  &:hover {
    border-color: var(--line2);
  }
  mark {
    background: none;
    color: inherit;
    text-decoration: underline wavy var(--harm);
  }
`;

const Problem = styled.p`
  padding-left: 5px;
  color: var(--harm);
`;

/** The text with what a finding means underlined. */
function marked(value: string, finding: Finding | undefined) {
  if (!finding) return value;
  const [from, to] = finding.at ?? [0, value.length];
  return (
    <>
      {value.slice(0, from)}
      <mark>{value.slice(from, Math.max(to, from + 1)) || ' '}</mark>
      {value.slice(Math.max(to, from + 1))}
    </>
  );
}

function keysFor(
  minds: ProjectDocument['minds'],
  mind: string | null,
  tree: string | undefined,
): KnownKey[] {
  const keys = Object.entries(minds).flatMap(([name, { memory = {} }]) =>
    namesOf(memory).flatMap((key) => {
      const { type, note, scope = 'self' } = memory[key];
      const readable = mind === null ? scope !== 'self' : name === mind;
      return readable ? [{ name: key, type, note }] : [];
    }),
  );
  const parameters = mind === null ? {} : namesWithin(minds[mind], tree);
  const all: KnownKey[] = [
    ...namesOf(parameters).map((name) => ({
      name,
      type: parameters[name],
      where: 'tree' as const,
    })),
    ...keys,
  ];
  // A parameter hides the key of its name.
  return all.filter((key, i) => all.findIndex(({ name }) => name === key.name) === i);
}

interface Names {
  keys: KnownKey[];
  /** Types that fit at the place. */
  wants: readonly string[];
  /** It belongs to the mind of a director. */
  isDirector: boolean;
}

/** The names an expression may use, read only while it is edited: they change with every edit of a mind. */
function WithNames({
  mind,
  place,
  children,
}: {
  mind: string | null;
  place: ExpressionPlace;
  children: (names: Names) => ReactNode;
}) {
  const minds = useProject((project) => project.document.minds);
  const isDirector = useProject(
    ({ document }) => mind !== null && directingMinds(document).has(mind),
  );
  const tree = 'tree' in place ? place.tree : undefined;
  const keys = useMemo(() => keysFor(minds, mind, tree), [minds, mind, tree]);
  const wants =
    wantedTypes(place, (key) => (mind === null ? undefined : minds[mind]?.memory?.[key]?.type)) ??
    [];
  return children({ keys, wants, isDirector });
}

/** Offers to declare the name that a finding misses, as a key of the mind. */
function DeclareMissing({ mind, name }: { mind: string; name: string }) {
  const { ask, dialog } = useDeclareKey(mind);
  // A name with a dot belongs to the language.
  if (!NAME_PATTERN.test(name)) return null;
  return (
    <>
      {' '}
      <Jump type="button" onClick={() => ask({ name, onDeclared: () => {} })}>
        Declare {name} in memory
      </Jump>
      {dialog}
    </>
  );
}

export interface ExpressionFieldProps {
  /** Null for what belongs to no mind: it may read shared memory only. */
  mind: string | null;
  /** What is edited, for readers: “guard 1 of Chase”. */
  label: string;
  value: string;
  /** Path in the document, by which findings find their place. */
  path: string;
  place: ExpressionPlace;
  onCommit: (value: string) => void;
  /** The text was cleared: leaves the expression out, or gives why it can't be. Without it, it is kept. */
  onClear?: () => string | null;
  /** It is open as soon as it is there. */
  startsOpen?: boolean;
}

/** An expression that is edited where it stands. Its errors show here, also while it is not being edited. */
export function ExpressionField({
  mind,
  label,
  value,
  path,
  place,
  onCommit,
  onClear = () => 'It can’t be left empty.',
  startsOpen = false,
}: ExpressionFieldProps) {
  const engine = useEngine();
  const finding = useProject((project) =>
    project.findings.find((candidate) => candidate.path === path),
  );
  const tree = 'tree' in place ? place.tree : undefined;
  const [editing, setEditing] = useState(startsOpen);
  const [asking, setAsking] = useState<Asked | null>(null);
  /** What was written when a question was asked that got no answer. */
  const [draft, setDraft] = useState<string | null>(null);
  /** Why a cleared expression was kept. */
  const [kept, setKept] = useState<string | null>(null);
  const shown = useRef<HTMLButtonElement>(null);
  const returnFocus = useRef(false);
  const looked = useLookedAt(
    shown,
    mind === null ? null : () => <PartValues mind={mind} source={value} tree={tree} />,
  );
  useEffect(() => {
    if (editing || asking || !returnFocus.current) return;
    returnFocus.current = false;
    shown.current?.focus();
  }, [editing, asking]);

  if (asking) {
    // After an operator it is a value that is wanted, of whatever type.
    const isValue = /[-+*/%<>=,(]\s*$/.test(asking.before);
    return (
      <Suspense fallback={<code>{value}</code>}>
        <code>{value}</code>
        <WithNames mind={mind} place={place}>
          {({ keys, wants, isDirector }) => (
            <QuestionDialog
              isDirector={isDirector}
              mind={mind}
              tree={tree}
              keys={keys}
              wants={isValue ? [] : wants}
              onTake={(expression) => {
                setAsking(null);
                onCommit(`${asking.before}${expression}${asking.after}`.trim());
                returnFocus.current = true;
              }}
              onClose={() => {
                setDraft(asking.text);
                setAsking(null);
                setEditing(true);
              }}
            />
          )}
        </WithNames>
      </Suspense>
    );
  }
  if (editing) {
    const end = (byKey: boolean) => {
      returnFocus.current = byKey;
      setEditing(false);
      setDraft(null);
    };
    return (
      <Suspense fallback={<code>{value}</code>}>
        <WithNames mind={mind} place={place}>
          {({ keys, wants, isDirector }) => (
            <ExpressionEditor
              isDirector={isDirector}
              label={label}
              value={draft ?? value}
              mind={mind}
              tree={tree}
              keys={keys}
              wants={wants}
              check={(source) => engine.checkExpression(mind, source, place)}
              onCommit={(next, byKey) => {
                end(byKey);
                if (next === '') setKept(onClear());
                else if (next !== value) onCommit(next);
              }}
              onCancel={() => end(true)}
              onAsk={(rest) => {
                end(false);
                setAsking(rest);
              }}
            />
          )}
        </WithNames>
      </Suspense>
    );
  }
  return (
    <div>
      <Shown
        ref={shown}
        type="button"
        aria-label={`${label}: ${value}. Edit`}
        {...looked.props}
        onClick={() => {
          setKept(null);
          setEditing(true);
        }}
      >
        {marked(value, finding)}
      </Shown>
      {looked.box}
      {finding && (
        <Problem role="alert">
          {finding.message}
          {mind !== null && finding.unknown !== undefined && (
            <DeclareMissing mind={mind} name={finding.unknown} />
          )}
        </Problem>
      )}
      {kept && <Problem role="alert">{kept}</Problem>}
    </div>
  );
}
