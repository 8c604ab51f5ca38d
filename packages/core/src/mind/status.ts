/** What running something gives: an action or a node of a tree. */
export const RUNNING = 0;
export const SUCCESS = 1;
export const FAILURE = 2;
export type Status = typeof RUNNING | typeof SUCCESS | typeof FAILURE;
