import { cos, sin } from '../../../numeric/trigonometry.ts';
import { THING_RADIUS, type MoveProgram } from '../../program/program.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { recordFor } from '../../state/record.ts';
import type { Surroundings } from '../../state/surroundings.ts';
import { gapToSector } from '../../../numeric/circles.ts';
import { isFlying, land } from '../hands/things.ts';

/** Things that lie in the way of a strike are knocked away, and heard as they come to rest. */

/** A thing that is met in this tick: by all that meet it together. */
export interface Knock {
  thing: number;
  /** Metres. */
  dx: number;
  dy: number;
  /** Who met it; of several the last. */
  by: number;
  move: MoveProgram;
}

/** Metres above the ground that a thing reaches. */
const THING_HEIGHT = 0.4;
/** Metres it goes at least. */
const LEAST = 0.3;
const STEP = 0.1;

/** Finds what a strike meets in this tick, once a use. */
export function findKnocked(
  world: Surroundings,
  agent: AgentState,
  move: MoveProgram,
  knocks: Knock[],
): void {
  if (move.from >= THING_HEIGHT) return;
  const { fight, x, y, archetype } = agent;
  const reach = archetype.radius + move.reach;
  world.things.forEach((thing, index) => {
    if (thing.carrier >= 0 || isFlying(thing) || fight.knocked.includes(index)) return;
    const [dx, dy] = [thing.x - x, thing.y - y];
    if (gapToSector(dx, dy, THING_RADIUS, fight.heading, move.halfArc, reach) > 0) return;
    if (world.ground.castRay(x, y, thing.x, thing.y, 0, THING_HEIGHT / 2) < 1) return;
    fight.knocked.push(index);
    const metres = Math.max(LEAST, move.knockback);
    const away = Math.sqrt(dx * dx + dy * dy);
    const [ux, uy] = away > 0 ? [dx / away, dy / away] : [cos(fight.heading), sin(fight.heading)];
    const known = knocks.find((knock) => knock.thing === index);
    if (!known) {
      knocks.push({ thing: index, dx: ux * metres, dy: uy * metres, by: agent.index, move });
      return;
    }
    known.dx += ux * metres;
    known.dy += uy * metres;
    known.by = agent.index;
    known.move = move;
  });
}

/** Carries a thing off, up to a wall. */
export function applyKnock(world: Surroundings, { thing: index, dx, dy, by, move }: Knock): void {
  const thing = world.things[index];
  const metres = Math.sqrt(dx * dx + dy * dy);
  for (let gone = 0; gone < metres; gone += STEP) {
    const step = Math.min(STEP, metres - gone) / metres;
    const [x, y] = [thing.x + dx * step, thing.y + dy * step];
    if (world.ground.isBlocked(x, y, THING_RADIUS)) break;
    thing.x = x;
    thing.y = y;
  }
  thing.mover = by;
  land(world, index, 0.5);
  if (world.recorder)
    recordFor(world.agents[by], world.recorder, {
      kind: 'knocked',
      move: move.name,
      thing: world.statics.program.ground.things[index].name,
      x: thing.x,
      y: thing.y,
    });
}
