import {
  ACTIONS,
  offeredActions,
  changeKind,
  changeRow,
  dropRow,
  duplicateRow,
  extractTree,
  formOf,
  freshAction,
  freshCall,
  freshGuard,
  freshNode,
  inlineTree,
  insertBelow,
  moveRow,
  nestRow,
  partAt,
  removeRows,
  switchRows,
  unnestRow,
  unwrapRow,
  wrapRows,
  type ActionName,
  type ActionDocument,
  type DocumentPath,
  type NodeDocument,
  type FreshKind,
  type ProjectDocument,
  type RowEdit,
  type RuleDocument,
} from '@crooked-lantern/core';
import { useMemo } from 'react';
import { useProject } from '../../state/store.ts';
import type { NamedChoice } from '../../ui/fields/choose-from.tsx';
import { ACTION_CHOICES, NODE_CHOICES } from './row-words.ts';

/** What rows can be made from, and how a choice becomes a row. */

type Wrapping = Exclude<FreshKind, 'condition'>;

const RULE: NamedChoice = {
  id: 'rule',
  name: 'Rule',
  about: 'when something holds or turns true, does something',
};

/** What may be put in beneath a row, wrap it, or take its place. */
export function useRowChoices(mind: string) {
  const document = useProject((project) => project.document.minds[mind]);
  // The agents that have the mind decide what it may do.
  const offeredText = useProject((project) => offeredActions(project.document, mind).join(' '));
  return useMemo(() => {
    const { trees = {}, rules = {}, choices = {} } = document ?? {};
    const calls: NamedChoice[] = [
      ...Object.entries(trees).map(([name, { title, note }]) => ({
        id: `tree ${name}`,
        name: `Tree ${title ?? name}`,
        about: note ?? 'a tree of this mind',
      })),
      ...Object.entries(rules).map(([name, { title, note }]) => ({
        id: `rules ${name}`,
        name: `Rules ${title ?? name}`,
        about: note ?? 'rules of this mind',
      })),
      ...Object.entries(choices).map(([name, { title, note }]) => ({
        id: `choice ${name}`,
        name: `Choice ${title ?? name}`,
        about: note ?? 'a choice of this mind',
      })),
    ];
    const offered = new Set(offeredText.split(' '));
    const actions = ACTION_CHOICES.filter(({ action }) => offered.has(action));
    const ofTrees = [...NODE_CHOICES, ...calls, ...actions];
    return {
      insert: (path: DocumentPath) =>
        path[2] === 'rules' ? (formOf(path) === 'set' ? [RULE] : [RULE, ...actions]) : ofTrees,
      wrap: () => NODE_CHOICES.filter(({ id }) => id !== 'condition'),
      kind: (path: DocumentPath) => (path[2] === 'rules' ? actions : ofTrees),
    };
  }, [document, offeredText]);
}

/** The row a choice stands for. */
function rowFrom(
  document: ProjectDocument,
  mind: string,
  choice: string,
  made?: ActionDocument,
): NodeDocument | RuleDocument {
  if (made) return made as unknown as NodeDocument;
  const [kind, name] = choice.split(' ');
  if (kind === 'rule') return { when: freshGuard(document, mind) };
  if (kind === 'do' && name in ACTIONS)
    return freshAction(document, mind, name as ActionName) as unknown as NodeDocument;
  if (name !== undefined)
    return (kind === 'tree' ? freshCall(document, mind, name) : { [kind]: name }) as NodeDocument;
  const node = freshNode(kind as FreshKind);
  return kind === 'condition' ? { ...node, condition: freshGuard(document, mind) } : node;
}

export const rowWork = {
  /** `made`: the action that was chosen, where it had to ask for something first. */
  insert:
    (path: DocumentPath, mind: string, choice: string, made?: ActionDocument) =>
    (document: ProjectDocument) =>
      insertBelow(document, path, rowFrom(document, mind, choice, made)),
  kind:
    (path: DocumentPath, mind: string, choice: string, made?: ActionDocument) =>
    (document: ProjectDocument) =>
      changeKind(document, path, rowFrom(document, mind, choice, made) as NodeDocument),
  wrap: (paths: readonly DocumentPath[], choice: string) => (document: ProjectDocument) =>
    wrapRows(document, paths, choice as Wrapping),
  guard: (path: DocumentPath) => (document: ProjectDocument) =>
    changeRow(document, path, { when: freshGuard(document, String(path[1])) }),
  set: (path: DocumentPath, change: Record<string, unknown>) => (document: ProjectDocument) =>
    changeRow(document, path, change),
  drop:
    (path: DocumentPath, to: DocumentPath, where: 'before' | 'after' | 'inside') =>
    (document: ProjectDocument) =>
      dropRow(document, path, to, where),
};

type OnRows = (document: ProjectDocument, paths: readonly DocumentPath[]) => RowEdit;
const onOne =
  (work: (document: ProjectDocument, path: DocumentPath) => RowEdit): OnRows =>
  (document, [path]) =>
    work(document, path);

/** Commands that need nothing but the rows. */
export const PLAIN_COMMANDS: Partial<Record<string, OnRows>> = {
  up: onOne((document, path) => moveRow(document, path, -1)),
  down: onOne((document, path) => moveRow(document, path, 1)),
  nest: onOne(nestRow),
  unnest: onOne(unnestRow),
  duplicate: onOne(duplicateRow),
  unwrap: onOne(unwrapRow),
  inline: onOne(inlineTree),
  remove: removeRows,
  off: switchRows,
  extract: onOne((document, path) => extractTree(document, path, titleForPart(document, path))),
  otherwise: onOne((document, path) =>
    changeRow(document, path, { else: [freshAction(document, String(path[1]), 'say')] }),
  ),
};

function titleForPart(document: ProjectDocument, path: DocumentPath): string {
  return (partAt(document, path) as { title?: string }).title ?? 'New part';
}
