/** How factions stand to each other. Programs count stances in this order. */
export const STANCES = ['hostile', 'neutral', 'friendly'] as const;
export type Stance = (typeof STANCES)[number];

export const HOSTILE = STANCES.indexOf('hostile');
export const FRIENDLY = STANCES.indexOf('friendly');

/** How one faction stands to another where nothing is said. */
export function usualStance(of: string, toward: string): Stance {
  return of === toward ? 'friendly' : 'hostile';
}
