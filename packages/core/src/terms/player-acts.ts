/** What an agent is made to do once, in a tick. */
export const PLAYER_ACTS = [
  'pickUp',
  'drop',
  'throw',
  'use',
  'strike',
  'guard',
  'lower',
  'dodge',
  'call',
] as const;
export type PlayerAct = (typeof PLAYER_ACTS)[number];
