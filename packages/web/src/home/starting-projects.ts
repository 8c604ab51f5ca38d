import {
  PATTERNS,
  type MindDocument,
  type MoveDocument,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { newProject } from './new-project.ts';

/** Small projects to begin from, of patterns that can be put into any mind. */
export interface StartingProject {
  id: string;
  title: string;
  about: string;
  make(): ProjectDocument;
}

/** A pattern as a mind, with its own numbers but for these. */
function mindOf(
  pattern: string,
  title: string,
  numbers: Readonly<Record<string, number>> = {},
  move = '',
): MindDocument {
  const { parameters, make } = PATTERNS.find(({ id }) => id === pattern)!;
  const values = Object.fromEntries(parameters.map(({ name, value }) => [name, value]));
  return { ...make({ ...values, ...numbers }, move), title };
}

const SWING: MoveDocument = {
  title: 'Swing',
  windUp: 0.35,
  active: 0.12,
  recovery: 0.45,
  reach: 1.1,
  damage: 12,
  knockback: 0.4,
};
const HOP: MoveDocument = {
  title: 'Hop',
  kind: 'dodge',
  active: 0.25,
  recovery: 0.1,
  cooldown: 0.8,
  advance: 1.8,
  invulnerable: 0.2,
};

function guardAndThief(): ProjectDocument {
  const project = newProject('A guard and a thief');
  const { orchard } = project.grounds;
  project.note =
    'A guard walks its round. Get to the far side unseen; it chases and searches for anyone it notices.';
  project.minds = { keeper: mindOf('patrol', 'Guard') };
  project.archetypes.keeper.title = 'Guard';
  orchard.walls = [
    { at: [4, 8], size: [4, 0.6] },
    { at: [12, 8], size: [4, 0.6] },
    { at: [7, 14], size: [6, 0.6] },
  ];
  orchard.routes = {
    round: {
      title: 'Round',
      points: [
        [3, 6],
        [17, 6],
        [17, 17],
        [3, 17],
      ],
    },
  };
  orchard.agents.keeper = { ...orchard.agents.keeper, title: 'Guard', route: 'round' };
  orchard.agents.gleaner = { ...orchard.agents.gleaner, title: 'Thief', at: [10, 21] };
  return project;
}

function duel(): ProjectDocument {
  const project = newProject('A duel');
  project.note =
    'One opponent, who circles, waits for an opening and strikes. F strikes, Q hops away.';
  project.minds = { keeper: mindOf('hesitate', 'Keeper', {}, 'swing') };
  const { orchard } = project.grounds;
  orchard.walls = [];
  orchard.agents.gleaner = { ...orchard.agents.gleaner, at: [10, 12] };
  for (const archetype of [project.archetypes.gleaner, project.archetypes.keeper]) {
    archetype.health = 60;
    archetype.moves = { swing: SWING };
  }
  project.archetypes.gleaner.moves = { swing: SWING, hop: HOP };
  return project;
}

function waves(): ProjectDocument {
  const project = duel();
  project.title = 'Waves';
  project.note = 'Six come from two sides, and again when all are down. F strikes, Q hops away.';
  const { orchard } = project.grounds;
  delete orchard.agents.keeper;
  orchard.spawns = {
    north: { title: 'North gap', at: [10, 5], heading: 90 },
    south: { title: 'South gap', at: [10, 19], heading: -90 },
  };
  orchard.waves = {
    band: {
      title: 'Band',
      archetype: 'keeper',
      count: 6,
      gap: 2,
      times: 3,
      delay: 4,
      at: ['north', 'south'],
    },
  };
  project.archetypes.keeper.health = 24;
  return project;
}

export const STARTING_PROJECTS: readonly StartingProject[] = [
  {
    id: 'guard',
    title: 'A guard and a thief',
    about: 'patrol, sight, chase and search',
    make: guardAndThief,
  },
  { id: 'duel', title: 'A duel', about: 'moves, health, an opponent that strikes', make: duel },
  { id: 'waves', title: 'Waves', about: 'opponents that come from two sides', make: waves },
];
