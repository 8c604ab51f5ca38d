import type { ProjectDocument } from '@crooked-lantern/core';
import { project } from './orchards.ts';

/** The keepers and beetles of Harvest Night against each other, two hundred a side, without its waves. */

const HARVEST = 'demo/harvest-night.lantern.json';
const PER_ROW = 20;

export function battle(each: number): ProjectDocument {
  const document = project(HARVEST);
  const ground = document.grounds[document.start.ground];
  // Fallen agents respawn, so that the fight goes on.
  for (const archetype of Object.values(document.archetypes)) archetype.respawnDelay = 1;
  const placed = (archetype: string, i: number, x: number, away: number, heading: number) => ({
    archetype,
    at: [
      x + away * Math.floor(i / PER_ROW),
      1.5 + (i % PER_ROW) * ((ground.height - 3) / (PER_ROW - 1)),
    ] as [number, number],
    heading,
  });
  ground.agents = Object.fromEntries(
    Array.from({ length: each }, (_, i) => [
      [`keeper${i}`, placed('keeper', i, 18, -0.9, 0)] as const,
      [`beetle${i}`, placed('beetle', i, 22, 0.9, 180)] as const,
    ]).flat(),
  );
  delete ground.director;
  delete ground.waves;
  delete ground.spawns;
  delete ground.scores;
  ground.walls = [];
  ground.lamps = {};
  delete document.minds.night;
  document.start = { ground: document.start.ground, seed: 1 };
  return document;
}
