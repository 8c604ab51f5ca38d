import type { ProjectDocument } from '@crooked-lantern/core';
import { project } from './orchards.ts';

/** Two lines of keepers that fight each other, each with the choices, moves and guards of the Keeper’s Duel. */

const DUEL = 'demo/keepers-duel.lantern.json';

export function twoLines(each: number): ProjectDocument {
  const document = project(DUEL);
  const { keeper } = document.archetypes;
  // Fallen agents respawn, so that the fight goes on.
  const fighter = { ...keeper, recycle: 1 };
  document.archetypes = {
    keeper: fighter,
    rival: { ...fighter, title: 'Rival', faction: 'rivals' },
  };
  const perRow = 20;
  const side = 4 + Math.ceil(each / perRow) * 2;
  const agents: ProjectDocument['grounds'][string]['agents'] = {};
  for (let i = 0; i < each; i++) {
    const [row, column] = [Math.floor(i / perRow), i % perRow];
    const y = 3 + column * 1.6;
    agents[`keeper${i}`] = { archetype: 'keeper', at: [side - row * 1.4, y], heading: 0 };
    agents[`rival${i}`] = { archetype: 'rival', at: [side + 3 + row * 1.4, y], heading: 180 };
  }
  document.grounds = {
    yard: {
      title: 'Yard',
      width: side * 2 + 3,
      height: 6 + perRow * 1.6,
      light: 0.8,
      walls: [],
      routes: {},
      agents,
    },
  };
  delete document.setups;
  delete document.factions;
  document.start = { ground: 'yard', seed: 1 };
  delete document.tiers;
  return document;
}
