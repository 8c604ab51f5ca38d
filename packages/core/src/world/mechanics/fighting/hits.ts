import { because, type Reason } from '../../../terms/reasons.ts';
import { atan2, cos, sin, wrapAngle } from '../../../numeric/trigonometry.ts';
import type { MoveProgram } from '../../program/program.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { guardOf, isCovering, moveOf } from '../../state/fight.ts';
import { recordFor } from '../../state/record.ts';
import type { Surroundings } from '../../state/surroundings.ts';
import type { HitResult } from '../../../terms/fighting.ts';
import { harm } from './harm.ts';
import { breakMove, shove } from './moves.ts';

/** Which agents moves meet, the result and its effects: all hits of a tick are found before any is applied. */

/** One hit, found and not yet applied. */
export interface Hit {
  by: number;
  of: number;
  move: MoveProgram;
  result: HitResult;
  /** Points of health it takes. */
  harm: number;
  /** Where it meets the body. */
  x: number;
  y: number;
  z: number;
  /** Radians: where it pushes. */
  heading: number;
}

/** Distance from a point to the segment from the origin in direction `angle`, `length` long. */
function toEdge(x: number, y: number, angle: number, length: number): number {
  const [dx, dy] = [cos(angle), sin(angle)];
  const along = Math.max(0, Math.min(length, x * dx + y * dy));
  const [ox, oy] = [x - dx * along, y - dy * along];
  return Math.sqrt(ox * ox + oy * oy);
}

/**
 * How far a circle is from a sector, in metres; 0 where they meet. The sector has its point at the origin
 * and looks toward `heading`.
 */
export function gapToSector(
  x: number,
  y: number,
  radius: number,
  heading: number,
  halfArc: number,
  reach: number,
): number {
  const away = Math.sqrt(x * x + y * y);
  const off = Math.abs(wrapAngle(atan2(y, x) - heading));
  if (away <= radius || off <= halfArc) return Math.max(0, away - radius - reach);
  const edge = Math.min(
    toEdge(x, y, heading + halfArc, reach),
    toEdge(x, y, heading - halfArc, reach),
  );
  return Math.max(0, edge - radius);
}

/** The heights at which a move meets a body as it stands; null where it passes over or under it. */
function metHeights({ from, to }: MoveProgram, height: number): [number, number] | null {
  const [low, high] = [Math.max(0, from), Math.min(to, height)];
  return low < high ? [low, high] : null;
}

/** What comes of it when a move meets a body from somewhere at these heights. */
export function resultOf(
  target: AgentState,
  move: MoveProgram,
  fromX: number,
  fromY: number,
  heights: readonly [number, number],
): { result: HitResult; share: number } {
  const { fight, tick } = target;
  const own = moveOf(target);
  if (own?.kind === 'dodge') {
    const since = tick - fight.startedAt - own.windUp;
    if (since >= 0 && since < own.invulnerable) return { result: 'dodged', share: 0 };
  }
  const guard = guardOf(target);
  if (!guard || target.asleep || !isCovering(guard, fight.raisedAt, tick))
    return { result: 'landed', share: 1 };
  const off = Math.abs(wrapAngle(atan2(fromY - target.y, fromX - target.x) - target.heading));
  const middle = (heights[0] + heights[1]) / 2;
  if (off > guard.halfArc || middle < guard.from || middle > guard.to)
    return { result: 'landed', share: 1 };
  const isParried = move.kind === 'strike' && tick - fight.raisedAt - guard.raise < guard.parry;
  return isParried
    ? { result: 'parried', share: 0 }
    : { result: 'guarded', share: guard.damageShare };
}

/** Whether a move of the one can hit the other at all. */
export function canBeHit(attacker: AgentState, other: AgentState): boolean {
  return other !== attacker && !other.isDead && !other.away && !attacker.isFriendly(other.index);
}

/** Notes how near a strike came to its target. */
function noteMiss(attacker: AgentState, other: AgentState, gap: number): void {
  const { fight } = attacker;
  if (fight.target >= 0 && fight.target !== other.index) return;
  if (gap < fight.missedBy) fight.missedBy = gap;
}

