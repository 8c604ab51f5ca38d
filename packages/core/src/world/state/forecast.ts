import { firstContact, gapToSector } from '../../numeric/circles.ts';
import { leadAim } from '../../numeric/lead-aim.ts';
import { atan2, cos, sin, wrapAngle } from '../../numeric/trigonometry.ts';
import type { MoveProgram } from '../program/program.ts';
import type { AgentState } from './agent-state.ts';
import { moveNamed } from './fight.ts';
import { moveBy, type Opponent } from './opponents.ts';
import type { Shot, Surroundings } from './surroundings.ts';

/**
 * When a move will hit, as all go on: each body with the velocity it has, the move turning and advancing as it
 * says. The rules are those of the phase of fighting, worked out ahead of time; a test holds the two together.
 *
 * A forecast is made in the phase of minds. Tick 0 is the one that is under way: bodies move and moves
 * hit later in it.
 */

/** Where something is before it moves in tick 0, and how far it goes in a tick, in metres. */
interface Course {
  x: number;
  y: number;
  vx: number;
  vy: number;
}

/** Who may be hit. */
interface Mark extends Course {
  radius: number;
  height: number;
}

/** Who makes the move. */
interface Maker extends Course {
  radius: number;
  /** Radians: where the body faces; NaN where it will face its mark. */
  heading: number;
  /** Whether it has a target to turn to and aim at. */
  aims: boolean;
  /** Ticks by which it sees late. */
  late: number;
  /** Ticks since the move was begun. */
  elapsed: number;
}

// One of each for all forecasts, since none outlasts another.
const mark: Mark = { x: 0, y: 0, vx: 0, vy: 0, radius: 0, height: 0 };
const maker: Maker = {
  x: 0,
  y: 0,
  vx: 0,
  vy: 0,
  radius: 0,
  heading: 0,
  aims: true,
  late: 0,
  elapsed: 0,
};
const aimed: Course = { x: 0, y: 0, vx: 0, vy: 0 };
const start = { x: 0, y: 0, z: 0, vx: 0, vy: 0, vz: 0, flown: 0 };

function setCourse(course: Course, x: number, y: number, vx: number, vy: number): void {
  course.x = x;
  course.y = y;
  course.vx = vx;
  course.vy = vy;
}

/** Distance and direction from the maker to what it aims at, as it sees it at the beginning of a tick, and stands once it has moved. */
const sight = { x: 0, y: 0 };
function aimAt(tick: number): void {
  const seenAt = tick - maker.late;
  sight.x = aimed.x + aimed.vx * seenAt - maker.x - maker.vx * (tick + 1);
  sight.y = aimed.y + aimed.vy * seenAt - maker.y - maker.vy * (tick + 1);
}

/** The tick in which a strike hits; NaN for never. */
function strikeTick({ ground }: Surroundings, move: MoveProgram): number {
  const top = Math.min(move.to, mark.height);
  if (move.from >= top) return NaN;
  const z = (move.from + top) / 2;
  let { heading } = maker;
  let advanced = 0;
  const end = move.windUp + move.active - maker.elapsed;
  for (let tick = 0; tick < end; tick++) {
    const at = maker.elapsed + tick;
    if (at < move.windUp) {
      if (heading !== heading || !maker.aims) continue;
      aimAt(tick);
      const off = wrapAngle(atan2(sight.y, sight.x) - heading);
      heading = wrapAngle(heading + Math.max(-move.turn, Math.min(move.turn, off)));
      continue;
    }
    if (heading !== heading) {
      aimAt(tick);
      heading = atan2(sight.y, sight.x);
    }
    advanced += move.advance / move.active;
    const x = maker.x + maker.vx * (tick + 1) + cos(heading) * advanced;
    const y = maker.y + maker.vy * (tick + 1) + sin(heading) * advanced;
    const [markX, markY] = [mark.x + mark.vx * (tick + 1), mark.y + mark.vy * (tick + 1)];
    const reach = maker.radius + move.reach;
    const gap = gapToSector(markX - x, markY - y, mark.radius, heading, move.halfArc, reach);
    if (gap === 0 && ground.castRay(x, y, markX, markY, 0, z) === 1) return tick;
  }
  return NaN;
}

