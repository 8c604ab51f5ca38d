/** What can be done with a row, with the key for it while a row has the focus. */

export const ROW_COMMANDS = {
  edit: { name: 'Edit', keys: ['Enter'] },
  insert: { name: 'Put in a row beneath', keys: ['/', 'Insert'] },
  wrap: { name: 'Wrap in', keys: ['w'] },
  unwrap: { name: 'Take away, leaving what is inside', keys: ['u'] },
  kind: { name: 'Change the kind', keys: ['k'] },
  guard: { name: 'Guard', keys: ['g'] },
  title: { name: 'Title', keys: ['t'] },
  note: { name: 'Note', keys: ['n'] },
  restart: { name: 'From its first row each decision, or not', keys: ['r'] },
  uninterrupted: { name: 'Uninterrupted, or not', keys: ['y'] },
  off: { name: 'Switch off or on', keys: ['o'] },
  up: { name: 'Move up', keys: ['Alt+ArrowUp'] },
  down: { name: 'Move down', keys: ['Alt+ArrowDown'] },
  nest: { name: 'Into the row above', keys: ['Tab'] },
  unnest: { name: 'Out of the row around', keys: ['Shift+Tab'] },
  duplicate: { name: 'Duplicate', keys: ['Ctrl+d'] },
  extract: { name: 'Make it a tree of its own', keys: ['e'] },
  inline: { name: 'Put the tree in place of the call', keys: ['i'] },
  open: { name: 'Open the tree, rules or choice by itself', keys: ['p'] },
  otherwise: { name: 'Else', keys: ['l'] },
  why: { name: 'Ask why it does this, or not', keys: ['Shift+w'] },
  find: { name: 'Find a row', keys: ['f', 'Ctrl+f'] },
  link: { name: 'Copy a link to the row', keys: ['h'] },
  remove: { name: 'Remove', keys: ['Delete', 'Backspace'] },
} as const satisfies Record<string, { name: string; keys: readonly string[] }>;

export type RowCommand = keyof typeof ROW_COMMANDS;
