import type { RunnableMind } from '../../mind/machine/mind.ts';
import type { Name } from '../../model/documents.ts';
import { allRows, noRow } from './find-row.ts';

/** What an agent is asked not to be in, or not to do. */
export type Target =
  | { kind: 'state'; state: Name }
  | { kind: 'option'; choice: Name; option: Name }
  /** A row of a tree or of rules, counted from 1. */
  | { kind: 'row'; of: Name; row: number };

/**
 * What a text of a person names in a mind: a state by its id or its title, an option by its id, its title or as `choice:option`, a
 * row by its title or as `tree:3`.
 *
 * @throws {QuestionError} nothing in the mind goes by that
 */
export function targetNamed(mind: RunnableMind, text: string): Target {
  const { states } = mind.program.machine;
  const isSaid = (name: string) => name.toLowerCase() === text.toLowerCase();
  const state = states.find(({ id }) => id === text) ?? states.find(({ title }) => isSaid(title));
  if (state) return { kind: 'state', state: state.id };
  const [before, after] = text.split(':');
  const choices = mind.machine.states.flatMap(({ activity }) => [
    ...(activity?.choices.values() ?? []),
  ]);
  const named = after ?? text;
  for (const { program, weigher } of choices) {
    if (after !== undefined && program.name !== before) continue;
    const option = weigher.options.find(
      ({ program: { id, title } }) => id === named || title.toLowerCase() === named.toLowerCase(),
    );
    if (option) return { kind: 'option', choice: program.name, option: option.program.id };
  }
  const found = allRows(mind).find(
    ({ name, last }) => (name === before && String(last.row + 1) === after) || isSaid(last.title),
  );
  if (!found) throw noRow(mind, text);
  return { kind: 'row', of: found.name, row: found.last.row + 1 };
}
