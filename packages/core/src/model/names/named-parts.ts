/**
 * Parts of a document that others refer to by name. The states, keys, trees, rules and choices of a mind are not
 * among them: they are renamed within the mind.
 */
export const NAMED_PARTS = {
  archetypes: 'archetype',
  squads: 'squad',
  factions: 'faction',
  players: 'scripted player',
  setups: 'set-up',
  minds: 'mind',
  grounds: 'ground',
  agents: 'agent',
  routes: 'route',
  gates: 'gate',
  lamps: 'lamp',
  plates: 'plate',
  things: 'thing',
  posts: 'post',
  spawns: 'spawn place',
  zones: 'zone',
  waves: 'wave',
  scores: 'score',
  modes: 'mode',
  moves: 'move',
  guards: 'guard',
  gaits: 'gait',
  roles: 'role',
  tiers: 'tier',
  breakpoints: 'breakpoint',
  bandSets: 'set of bands',
  bands: 'band',
} as const;
export type NamedPart = keyof typeof NAMED_PARTS;

/** Which parts a word names, by what actions and built-ins call it. */
export const PARTS_CALLED = {
  group: ['archetypes', 'factions', 'squads', 'waves'],
  score: ['scores'],
  wave: ['waves'],
  mode: ['modes'],
  move: ['moves'],
  guard: ['guards'],
  gait: ['gaits'],
  role: ['roles'],
  tier: ['tiers'],
  band: ['bands'],
} as const satisfies Record<string, readonly NamedPart[]>;
export type CalledPart = keyof typeof PARTS_CALLED;

/** What a word names, in words: “archetype, faction, squad or wave”. */
export function wordsOfCalled(called: CalledPart): string {
  const words = PARTS_CALLED[called].map((part) => NAMED_PARTS[part]);
  return [words.slice(0, -1).join(', '), ...words.slice(-1)].filter(Boolean).join(' or ');
}

/** Parts of a ground that expressions name as they stand. All others, but for sets of bands, are named in texts. */
export const NAMED_ON_GROUND: readonly NamedPart[] = ['routes', 'gates', 'things', 'zones'];
