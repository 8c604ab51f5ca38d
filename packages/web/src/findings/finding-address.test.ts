import type { ProjectDocument } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { addressOf } from './finding-address.ts';

const document = {
  minds: {
    warden: {
      title: 'Warden',
      machine: {
        initial: 'calm',
        states: [
          { id: 'alarm' },
          { id: 'calm', initial: 'rounds', states: [{ id: 'rounds' }, { id: 'rest' }] },
        ],
      },
    },
    goose: { title: 'Goose', activity: { do: 'wander' } },
  },
} as unknown as ProjectDocument;

describe('a finding leads to', () => {
  it.each([
    ['minds.warden.machine.states[1].states[0].transitions[2].when', '/minds/warden?state=rounds'],
    ['minds.warden.machine.states[0]', '/minds/warden?state=alarm'],
    ['minds.warden.machine.states[7]', '/minds/warden'],
    ['minds.goose.activity', '/minds/goose'],
    ['minds.warden.memory.quarry', '/minds/warden?sheet=memory'],
    ['minds.warden.trees.comb.root.sequence[0]', '/minds/warden?sheet=trees.comb'],
    ['minds.warden.rules.habits.rows[2].when', '/minds/warden?sheet=rules.habits'],
    ['minds.warden.cadence.every', '/minds/warden?sheet=mind'],
    ['archetypes.warden.sight.cones[0].range', '/cast/archetypes/warden'],
    ['squads.west', '/cast/squads/west'],
    ['setups.caught.agents.gleaner', '/cast/setups/caught'],
    ['grounds.orchard.walls[3].size', '/ground?part=walls%3A3'],
    ['grounds.orchard.agents.gleaner.at', '/ground?part=agents%3Agleaner'],
    ['grounds.orchard.agents.gleaner.overrides.sight', '/cast/agents/gleaner'],
    ['grounds.orchard.routes.west.points[1]', '/ground?part=routes%3Awest'],
    ['title', '/minds'],
  ])('%s', (path, address) => {
    expect(addressOf({ path }, document, 'night')).toBe(`/projects/night${address}`);
  });

  it('its place with the agent that is watched, and no state of another mind', () => {
    const search = '?agent=warden2&state=alarm';
    expect(addressOf({ path: 'minds.goose' }, document, 'night', search)).toBe(
      '/projects/night/minds/goose?agent=warden2&sheet=mind',
    );
  });
});
