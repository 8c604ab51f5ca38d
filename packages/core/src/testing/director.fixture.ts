import type {
  GroundDocument,
  MindDocument,
  ProjectDocument,
  WaveDocument,
} from '../model/documents.ts';
import { harm } from '../world/mechanics/fighting/harm.ts';
import type { Agent } from '../world/agents/agent.ts';
import type { World } from '../world/world.ts';
import { cornerProject } from './orchard.fixture.ts';

/** The corner with a game around it: beetles that come through two gaps, and a director. */

export interface Game {
  wave?: Partial<WaveDocument>;
  director?: Partial<MindDocument>;
  ground?: Partial<GroundDocument>;
}

/** Beetles remember, walk to the middle, and can be killed; without `director` there is none. */
export function gameProject({ wave, director, ground }: Game): ProjectDocument {
  const document = cornerProject({
    ground: {
      spawns: {
        east: { title: 'East gap', at: [19, 5], heading: 180 },
        west: { title: 'West gap', at: [1, 2] },
      },
      zones: {
        middle: { at: [9, 3], size: [4, 4] },
        corner: { at: [0, 8], size: [2, 2] },
      },
      ...(wave ? { waves: { beetles: { archetype: 'beetle', count: 3, ...wave } } } : {}),
      ...(director ? { director: 'referee' } : {}),
      ...ground,
    },
  });
  document.minds.keeper = { title: 'Keeper', activity: { do: 'wait', seconds: 1 } };
  document.archetypes.beetle = {
    ...document.archetypes.keeper,
    title: 'Beetle',
    faction: 'beetles',
    mind: 'beetle',
    health: 10,
  };
  document.minds.beetle = {
    title: 'Beetle',
    memory: { steps: { type: 'number', default: 0 } },
    machine: {
      initial: 'comes',
      states: [
        {
          id: 'comes',
          entry: [{ do: 'remember', key: 'steps', value: 'steps + 1' }],
          activity: { do: 'wander', around: 'self.post', radius: 3, pause: 0.5 },
          transitions: [{ to: 'comes', after: 1 }],
        },
      ],
    },
  };
  if (director) document.minds.referee = { title: 'Referee', ...director };
  return document;
}

export function beetles(world: World): Agent[] {
  return world.agents.filter(({ name }) => name.startsWith('beetles.'));
}

export function present(world: World): string[] {
  return beetles(world)
    .filter(({ away, isDead }) => !away && !isDead)
    .map(({ name }) => name);
}

/** Takes all of an agent's health. */
export function kill(world: World, name: string): void {
  const agent = world.agents.find((each) => each.name === name)!;
  const blow = { what: 0, of: -1, thing: -1, fromX: 0, fromY: 0, strength: 1 };
  harm(world, agent, 1000, -1, blow);
}
