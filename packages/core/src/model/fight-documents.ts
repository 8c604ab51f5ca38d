/** How bodies fight: moves and guards of archetypes. Seconds, metres, degrees; heights above the feet. */

export const MOVE_KINDS = ['strike', 'thrown', 'instant', 'dodge'] as const;
/** A sector in front of the body, something that flies, a straight line, or a step out of the way. */
export type MoveKind = (typeof MOVE_KINDS)[number];

export const MOVE_HITS = ['one', 'many'] as const;

export interface MoveDocument {
  title?: string;
  note?: string;
  /** Left out: strike. */
  kind?: MoveKind;
  windUp?: number;
  active: number;
  recovery?: number;
  cooldown?: number;
  reach?: number;
  arc?: number;
  from?: number;
  to?: number;
  damage?: number;
  knockback?: number;
  stagger?: number;
  advance?: number;
  turn?: number;
  shots?: number;
  gap?: number;
  spread?: number;
  speed?: number;
  radius?: number;
  drop?: number;
  lead?: true;
  invulnerable?: number;
  sturdy?: true;
  noise?: number;
  rooted?: true;
  hits?: (typeof MOVE_HITS)[number];
}

export interface GuardDocument {
  title?: string;
  note?: string;
  from?: number;
  to?: number;
  arc?: number;
  raise?: number;
  maxDuration?: number;
  damageShare?: number;
  parry?: number;
  stagger?: number;
}
