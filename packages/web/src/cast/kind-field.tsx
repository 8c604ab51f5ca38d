import { Undo2 } from 'lucide-react';
import styled from 'styled-components';
import { QuietButton } from '../ui/button.tsx';
import { ChoiceField, NumberField, type Option } from '../ui/fields.tsx';
import { valueAt, type FieldPath } from './kind-values.ts';
import type { KindEditor } from './use-cast.ts';

const Own = styled.span`
  margin-left: 4px;
  color: var(--found);
  white-space: nowrap;
  button {
    min-height: 20px;
    color: inherit;
  }
`;

/** That an agent has a field otherwise than its archetype, and the way back. */
export function OwnMark({
  editor,
  path,
  label,
  usual,
}: {
  editor: KindEditor;
  path: FieldPath;
  label: string;
  /** What the archetype has. */
  usual: string;
}) {
  if (!editor.base || !editor.isOwn(path)) return null;
  const title = `${label} of ${editor.of} is its own; ${editor.base.title} has ${usual}. Go back to that`;
  return (
    <Own>
      own
      <QuietButton aria-label={title} onPress={() => editor.put(path, undefined)}>
        <Undo2 size={12} /> {usual}
      </QuietButton>
    </Own>
  );
}

export interface KindNumberProps {
  path: FieldPath;
  label: string;
  unit?: string;
  minimum: number;
  maximum: number;
  whole?: boolean;
  /** What holds where it is left out. */
  fallback?: number;
  /** What it means that it is left out, where no number says it. */
  none?: string;
}

export function KindNumber({
  editor,
  path,
  label,
  unit,
  minimum,
  maximum,
  whole,
  fallback,
  none,
}: KindNumberProps & { editor: KindEditor }) {
  const text = (value: unknown) =>
    value === undefined && fallback === undefined
      ? (none ?? '—')
      : `${String(value ?? fallback)}${unit ? ` ${unit}` : ''}`;
  const value = valueAt(editor.kind, path) as number | undefined;
  return (
    <NumberField
      label={label}
      of={editor.of}
      value={value ?? fallback ?? NaN}
      shown={value === undefined && none !== undefined ? none : undefined}
      unit={value === undefined && none !== undefined ? undefined : unit}
      minimum={minimum}
      maximum={maximum}
      whole={whole}
      onCommit={(next) => editor.put(path, next === fallback && !editor.base ? undefined : next)}
    >
      {none !== undefined && value !== undefined && !editor.base && (
        <QuietButton
          aria-label={`${label} of ${editor.of}: ${none}`}
          style={{ minHeight: 20 }}
          onPress={() => editor.put(path, undefined)}
        >
          {none}
        </QuietButton>
      )}
      <OwnMark
        editor={editor}
        path={path}
        label={label}
        usual={text(valueAt(editor.base ?? {}, path))}
      />
    </NumberField>
  );
}

export function KindChoice({
  editor,
  path,
  label,
  options,
  none,
}: {
  editor: KindEditor;
  path: FieldPath;
  label: string;
  options: readonly Option[];
  /** The name of having none, where that can be chosen. */
  none?: string;
}) {
  const title = (value: unknown) =>
    options.find(({ id }) => id === value)?.title ??
    (value === undefined ? (none ?? '—') : String(value));
  const value = valueAt(editor.kind, path) as string | undefined;
  // An agent can have another, but can't be without what its archetype has.
  const withNone = none !== undefined && (!editor.base || valueAt(editor.base, path) === undefined);
  return (
    <ChoiceField
      label={label}
      of={editor.of}
      value={value ?? ''}
      options={withNone ? [{ id: '', title: none }, ...options] : options}
      onChoose={(id) => editor.put(path, id === '' ? undefined : id)}
    >
      <OwnMark
        editor={editor}
        path={path}
        label={label}
        usual={title(valueAt(editor.base ?? {}, path))}
      />
    </ChoiceField>
  );
}
