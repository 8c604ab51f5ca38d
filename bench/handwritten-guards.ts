import type { Agent } from '@crooked-lantern/core';

/** Guards as minds have them, and the same as a programmer would write each by hand. */

type Guard = (f: Agent) => boolean;

const length = (x: number, y: number) => Math.sqrt(x * x + y * y);
const distance = (f: Agent, agent: number) => length(f.knownX(agent) - f.x, f.knownY(agent) - f.y);

/** Cell of the demo's only key, `quarry`. */
const QUARRY = 0;

export const GUARDS: readonly [source: string, byHand: Guard][] = [
  ['awareness(attention.of) >= 1', (f) => f.awareness(f.attentionOf) >= 1],
  ['attention.strength > 0.3', (f) => f.attentionStrength > 0.3],
  ['attention.strength < 0.2', (f) => f.attentionStrength < 0.2],
  [
    'sees(quarry) && distance(quarry) < 1.2',
    (f) => f.sees(f.memory[QUARRY]) && distance(f, f.memory[QUARRY]) < 1.2,
  ],
  ['!sees(quarry)', (f) => !f.sees(f.memory[QUARRY])],
  ['distance(quarry) > 2', (f) => distance(f, f.memory[QUARRY]) > 2],
  [
    'sees(quarry) && awareness(quarry) > 0.5',
    (f) => f.sees(f.memory[QUARRY]) && f.awareness(f.memory[QUARRY]) > 0.5,
  ],
  ['age(quarry) > 3 || self.speed < 0.1', (f) => f.keyAge(0) > 3 || length(f.vx, f.vy) < 0.1],
  ['known(quarry) && time % 2 < 1', (f) => f.memory[QUARRY] >= 0 && f.seconds() % 2 < 1],
  [
    'distance(self.post) > 4 && !known(quarry)',
    (f) => length(f.postX - f.x, f.postY - f.y) > 4 && !(f.memory[QUARRY] >= 0),
  ],
];
