import {
  ACTIONS,
  actionSpec,
  addNamed,
  freshAction,
  guessFor,
  keysFor,
  missingByTitle,
  offeredActions,
  type ActionDocument,
  type ActionName,
  type MadeByTitle,
  type ParameterSpec,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { Ellipsis, X } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { useDocumentNow, useProject } from '../../state/store.ts';
import { useEdit } from '../../state/use-edit.ts';
import { useAskText } from '../../ui/fields/ask-text.tsx';
import { checkTitle } from '../../ui/fields/fields.tsx';
import { QuietButton } from '../../ui/button.tsx';
import { Menu, type MenuEntry } from '../../ui/overlays/menu.tsx';
import { ActionParameters } from './action-parameters.tsx';
import { useDeclareKey } from '../../expression/declare-key.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 4px;
  &:hover .handle,
  &:focus-within .handle {
    opacity: 1;
  }
`;

/** Needed now and then only. */
const Handle = styled(QuietButton)`
  min-height: 24px;
  opacity: 0;
`;

const Small = styled.span`
  color: var(--mute);
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

const NEW_TITLES: Record<MadeByTitle, string> = {
  move: 'Strike',
  guard: 'Guard',
  score: 'Score',
};

/**
 * `withKeys` makes a new action. One that needs a key of memory, a move, a guard or a score where there is none that
 * fits asks for it first, in the dialog, which must be rendered.
 */
export function useFreshAction(mind: string): {
  withKeys: (name: ActionName, onMade: (action: ActionDocument) => void) => void;
  dialog: ReactNode;
} {
  const documentNow = useDocumentNow();
  const { ask, dialog } = useDeclareKey(mind);
  const { ask: askTitle, dialog: titleDialog } = useAskText();
  const { attempt } = useEdit();
  return {
    withKeys: (name, onMade) => {
      const document = documentNow();
      const lacks = missingByTitle(document, mind, name);
      if (lacks !== null)
        return askTitle({
          title: `${ACTIONS[name].title} needs a ${lacks}`,
          label: 'Title',
          verb: 'Add it',
          value: NEW_TITLES[lacks],
          about:
            lacks === 'score'
              ? 'The ground has no score yet.'
              : `No body with this mind has a ${lacks} yet; its numbers are set in Cast.`,
          check: (text) => checkTitle(text),
          onGive: (title) => {
            const refused = attempt((project) => addNamed(project, mind, lacks, title));
            if (refused === null) onMade(freshAction(documentNow(), mind, name));
            return refused;
          },
        });
      const action = freshAction(document, mind, name);
      const missing = missingKey(document, mind, name);
      if (!missing) return onMade(action);
      const [parameter, { kind }] = missing;
      ask({
        list: kind === 'list',
        onDeclared: (key, type) =>
          onMade({
            ...action,
            [parameter]: key,
            ...('value' in action && { value: guessFor(type) }),
          }),
      });
    },
    dialog: (
      <>
        {dialog}
        {titleDialog}
      </>
    ),
  };
}

/** Menu entries that make a new action: those that take time, or those that don't. The dialog must be rendered. */
export function useActionEntries(
  mind: string,
  lasts: boolean,
  onAdd: (action: ActionDocument) => void,
): { entries: MenuEntry[]; dialog: ReactNode } {
  const document = useProject((project) => project.document);
  const { withKeys, dialog } = useFreshAction(mind);
  const entries = offeredActions(document, mind)
    .filter((name) => ACTIONS[name].lasts === lasts)
    .map((name) => ({
      id: name,
      text: ACTIONS[name].title,
      label: ACTIONS[name].title,
      onAction: () => withKeys(name, onAdd),
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
  /** Left out where there must be one. */
  onRemove?: () => void;
  /** Where it is one of several. */
  onDuplicate?: () => void;
  onMove?: (by: 1 | -1) => void;
  /** More that can be done with it. */
  more?: MenuEntry[];
}

/** One action in words, its parameters edited in place. */
export function ActionLine({
  mind,
  action,
  path,
  where,
  onChange,
  onRemove,
  onDuplicate,
  onMove,
  more = [],
}: ActionLineProps) {
  const spec = actionSpec(action.do);
  const { uninterrupted, ...plain } = action;
  const entry = (id: string, text: string, onAction: () => void): MenuEntry => ({
    id,
    text,
    label: text,
    onAction,
  });
  const entries = [
    ...(onMove
      ? [entry('up', 'Move up', () => onMove(-1)), entry('down', 'Move down', () => onMove(1))]
      : []),
    ...(onDuplicate ? [entry('duplicate', 'Duplicate', onDuplicate)] : []),
    ...(spec?.lasts
      ? [
          entry(
            'uninterrupted',
            uninterrupted ? 'May be interrupted' : 'Uninterrupted: no decision in between',
            () =>
              onChange(
                (uninterrupted ? plain : { ...action, uninterrupted: true }) as ActionDocument,
              ),
          ),
        ]
      : []),
    ...more,
  ];
  return (
    <Line
      data-reference={`do ${action.do}`}
      onKeyDown={(event) => {
        if (!onMove || !event.altKey || !/^Arrow(Up|Down)$/.test(event.key)) return;
        event.preventDefault();
        event.stopPropagation();
        onMove(event.key === 'ArrowUp' ? -1 : 1);
      }}
    >
      <Word>{spec?.title.toLowerCase() ?? action.do}</Word>
      <ActionParameters mind={mind} action={action} path={path} where={where} onChange={onChange} />
      {uninterrupted && <Small>uninterrupted</Small>}
      {entries.length > 0 && (
        <Menu label={`Commands for ${action.do} ${where}`} entries={entries}>
          <Handle className="handle" aria-label={`More for ${action.do} ${where}`}>
            <Ellipsis size={12} />
          </Handle>
        </Menu>
      )}
      {onRemove && (
        <Handle className="handle" aria-label={`Remove ${action.do} ${where}`} onPress={onRemove}>
          <X size={12} />
        </Handle>
      )}
      <RowFindings path={path} />
    </Line>
  );
}
