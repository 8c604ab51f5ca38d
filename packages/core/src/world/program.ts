import type { RouteEnd, WallKind } from '../model/documents.ts';
import type { SharedKeysProgram, StackProgram } from '../mind/program.ts';

/** A whole project as the compiler gives it and the world runs it: plain data, angles in radians, times in ticks. */
export interface Program {
  title: string;
  ticksPerSecond: number;
  seed: number;
  texts: string[];
  gaits: string[];
  /** The minds of each kind of agent; after those in use, one for each mind nobody has. */
  stacks: StackProgram[];
  squadKeys: SharedKeysProgram;
  worldKeys: SharedKeysProgram;
  /** Names, ascending. */
  squads: string[];
  archetypes: ArchetypeProgram[];
  ground: GroundProgram;
  /** By name, ascending: an agent's index is its id. */
  agents: AgentProgram[];
  /** The agent a player drives from the start; −1 for none. */
  play: number;
}

export interface ArchetypeProgram {
  name: string;
  title: string;
  faction: string;
  /** −1 for no mind. */
  stack: number;
  /** Ticks until what the senses bring reaches the minds. */
  reactionTicks: number;
  radius: number;
  acceleration: number;
  turnRate: number;
  /** Speed for each of the program's gaits; NaN where this archetype lacks it. */
  paces: number[];
  gait: number;
  sight: SightProgram | null;
}

export interface SightProgram {
  cones: { range: number; halfAngle: number; gain: number }[];
  fade: number;
  graceTicks: number;
  curious: number;
  certain: number;
  forgetTicks: number;
}

export interface GroundProgram {
  name: string;
  title: string;
  width: number;
  height: number;
  walls: { kind: WallKind; x: number; y: number; width: number; height: number }[];
  routes: { name: string; title: string; points: number[]; end: RouteEnd; waitTicks: number }[];
}

export interface AgentProgram {
  name: string;
  title: string;
  archetype: number;
  x: number;
  y: number;
  heading: number;
  route: number;
  /** −1 for none: then what it would share it has alone. */
  squad: number;
}
