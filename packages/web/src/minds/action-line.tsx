import {
  ACTIONS,
  actionSpec,
  type ActionDocument,
  type ActionName,
  type ParameterSpec,
  type ProjectDocument,
  namesOf,
} from '@crooked-lantern/core';
import { X } from 'lucide-react';
import { Fragment, type ReactNode } from 'react';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { QuietButton } from '../ui/button.tsx';
import { InlineText } from '../ui/inline-text.tsx';
import { NumberText } from '../ui/number-text.tsx';
import { Menu, type MenuEntry } from '../ui/menu.tsx';
import { ExpressionField } from '../expression/expression-field.tsx';
import { useDeclareKey } from './declare-key.tsx';
import { RowFindings } from './row-findings.tsx';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 4px;
  > button:last-of-type {
    opacity: 0;
  }
  &:hover > button:last-of-type,
  > button:last-of-type:focus-visible {
    opacity: 1;
  }
`;

const Word = styled.span`
  color: var(--bone);
`;

const Small = styled.span`
  color: var(--mute);
`;

const Choice = styled(QuietButton)`
  min-height: 20px;
  color: var(--bone);
  font-family: var(--mono);
  font-weight: 400;
`;

const FALLBACK_VALUES: Record<ParameterSpec['kind'], string | number> = {
  number: 1,
  place: 'attention.place',
  agent: 'attention.of',
  thing: 'found.thing',
  gate: 'gate',
  route: 'self.route',
  gait: 'walk',
  key: 'key',
  list: 'list',
  value: 'attention.of',
  text: 'Who is there?',
  word: 'seen',
  pattern: '',
  event: 'signal',
};

/** Gaits that every body with this mind has. */
function gaitsOf(document: ProjectDocument, mind: string): string[] {
  const bodies = namesOf(document.archetypes)
    .map((name) => document.archetypes[name])
    .filter((archetype) => archetype.mind === mind || archetype.minds?.includes(mind));
  return namesOf(bodies[0]?.gaits ?? {}).filter((gait) =>
    bodies.every((body) => gait in body.gaits),
  );
}

/** Keys an action may name: lists, or those with one value. */
function keysFor(document: ProjectDocument, mind: string, kind: 'key' | 'list'): string[] {
  const memory = document.minds[mind].memory ?? {};
  return namesOf(memory).filter((key) => memory[key].type.startsWith('list') === (kind === 'list'));
}

/** What a parameter that takes a name can be given. */
function namesFor(document: ProjectDocument, mind: string, spec: ParameterSpec): string[] {
  switch (spec.kind) {
    case 'gait':
      return gaitsOf(document, mind);
    case 'key':
    case 'list':
      return keysFor(document, mind, spec.kind);
    case 'gate':
      return namesOf(document.grounds[document.start.ground]?.gates ?? {});
    case 'pattern':
      return [...spec.options!];
    default:
      return [];
  }
}

const TAKES_NAME = new Set<ParameterSpec['kind']>(['gait', 'key', 'list', 'gate', 'pattern']);

/** The first parameter of an action that needs a key where the mind has none that fits. */
function missingKey(document: ProjectDocument, mind: string, action: ActionName) {
  return Object.entries<ParameterSpec>(ACTIONS[action].parameters).find(
    ([, { kind, required }]) =>
      required && (kind === 'key' || kind === 'list') && keysFor(document, mind, kind).length === 0,
  );
}

/** A new action whose required parameters hold something that works, or comes close. */
function newAction(document: ProjectDocument, mind: string, action: ActionName): ActionDocument {
  const result: ActionDocument = { do: action };
  for (const [name, spec] of Object.entries<ParameterSpec>(ACTIONS[action].parameters)) {
    if (!spec.required) continue;
    result[name] = namesFor(document, mind, spec)[0] ?? FALLBACK_VALUES[spec.kind];
  }
  return result;
}

/** Menu entries that make a new action: those that take time, or those that don't. One that needs a key asks for it first, in the dialog, which must be rendered. */
export function useActionEntries(
  mind: string,
  lasts: boolean,
  onAdd: (action: ActionDocument) => void,
): { entries: MenuEntry[]; dialog: ReactNode } {
  const document = useProject((project) => project.document);
  const { ask, dialog } = useDeclareKey(mind);
  const add = (name: ActionName) => {
    const action = newAction(document, mind, name);
    const missing = missingKey(document, mind, name);
    if (!missing) return onAdd(action);
    const [parameter, { kind }] = missing;
    ask(kind === 'list', (key) => onAdd({ ...action, [parameter]: key }));
  };
  const entries = (Object.keys(ACTIONS) as ActionName[])
    .filter((name) => ACTIONS[name].lasts === lasts)
    .map((name) => ({
      id: name,
      text: ACTIONS[name].title,
      label: ACTIONS[name].title,
      onAction: () => add(name),
    }));
  return { entries, dialog };
}

interface ParameterProps {
  mind: string;
  action: ActionDocument;
  name: string;
  spec: ParameterSpec;
  path: string;
  where: string;
  onChange: (action: ActionDocument) => void;
}

function Parameter({ mind, action, name, spec, path, where, onChange }: ParameterProps) {
  const document = useProject((project) => project.document);
  const { ask, dialog } = useDeclareKey(mind);
  const value = action[name];
  const label = `${name} of ${action.do}, ${where}`;
  const set = (next: string | number) => onChange({ ...action, [name]: next });
  if (TAKES_NAME.has(spec.kind)) {
    const names =
      action.do === 'forget'
        ? namesOf(document.minds[mind].memory ?? {})
        : namesFor(document, mind, spec);
    const chosen = value ?? spec.default;
    const isKey = spec.kind === 'key' || spec.kind === 'list';
    const entries = names.map((option) => ({
      id: option,
      text: option,
      label: option,
      onAction: () => set(option),
    }));
    const declare = {
      // No key can have this name.
      id: '+',
      text: 'Declare a new one',
      label: 'Declare a new one …',
      onAction: () => ask(spec.kind === 'list', set),
    };
    return (
      <>
        <Menu label={label} entries={isKey ? [...entries, declare] : entries}>
          <Choice aria-label={`${label}: ${chosen}. Choose`}>{chosen}</Choice>
        </Menu>
        {dialog}
      </>
    );
  }
  if (spec.kind === 'text') {
    return (
      <InlineText
        shown={`“${String(value)}”`}
        label={label}
        value={String(value)}
        check={(text) =>
          text === '' || text.length > 200 ? 'It takes 1 to 200 characters.' : null
        }
        onCommit={set}
      />
    );
  }
  if (spec.kind === 'word') {
    return (
      <InlineText
        mono
        label={label}
        value={String(value)}
        check={(text) =>
          /^[A-Za-z]\w{0,39}$/.test(text) ? null : 'It takes one word of letters and digits.'
        }
        onCommit={set}
      />
    );
  }
  if (spec.kind === 'event') {
    return (
      <InlineText
        mono
        label={label}
        value={String(value)}
        check={(text) =>
          /^[A-Za-z]\w*(\.[A-Za-z]\w*)*$/.test(text)
            ? null
            : 'An event name has letters, digits and dots.'
        }
        onCommit={set}
      />
    );
  }
  if (spec.kind === 'number' && typeof value !== 'string') {
    const shown = value ?? spec.default ?? 0;
    return (
      <span>
        <NumberText
          label={label}
          spec={{ minimum: -1e4, maximum: 1e4, ...spec }}
          value={Number(shown)}
          onCommit={set}
        />
        {spec.unit && <Small> {spec.unit === 'deg' ? '°' : spec.unit}</Small>}
      </span>
    );
  }
  return (
    <ExpressionField
      mind={mind}
      label={label}
      value={String(value ?? spec.default ?? '')}
      path={`${path}.${name}`}
      place={{ action, parameter: name }}
      onCommit={set}
      onClear={() => {
        if (spec.required) return `“${name}” can’t be left out: ${spec.about}.`;
        const { [name]: _, ...rest } = action;
        onChange(rest as ActionDocument);
        return null;
      }}
    />
  );
}

export interface ActionLineProps {
  mind: string;
  action: ActionDocument;
  /** Path in the document. */
  path: string;
  /** “on entry of Chase”, for readers. */
  where: string;
  onChange: (action: ActionDocument) => void;
  onRemove: () => void;
}

/** One action in words, its parameters edited in place. */
export function ActionLine({ mind, action, path, where, onChange, onRemove }: ActionLineProps) {
  const spec = actionSpec(action.do);
  const parameters = Object.entries<ParameterSpec>(spec?.parameters ?? {});
  return (
    <Line>
      <Word>{spec?.title.toLowerCase() ?? action.do}</Word>
      {parameters.map(([name, parameter], i) => (
        <Fragment key={name}>
          {i > 0 && <Small>{parameter.kind === 'value' ? '=' : name}</Small>}
          <Parameter
            mind={mind}
            action={action}
            name={name}
            spec={parameter}
            path={path}
            where={where}
            onChange={onChange}
          />
        </Fragment>
      ))}
      <QuietButton
        aria-label={`Remove ${action.do} ${where}`}
        onPress={onRemove}
        style={{ minHeight: 20 }}
      >
        <X size={12} />
      </QuietButton>
      <RowFindings path={path} />
    </Line>
  );
}
