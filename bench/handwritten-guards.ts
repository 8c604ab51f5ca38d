import type { Agent } from '@crooked-lantern/core';

/** Guards as minds have them, and the same as a programmer would write each by hand. */

type Guard = (f: Agent) => boolean;

const length = (x: number, y: number) => Math.sqrt(x * x + y * y);
const distance = (f: Agent, agent: number) =>
  length(f.known.x(agent) - f.here.x, f.known.y(agent) - f.here.y);

/** Cell of the demo's only key, `quarry`. */
const QUARRY = 0;

export const GUARDS: readonly [source: string, byHand: Guard][] = [
  ['awareness(attention.of) >= 1', (f) => f.known.awareness(f.known.attentionOf) >= 1],
  ['attention.strength > 0.3', (f) => f.known.attentionStrength > 0.3],
  ['attention.strength < 0.2', (f) => f.known.attentionStrength < 0.2],
  [
    'sees(quarry) && distance(quarry) < 1.2',
    (f) => f.here.sees(f.memory[QUARRY]) && distance(f, f.memory[QUARRY]) < 1.2,
  ],
  ['!sees(quarry)', (f) => !f.here.sees(f.memory[QUARRY])],
  ['distance(quarry) > 2', (f) => distance(f, f.memory[QUARRY]) > 2],
  [
    'sees(quarry) && awareness(quarry) > 0.5',
    (f) => f.here.sees(f.memory[QUARRY]) && f.known.awareness(f.memory[QUARRY]) > 0.5,
  ],
  [
    'age(quarry) > 3 || self.speed < 0.1',
    (f) => f.known.keyAge(0) > 3 || length(f.self.vx, f.self.vy) < 0.1,
  ],
  ['known(quarry) && time % 2 < 1', (f) => f.memory[QUARRY] >= 0 && f.around.seconds() % 2 < 1],
  [
    'distance(self.post) > 4 && !known(quarry)',
    (f) => length(f.self.postX - f.here.x, f.self.postY - f.here.y) > 4 && !(f.memory[QUARRY] >= 0),
  ],
];
