import { describe, expect, it } from 'vitest';
import { largeChoice, weigher, weigherByHand } from './choices.ts';
import { tick } from '@crooked-lantern/core';

describe('the choice written by hand', () => {
  it('picks what the compiled one picks, wherever those it knows of stand', () => {
    const { world, agent } = largeChoice();
    const [compiled, byHand] = [weigher(agent), weigherByHand(agent)];
    const picks = new Set<string>();
    for (let i = 0; i < 40; i++) {
      for (const other of world.agents) {
        if (other === agent) continue;
        other.body.x = 30 + 20 * Math.cos(i * 0.7 + other.index);
        other.body.y = 20 + 15 * Math.sin(i * 1.1 + other.index * 2);
        other.life.health = 10 + ((i * 13 + other.index * 7) % 90);
      }
      agent.body.heading = Math.sin(i / 7);
      tick(world);
      const [ours, theirs] = [compiled(), byHand()];
      expect([ours.option, ours.of]).toEqual([theirs.option, theirs.of]);
      expect(ours.score).toBeCloseTo(theirs.score, 9);
      picks.add(`${ours.option} ${ours.of}`);
    }
    expect(picks.size).toBeGreaterThan(5);
  });
});
