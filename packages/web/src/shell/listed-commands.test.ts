import { expect, it } from 'vitest';
import type { CommandGroup } from './command-groups.ts';
import type { GroupedCommand } from './commands.tsx';
import { listedCommands } from './listed-commands.ts';

const command = (id: string, group: CommandGroup): GroupedCommand => ({
  id,
  name: id,
  group,
  run: () => {},
});
const ALL = [
  command('theme', 'everywhere'),
  command('run', 'ledger'),
  command('find', 'ledger'),
  command('rename', 'page'),
  command('undo', 'project'),
];

const listed = (focused: CommandGroup, lately: string[]) =>
  listedCommands(ALL, focused, lately).map(({ title, commands }) => [
    title,
    ...commands.map(({ id }) => id),
  ]);

it('commands begin with those about what has the focus, then those used lately; each stands once', () => {
  expect(listed('ledger', ['undo', 'find', 'gone'])).toEqual([
    ['The run and its ledger', 'run', 'find'],
    ['Used lately', 'undo'],
    ['On this page', 'rename'],
    ['Everywhere', 'theme'],
  ]);
});

it('without any used lately they go by group', () => {
  expect(listed('page', []).map(([title]) => title)).toEqual([
    'On this page',
    'The run and its ledger',
    'The project',
    'Everywhere',
  ]);
});
