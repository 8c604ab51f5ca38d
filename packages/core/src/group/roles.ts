/** Who plays which part in a squad. */

export interface RoleSlots {
  /** 0 for any number. */
  slots: number;
  /** How much better another must be to take it over. */
  commitment: number;
}

/**
 * Gives each member the first role in order that has a slot for it, the best scores first. `scores` is
 * by member, then role, NaN for one that can't have it; `held` is each member's role until now, −1 for
 * none. The agent that holds a role counts as `commitment` better at it, so that small changes of score change
 * nothing. Members in order of id decide between equals. Returns each member's role, −1 for none.
 */
export function assignRoles(
  scores: readonly (readonly number[])[],
  roles: readonly RoleSlots[],
  held: readonly number[],
): number[] {
  const given = scores.map(() => -1);
  roles.forEach(({ slots, commitment }, role) => {
    const ranked = scores
      .map((row, member) => ({
        member,
        score: row[role] + (held[member] === role ? commitment : 0),
      }))
      .filter(({ member, score }) => given[member] < 0 && !Number.isNaN(score))
      .sort((a, b) => b.score - a.score || a.member - b.member);
    const taken = slots === 0 ? ranked : ranked.slice(0, slots);
    for (const { member } of taken) given[member] = role;
  });
  return given;
}