/** Finds the agents that a strike meets in this tick. */
export function findStruck(world: Surroundings, attacker: AgentState, hits: Hit[]): void {
  const move = moveOf(attacker)!;
  const { fight, x, y, archetype } = attacker;
  const reach = archetype.radius + move.reach;
  const before = hits.length;
  for (const other of world.agents) {
    if (!canBeHit(attacker, other) || fight.struck.includes(other.index)) continue;
    const [dx, dy] = [other.x - x, other.y - y];
    const { radius } = other.archetype;
    // Most are nowhere near.
    if (Math.abs(dx) > reach + radius + 8 || Math.abs(dy) > reach + radius + 8) continue;
    const gap = gapToSector(dx, dy, radius, fight.heading, move.halfArc, reach);
    const heights = metHeights(move, other.height);
    noteMiss(attacker, other, heights ? gap : Math.max(gap, move.from - other.height));
    if (gap > 0 || !heights) continue;
    const z = (heights[0] + heights[1]) / 2;
    const isWalled = world.ground.castRay(x, y, other.x, other.y, 0, z) < 1;
    const { result, share } = isWalled
      ? { result: 'walled' as const, share: 0 }
      : resultOf(other, move, x, y, heights);
    hits.push({
      by: attacker.index,
      of: other.index,
      move,
      result,
      harm: move.damage * share,
      x: other.x - (dx / (Math.sqrt(dx * dx + dy * dy) || 1)) * radius,
      y: other.y - (dy / (Math.sqrt(dx * dx + dy * dy) || 1)) * radius,
      z,
      heading: atan2(dy, dx),
    });
    fight.struck.push(other.index);
  }
  if (!move.hitsOne || hits.length <= before + 1) return;
  // Of several that are met at once the nearest is the first.
  let nearest = before;
  for (let i = before + 1; i < hits.length; i++)
    if (awayFrom(world, hits[i]) < awayFrom(world, hits[nearest])) nearest = i;
  hits[before] = hits[nearest];
  hits.length = before + 1;
}

function awayFrom({ agents }: Surroundings, { by, of }: Hit): number {
  const [a, b] = [agents[by], agents[of]];
  return a.awayFrom(b.x, b.y);
}

/** Applies a hit: harm, push and stagger, and what it tells the ledger and both minds. */
export function applyHit(world: Surroundings, hit: Hit): void {
  const { agents, statics, recorder } = world;
  const [attacker, target] = [agents[hit.by], agents[hit.of]];
  const { move, result } = hit;
  attacker.fight.lastResult = statics.words[result];
  if (recorder)
    recordFor(attacker, recorder, {
      kind: 'hit',
      move: move.name,
      of: target.name,
      result,
      harm: hit.harm,
      x: hit.x,
      y: hit.y,
      z: hit.z,
    });
  if (result === 'walled' || result === 'dodged') return;
  const blow = {
    what: statics.words.hit,
    of: hit.by,
    thing: -1,
    fromX: attacker.x,
    fromY: attacker.y,
    strength: 1,
  };
  if (result === 'parried') {
    const guard = guardOf(target);
    if (guard) stagger(world, attacker, guard.stagger, because('parriedBy', target.placed.title));
    return;
  }
  harm(world, target, hit.harm, hit.by, blow);
  attacker.fight.landedAt = result === 'landed' ? world.tick : attacker.fight.landedAt;
  if (result !== 'landed') return;
  target.fight.hitAt = world.tick;
  if (target.isDead) return;
  if (move.knockback > 0) shove(world, target, hit.heading, move.knockback);
  if (move.stagger > 0)
    stagger(world, target, move.stagger, because('hitBy', attacker.placed.title));
}

/** Takes legs and arms for so many ticks, and breaks off what is not sturdy. */
function stagger(world: Surroundings, agent: AgentState, ticks: number, why: Reason): void {
  if (moveOf(agent)?.sturdy) return;
  const { fight } = agent;
  breakMove(world, agent, why);
  fight.guard = -1;
  fight.staggeredUntil = Math.max(fight.staggeredUntil, world.tick + ticks + 1);
  agent.body.vx = 0;
  agent.body.vy = 0;
}

/** What a strike that met no agent reports: by how much it missed. */
export function tellMiss(world: Surroundings, attacker: AgentState): void {
  const move = moveOf(attacker)!;
  const { fight, x, y } = attacker;
  fight.lastResult = world.statics.words.missed;
  if (!world.recorder) return;
  const of = world.agents[fight.target]?.name ?? '';
  recordFor(attacker, world.recorder, {
    kind: 'hit',
    move: move.name,
    of,
    result: 'missed',
    harm: 0,
    x: x + cos(fight.heading) * (attacker.archetype.radius + move.reach),
    y: y + sin(fight.heading) * (attacker.archetype.radius + move.reach),
    z: (move.from + move.to) / 2,
    ...(Number.isFinite(fight.missedBy) ? { missedBy: fight.missedBy } : {}),
  });
}
