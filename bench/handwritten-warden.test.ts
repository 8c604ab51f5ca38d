import { atan2, createWorld, leafState, tick, type World } from '@crooked-lantern/core';
import { expect, it } from 'vitest';
import { handwrittenWardens } from './handwritten-warden.ts';
import { largeOrchard, strolling } from './orchards.ts';

function innermost(world: World, index: number): string {
  const agent = world.agents[index];
  return agent.minds[0].program.machine.states[leafState(agent)].id;
}

it('the warden written by hand makes the very decisions the compiled one makes', () => {
  const program = largeOrchard(64);
  const compiled = createWorld(program);
  const byHand = createWorld(program);
  const [walk, run] = ['walk', 'run'].map((gait) => program.gaits.indexOf(gait));
  const wardens = handwrittenWardens(walk, run, atan2);
  byHand.decideFor = (agent) => wardens.decide(agent);
  const visited = new Set<string>();
  for (let i = 1; i <= 3600; i++) {
    tick(compiled, strolling(program, i));
    tick(byHand, strolling(program, i));
    const parted = compiled.agents.filter((agent, index) => {
      const { body } = byHand.agents[index];
      if (body.x !== agent.here.x || body.y !== agent.here.y || body.heading !== agent.self.heading)
        return true;
      if (agent.minds.length === 0) return false;
      visited.add(innermost(compiled, index));
      return wardens.stateOf(byHand.agents[index]) !== innermost(compiled, index);
    });
    expect(parted.map(({ name }) => `${name} at tick ${i}`)).toEqual([]);
  }
  // The comparison means nothing unless they go through it all.
  expect([...visited].sort()).toEqual(['chase', 'collar', 'comb', 'peer', 'rounds']);
});
