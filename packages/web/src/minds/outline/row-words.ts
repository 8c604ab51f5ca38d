import {
  ACTIONS,
  actionSpec,
  NODE_KINDS,
  nodeSpec,
  nodeText,
  nodeWords,
  type ActionName,
  type NodeDocument,
  type OutlineRow,
} from '@crooked-lantern/core';
import type { NamedChoice } from '../../ui/fields/choose-from.tsx';
import { counted } from '../../ui/words/counted.ts';

/** What rows are called and said to be, for people and readers. */

export type GuardMode = 'before' | 'holds' | 'preempts' | 'both';

export const GUARD_MODES: { id: GuardMode; title: string; about: string }[] = [
  { id: 'before', title: 'before', about: 'looked at before the row starts' },
  {
    id: 'holds',
    title: 'holds',
    about: 'also while it runs: when it turns false, the row is stopped',
  },
  {
    id: 'preempts',
    title: 'preempts',
    about: 'also while a later row of the selector runs: when it turns true, this one takes over',
  },
  {
    id: 'both',
    title: 'holds, preempts',
    about: 'takes over when it turns true, and is stopped when it turns false',
  },
];

export function guardMode({ holds, preempts }: NodeDocument): GuardMode {
  if (holds && preempts) return 'both';
  return holds ? 'holds' : preempts ? 'preempts' : 'before';
}

export const MODE_FIELDS: Record<GuardMode, { holds?: true; preempts?: true }> = {
  before: { holds: undefined, preempts: undefined },
  holds: { holds: true, preempts: undefined },
  preempts: { holds: undefined, preempts: true },
  both: { holds: true, preempts: true },
};

/** The name of a kind of row: “Sequence”, “Move to”. */
export function kindTitle(row: OutlineRow): string {
  switch (row.kind) {
    case 'rule':
      return row.rule.edge ? 'When' : 'While';
    case 'else':
      return 'Else';
    case 'set':
      return 'Rules';
    case 'options':
      return 'Choice';
    default:
      return nodeWords(row.node).name;
  }
}

/** A row as a sentence, for readers. */
export function rowSentence(row: OutlineRow): string {
  const inside = row.below > 0 ? `, ${counted(row.below, 'row')} inside` : '';
  const off = row.row === null ? ', switched off' : '';
  switch (row.kind) {
    case 'rule':
      return `${kindTitle(row)} ${row.rule.when}${row.rule.edge ? ' turns true' : ' holds'}${inside}${off}`;
    case 'else':
      return `Else${inside}${off}`;
    case 'set':
      return `Rules ${row.rules}${inside}`;
    case 'options':
      return `Choice ${row.choice}${inside}`;
    default: {
      const { title, when } = row.node;
      const called = title === undefined ? '' : ` “${title}”`;
      const guard = when === undefined ? '' : `, if ${when} (${guardMode(row.node)})`;
      const option = row.option === undefined ? '' : `${row.option}: `;
      return `${option}${nodeText(row.node)}${called}${guard}${inside}${off}`;
    }
  }
}

const firstSentence = (text: string) => /^.*?[.;](?=\s|$)/.exec(text)?.[0] ?? text;

export const NODE_CHOICES: NamedChoice[] = NODE_KINDS.filter(
  (kind) => kind !== 'tree' && kind !== 'rules' && kind !== 'choice',
).map((kind) => ({
  id: kind,
  name: nodeSpec(kind).title,
  about: firstSentence(nodeSpec(kind).about),
}));

export const ACTION_CHOICES = (Object.keys(ACTIONS) as ActionName[]).map((name) => ({
  action: name,
  id: `do ${name}`,
  name: actionSpec(name)!.title,
  about: firstSentence(actionSpec(name)!.about),
}));
