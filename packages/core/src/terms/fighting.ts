/** Words of fighting that programs know by their place: parts of a move, and what comes of one. */
export const MOVE_PHASES = ['windUp', 'active', 'recovery'] as const;
export type MovePhase = (typeof MOVE_PHASES)[number];

/** What came of a hit, or of a move as a whole. */
export const HIT_RESULTS = ['landed', 'guarded', 'parried', 'dodged', 'missed', 'walled'] as const;
export type HitResult = (typeof HIT_RESULTS)[number];

/** What ends a move before its time. */
export const BROKEN = 'broken';
