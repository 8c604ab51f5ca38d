import type { Around, GameFacts } from '../../expression/facts.ts';
import { GATE_OPEN } from '../program/program.ts';
import { Opponents, trueOpponent, type Opponent } from './opponents.ts';
import type { Surroundings } from './surroundings.ts';

/** What is true of a world, whatever any agent knows of it. */
export class TrueAround extends Opponents implements Around {
  readonly game: GameFacts;
  readonly #world: () => Surroundings;

  constructor(world: () => Surroundings, game: GameFacts) {
    super();
    this.#world = world;
    this.game = game;
  }

  protected get world(): Surroundings {
    return this.#world();
  }
  protected opponent(agent: number): Opponent | null {
    return trueOpponent(this.world, agent);
  }

  seconds(): number {
    const { tick, statics } = this.world;
    return tick / statics.program.ticksPerSecond;
  }
  get tier(): number {
    return this.world.statics.program.tier;
  }
  isOpen(gate: number): boolean {
    return this.world.gates[gate] === GATE_OPEN;
  }
  zoneX(zone: number): number {
    const box = this.world.statics.program.ground.zones[zone];
    return box ? box.x + box.width / 2 : NaN;
  }
  zoneY(zone: number): number {
    const box = this.world.statics.program.ground.zones[zone];
    return box ? box.y + box.height / 2 : NaN;
  }
  x(agent: number): number {
    return this.world.agents[agent]?.x ?? NaN;
  }
  y(agent: number): number {
    return this.world.agents[agent]?.y ?? NaN;
  }
  thingX(thing: number): number {
    return this.world.things[thing]?.x ?? NaN;
  }
  thingY(thing: number): number {
    return this.world.things[thing]?.y ?? NaN;
  }
  thingWeight(thing: number): number {
    return this.world.statics.program.ground.things[thing]?.weight ?? NaN;
  }
}