/**
 * The tick in which what flies from {@link start} hits, flying for the first time in the tick `first`, as far
 * as `metres`, and so far in a tick; NaN for never.
 */
function flightTick(
  { ground, statics }: Surroundings,
  move: MoveProgram,
  first: number,
  metres: number,
  inTick: number,
): number {
  const dt = 1 / statics.program.ticksPerSecond;
  const room = mark.radius + move.radius;
  const speed = Math.sqrt(start.vx * start.vx + start.vy * start.vy);
  const [ux, uy] = [start.vx / speed, start.vy / speed];
  let { z, vz } = start;
  const dropping = move.kind === 'thrown' ? move.drop * dt : 0;
  for (let gone = 0, tick = first; gone < metres - 1e-9; tick++) {
    vz -= dropping;
    z += vz * dt;
    const step = Math.min(inTick, metres - gone);
    const [x, y] = [start.x + ux * gone, start.y + uy * gone];
    const [dx, dy] = [mark.x + mark.vx * (tick + 1) - x, mark.y + mark.vy * (tick + 1) - y];
    const share = firstContact(dx, dy, ux * step, uy * step, room);
    if (share <= 1 && mark.height >= z - move.radius)
      return ground.castRay(
        start.x,
        start.y,
        x + ux * step * share,
        y + uy * step * share,
        move.radius,
        z,
      ) < 1
        ? NaN
        : tick;
    // Once it is past, it does not come back, and no body is fast enough to catch up with it.
    if (z <= 0 || (dx * ux + dy * uy < -room && Math.abs(mark.vx) + Math.abs(mark.vy) < inTick))
      return NaN;
    gone += step;
  }
  return NaN;
}

/** The tick in which what is still to be sent off hits; NaN for never. `seen` is the last tick of the move of which shots are known. */
function shotTick(world: Surroundings, move: MoveProgram, seen: number): number {
  const { ticksPerSecond } = world.statics.program;
  for (let shot = 0; shot < move.shots; shot++) {
    const since = shot * Math.max(1, move.gap);
    if (since >= move.active) break;
    const tick = move.windUp + since - maker.elapsed;
    if (move.windUp + since <= seen || (tick < 0 && move.kind === 'instant')) continue;
    aimAt(tick);
    const isLed = move.lead && move.kind === 'thrown';
    const [ax, ay] = isLed
      ? leadAim(sight.x, sight.y, aimed.vx * ticksPerSecond, aimed.vy * ticksPerSecond, move.speed)
      : [sight.x, sight.y];
    const heading = maker.aims ? atan2(ay, ax) : maker.heading;
    const [ux, uy] = [cos(heading), sin(heading)];
    const from = maker.radius - move.radius;
    start.x = maker.x + maker.vx * (tick + 1) + ux * from;
    start.y = maker.y + maker.vy * (tick + 1) + uy * from;
    start.z = (move.from + move.to) / 2;
    start.vx = ux * move.speed;
    start.vy = uy * move.speed;
    start.vz = 0;
    const hit =
      move.kind === 'instant'
        ? flightTick(world, move, tick, move.reach, move.reach)
        : flightTick(world, move, tick + 1, move.reach, move.speed / ticksPerSecond);
    if (hit === hit) return hit;
  }
  return NaN;
}

/** The tick in which a shot that is in flight hits; NaN for never. */
function shotInFlightTick(world: Surroundings, shot: Shot, move: MoveProgram): number {
  start.x = shot.x;
  start.y = shot.y;
  start.z = shot.z;
  start.vx = shot.vx;
  start.vy = shot.vy;
  start.vz = shot.vz;
  const inTick = move.speed / world.statics.program.ticksPerSecond;
  return flightTick(world, move, 0, move.reach - shot.flown, inTick);
}

/**
 * Seconds until what another does, or has sent off, hits a body like this agent’s, at that place and of that
 * velocity, as all go on; NaN where it can’t. `opponent` is what is known of it, as it was `late` ticks ago.
 */
