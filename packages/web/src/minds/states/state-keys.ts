/** What can be done with a state, with the key for it while a state on the plan has the focus. */
export const STATE_COMMANDS = {
  beside: { name: 'New state beside', keys: ['b', 'Insert'] },
  inside: { name: 'New state inside', keys: ['i'] },
  way: { name: 'New transition to …', keys: ['l'] },
  entry: { name: 'Do on entry …', keys: ['e'] },
  does: { name: 'Do while here …', keys: ['d'] },
  exit: { name: 'Do on exit …', keys: ['x'] },
  title: { name: 'Title', keys: ['t'] },
  kind: { name: 'Kind', keys: ['k'] },
  first: { name: 'Enter first', keys: ['f'] },
  duplicate: { name: 'Duplicate', keys: ['Ctrl+d'] },
  wrap: { name: 'New state around it', keys: ['w'] },
  move: { name: 'Move into …', keys: ['m'] },
  earlier: { name: 'Earlier in order', keys: ['Alt+ArrowUp', 'Alt+ArrowLeft'] },
  later: { name: 'Later in order', keys: ['Alt+ArrowDown', 'Alt+ArrowRight'] },
  remove: { name: 'Remove', keys: ['Delete', 'Backspace'] },
} as const satisfies Record<string, { name: string; keys: readonly string[] }>;

export type StateCommand = keyof typeof STATE_COMMANDS;
