import {
  ACTIONS,
  actionSpec,
  freshAction,
  keysFor,
  type ActionDocument,
  type ActionName,
  type ParameterSpec,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { QuietButton } from '../ui/button.tsx';
import type { MenuEntry } from '../ui/menu.tsx';
import { ActionParameters } from './action-parameters.tsx';
import { useDeclareKey } from '../expression/declare-key.tsx';
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

/** The first parameter of an action that needs a key where the mind has none that fits. */
function missingKey(document: ProjectDocument, mind: string, action: ActionName) {
  return Object.entries<ParameterSpec>(ACTIONS[action].parameters).find(
    ([, { kind, required }]) =>
      required && (kind === 'key' || kind === 'list') && keysFor(document, mind, kind).length === 0,
  );
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
    const action = freshAction(document, mind, name);
    const missing = missingKey(document, mind, name);
    if (!missing) return onAdd(action);
    const [parameter, { kind }] = missing;
    ask({ list: kind === 'list', onDeclared: (key) => onAdd({ ...action, [parameter]: key }) });
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
  return (
    <Line>
      <Word>{spec?.title.toLowerCase() ?? action.do}</Word>
      <ActionParameters mind={mind} action={action} path={path} where={where} onChange={onChange} />
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