export function impactOn(
  agent: AgentState,
  other: number,
  opponent: Opponent | null,
  x: number,
  y: number,
  vx: number,
  vy: number,
  late: number,
): number {
  const world = agent.surroundings;
  const dt = 1 / agent.ticksPerSecond;
  setCourse(mark, x, y, vx * dt, vy * dt);
  mark.radius = agent.archetype.radius;
  mark.height = agent.height;
  let first = NaN;
  if (opponent) {
    for (const shot of world.shots) {
      if (shot.by !== other || shot.passed.includes(agent.index)) continue;
      const move = world.agents[other].archetype.moves[shot.move];
      if (!move || shot.flown < late * move.speed * dt) continue;
      first = earlier(first, shotInFlightTick(world, shot, move));
    }
    const move = moveBy(world, other, opponent);
    if (move && move.kind !== 'dodge')
      first = earlier(first, ownMoveTick(agent, other, opponent, move, late));
  }
  return first * dt;
}

function earlier(a: number, b: number): number {
  return a === a && !(b < a) ? a : b;
}

/** The tick in which the move that another is known to make hits the mark. */
function ownMoveTick(
  agent: AgentState,
  other: number,
  opponent: Opponent,
  move: MoveProgram,
  late: number,
): number {
  const world = agent.surroundings;
  const there = world.agents[other];
  const { fight, archetype, body } = there;
  const elapsed = agent.tick - opponent.seen.movedAt;
  const isThatMove = fight.startedAt === opponent.seen.movedAt;
  if (isThatMove && (fight.spent || fight.struck.includes(agent.index))) return NaN;
  const dt = 1 / agent.ticksPerSecond;
  const [ovx, ovy] = [opponent.vx * dt, opponent.vy * dt];
  // What was seen some ticks ago has gone on since.
  setCourse(maker, opponent.x + ovx * late, opponent.y + ovy * late, ovx, ovy);
  maker.radius = archetype.radius;
  maker.late = archetype.reactionTicks;
  maker.elapsed = elapsed;
  // The direction is in plain view: where the body faces, and, once the wind-up is over, where the move goes.
  maker.heading = elapsed > move.windUp && isThatMove ? fight.heading : body.heading;
  maker.aims = !isThatMove || fight.target >= 0;
  const target =
    fight.target < 0 || fight.target === agent.index ? null : world.agents[fight.target];
  if (target) setCourse(aimed, target.x, target.y, target.body.vx * dt, target.body.vy * dt);
  else setCourse(aimed, mark.x, mark.y, mark.vx, mark.vy);
  return move.kind === 'strike'
    ? strikeTick(world, move)
    : shotTick(world, move, elapsed - 1 - late);
}

/**
 * Whether a move of its own, begun now from that place and with that velocity, would hit another as both go on, were
 * the agent to face it; true while it makes it. The other is taken to be upright.
 */
export function wouldReach(
  agent: AgentState,
  word: number,
  target: number,
  x: number,
  y: number,
  vx: number,
  vy: number,
): boolean {
  const { archetype, known, surroundings: world, ticksPerSecond } = agent;
  const place = moveNamed(agent, word);
  const move = archetype.moves[place];
  const track = known.tracked.find(target);
  if (!move || track < 0 || move.kind === 'dodge') return false;
  // What is guarded by it must not lose its guard by beginning.
  if (agent.fight.move === place) return true;
  const { tracked } = known;
  const { archetype: other } = world.agents[target];
  const dt = 1 / ticksPerSecond;
  setCourse(
    mark,
    tracked.x(track),
    tracked.y(track),
    tracked.vx(track) * dt,
    tracked.vy(track) * dt,
  );
  mark.radius = other.radius;
  mark.height = other.height;
  // A move that takes the legs stops the body as it begins.
  const pace = move.rooted ? 0 : dt;
  setCourse(maker, x, y, vx * pace, vy * pace);
  maker.aims = true;
  maker.radius = archetype.radius;
  maker.heading = NaN;
  maker.late = 0;
  maker.elapsed = 0;
  setCourse(aimed, mark.x, mark.y, mark.vx, mark.vy);
  const tick = move.kind === 'strike' ? strikeTick(world, move) : shotTick(world, move, -1);
  return tick === tick;
}
