import { suggestion } from '../model/names/nearest-name.ts';

/** What people look for under other words, by how they would write it: names that mean the same here. */
export const MEANT: Readonly<Record<string, readonly string[]>> = {
  placeOf: ['lastSeen'],
  positionOf: ['lastSeen'],
  locationOf: ['lastSeen'],
  lastKnown: ['lastSeen'],
  lastKnownPosition: ['lastSeen'],
  position: ['self.place'],
  pos: ['self.place'],
  location: ['self.place'],
  home: ['self.home', 'self.post'],
  post: ['self.post'],
  target: ['attention.of'],
  enemy: ['attention.of'],
  player: ['attention.of', 'players'],
  canSee: ['sees'],
  visible: ['sees'],
  isVisible: ['sees'],
  inSight: ['sees'],
  alertness: ['awareness'],
  suspicion: ['awareness'],
  threat: ['awareness'],
  health: ['self.health'],
  hp: ['self.health'],
  life: ['self.health'],
  velocity: ['self.speed'],
  speed: ['self.speed'],
  rotation: ['self.heading'],
  facing: ['self.heading', 'bearing'],
  angle: ['bearing'],
  angleTo: ['bearing'],
  distanceTo: ['distance'],
  range: ['distance'],
  inRange: ['canReach', 'distance'],
  canHit: ['canReach'],
  canAttack: ['canReach', 'ready'],
  isReady: ['ready'],
  onCooldown: ['cooldownLeft'],
  cooldown: ['cooldownLeft'],
  now: ['time'],
  elapsed: ['time'],
  clock: ['time'],
  timeSince: ['age'],
  exists: ['known'],
  isKnown: ['known'],
  isNull: ['known'],
  hasValue: ['known'],
  isEnemy: ['hostile'],
  isHostile: ['hostile'],
  isAlive: ['alive', 'healthOf'],
  length: ['count'],
  size: ['count'],
  contains: ['has'],
  includes: ['has'],
  closest: ['nearest'],
  predict: ['ahead'],
  midpoint: ['between'],
  center: ['middleOf'],
  centre: ['middleOf'],
  inArea: ['inZone'],
  inRegion: ['inZone'],
  difficulty: ['tier'],
  phase: ['mode', 'phaseOf'],
  noise: ['heard.place', 'heard.kind'],
  sound: ['heard.place', 'heard.kind'],
  damage: ['harmed.of', 'sinceHit'],
};

const BY_WORD = new Map(Object.entries(MEANT).map(([word, names]) => [word.toLowerCase(), names]));

/** The tail of a message about a wrong name: a name that is written almost so, or that means the same. */
export function meantBy(name: string, known: Iterable<string>): string {
  const names = new Set(known);
  const [last] = name.split('.').slice(-1);
  const same = [...new Set([name, last])]
    .flatMap((word) => BY_WORD.get(word.toLowerCase()) ?? [])
    .filter((each) => names.has(each));
  if (same.length === 0) return suggestion(name, names);
  return ` Did you mean ${same.map((each) => `“${each}”`).join(' or ')}?`;
}
