/** What gates can be, and how a run can end. */
export const GATE_STATES = ['closed', 'open', 'locked'] as const;
export type GateState = (typeof GATE_STATES)[number];

export const RESULTS = ['won', 'lost', 'over'] as const;
export type ResultName = (typeof RESULTS)[number];
