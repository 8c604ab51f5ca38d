import {
  agentNamed,
  outlineOf,
  pathText,
  type ActivityDocument,
  type MindDocument,
  type OutlineRow,
  type ProjectDocument,
  type Target,
} from '@crooked-lantern/core';
import { listStates } from '../document-names.ts';

/** A row as questions name it. */
export interface RowTarget {
  target: Target;
  row: OutlineRow;
  /** What it is in, for people. */
  of: string;
}

function rowsOf(
  name: string,
  mind: MindDocument,
  activity: ActivityDocument | undefined,
): RowTarget[] {
  if (!activity || !('tree' in activity || 'rules' in activity)) return [];
  const part = String('tree' in activity ? activity.tree : activity.rules);
  const { title: of = part } = ('tree' in activity ? mind.trees : mind.rules)?.[part] ?? {};
  return outlineOf(name, mind, activity).flatMap((row) =>
    row.row === null
      ? []
      : [{ target: { kind: 'row', of: part, row: row.row + 1 } as const, row, of }],
  );
}

/** All rows that run somewhere in a mind: of its states, and of what it does as a whole. */
export function rowTargets(document: ProjectDocument, name: string): RowTarget[] {
  const mind = document.minds[name];
  const states = listStates(document, name).map(({ state }) => state);
  return [mind.activity, ...states.map(({ activity }) => activity)].flatMap((activity) =>
    rowsOf(name, mind, activity),
  );
}

/** How a question names the row that is written at `path` in an agent's mind, or why none can be asked, in words. */
export function targetOfRow(
  document: ProjectDocument,
  { agent, mind, path }: { agent: string; mind: string; path: string },
): { target: Target } | { refused: string } {
  const { title = agent, minds = [] } = agentNamed(document, agent) ?? {};
  if (!minds.includes(mind))
    return {
      refused: `${title} is followed, and has another mind: follow one of this mind.`,
    };
  const target = rowTargets(document, mind).find(({ row }) => pathText(row.path) === path);
  return target ?? { refused: 'No state does this row, so there is nothing to ask about it.' };
}
