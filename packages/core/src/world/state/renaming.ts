import type { Program } from '../program/program.ts';

/** What one program's indices are in another; −1 where what they meant is gone. */
export interface Renaming {
  agent(index: number): number;
  thing(index: number): number;
  squad(index: number): number;
  gate(index: number): number;
  route(index: number): number;
  text(index: number): number;
}

export function renaming(from: Program, to: Program): Renaming {
  const texts = new Map(to.texts.map((text, index) => [text, index]));
  return {
    agent: byName(from.agents, to.agents),
    thing: byName(from.ground.things, to.ground.things),
    squad: byName(from.squads, to.squads),
    gate: byName(from.ground.gates, to.ground.gates),
    route: byName(from.ground.routes, to.ground.routes),
    text: (index) => texts.get(from.texts[index]) ?? -1,
  };
}

interface Named {
  name: string;
}

function byName(from: readonly Named[], to: readonly Named[]): (index: number) => number {
  const indices = new Map(to.map(({ name }, index) => [name, index]));
  return (index) => indices.get(from[index]?.name) ?? -1;
}
