/** What commands are about, as the command list groups them, in its order. */
export const COMMAND_GROUPS = {
  page: 'On this page',
  ground: 'The running ground',
  ledger: 'The run and its ledger',
  project: 'The project',
  everywhere: 'Everywhere',
  reference: 'The reference',
} as const;

export type CommandGroup = keyof typeof COMMAND_GROUPS;
