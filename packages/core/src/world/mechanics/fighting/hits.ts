import { because, type Reason } from '../../../terms/reasons.ts';
import { gapToSector } from '../../../numeric/circles.ts';
import { atan2, cos, sin, wrapAngle } from '../../../numeric/trigonometry.ts';
import type { MoveProgram } from '../../program/program.ts';
import type { AgentState } from '../../state/agent-state.ts';
import { guardOf, isCovering, moveOf } from '../../state/fight.ts';
import { recordFor } from '../../state/record.ts';
import type { Surroundings } from '../../state/surroundings.ts';
import type { HitResult } from '../../../terms/fighting.ts';
import { harm } from './harm.ts';
import { breakMove, push } from './moves.ts';

/** Which agents moves meet, the result and its effects: all hits of a tick are found before any is applied. */

/** Metres beyond its reach up to which a strike notes by how much it missed. */
const NOTED = 8;

/** One hit, found and not yet applied. */
export interface Hit {
  by: number;
  of: number;
  move: MoveProgram;
  result: HitResult;
  /** The share of it that goes through. */
  share: number;
  /** Where it meets the body. */
  x: number;
  y: number;
  z: number;
  /** Radians: where it pushes. */
  heading: number;
  /** Where it came from: the attacker, or where what flies was sent off. */
  fromX: number;
  fromY: number;
}

/** The heights at which a move meets a body as it stands; null where it passes over or under it. */
function metHeights({ from, to }: MoveProgram, height: number): [number, number] | null {
  const [low, high] = [Math.max(0, from), Math.min(to, height)];
  return low < high ? [low, high] : null;
}

/** What comes of it when a move meets a body at these heights; `side` is the direction, seen from the body, that it comes from. */
export function resultOf(
  target: AgentState,
  move: MoveProgram,
  side: number,
  heights: readonly [number, number],
): { result: HitResult; share: number } {
  const { fight, tick } = target;
  if (fight.untouchableUntil > tick) return { result: 'dodged', share: 0 };
  const guard = guardOf(target);
  if (!guard || target.asleep || !isCovering(guard, fight.raisedAt, tick))
    return { result: 'landed', share: 1 };
  const off = Math.abs(wrapAngle(side - target.heading));
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

/** How far an agent is from the sector of a strike that goes on; notes how near it came to its target, or to anyone where it has none. */
function gapTo(attacker: AgentState, move: MoveProgram, other: AgentState): number {
  const { fight, x, y, archetype } = attacker;
  const gap = gapToSector(
    other.x - x,
    other.y - y,
    other.archetype.radius,
    fight.heading,
    move.halfArc,
    archetype.radius + move.reach,
  );
  const isMeant = fight.target < 0 || fight.target === other.index;
  const missed = move.from < other.height ? gap : Math.max(gap, move.from - other.height);
  if (isMeant && missed < fight.missedBy && missed <= NOTED) fight.missedBy = missed;
  return gap;
}

const near: number[] = [];

/** Finds the agents that a strike meets in this tick. */
export function findStruck(world: Surroundings, attacker: AgentState, hits: Hit[]): void {
  const move = moveOf(attacker)!;
  const { fight, x, y, archetype } = attacker;
  const reach = archetype.radius + move.reach;
  const before = hits.length;
  const target = world.agents[fight.target];
  if (target && canBeHit(attacker, target)) gapTo(attacker, move, target);
  const most = reach + world.statics.largestRadius + (target ? 0 : NOTED);
  const count = world.ground.near(x, y, most, near);
  for (let i = 0; i < count; i++) {
    const other = world.agents[near[i]];
    if (!canBeHit(attacker, other) || fight.struck.includes(other.index)) continue;
    const [dx, dy] = [other.x - x, other.y - y];
    const { radius } = other.archetype;
    if (gapTo(attacker, move, other) > 0) continue;
    const heights = metHeights(move, other.height);
    if (!heights) continue;
    const z = (heights[0] + heights[1]) / 2;
    const isWalled = world.ground.castRay(x, y, other.x, other.y, 0, z) < 1;
    const { result, share } = isWalled
      ? { result: 'walled' as const, share: 0 }
      : resultOf(other, move, atan2(-dy, -dx), heights);
    const away = Math.sqrt(dx * dx + dy * dy) || 1;
    hits.push({
      by: attacker.index,
      of: other.index,
      move,
      result,
      share,
      x: other.x - (dx / away) * radius,
      y: other.y - (dy / away) * radius,
      z,
      heading: atan2(dy, dx),
      fromX: x,
      fromY: y,
    });
    fight.struck.push(other.index);
  }
  // The file decides nothing: hits come in the order of the agents.
  if (hits.length > before + 1) sortFrom(hits, before);
  if (move.hitsOne) fight.spent = keepNearest(world, hits, before);
}

function sortFrom(hits: Hit[], from: number): void {
  const sorted = hits.slice(from).sort((a, b) => a.of - b.of);
  for (let i = 0; i < sorted.length; i++) hits[from + i] = sorted[i];
}

/** Of all met at once leaves the nearest; one who dodged it, or stands behind a wall, is not in the way. Returns whether any is left that was not. */
function keepNearest(world: Surroundings, hits: Hit[], from: number): boolean {
  let nearest: Hit | null = null;
  const takesIt = ({ result }: Hit) => result !== 'dodged' && result !== 'walled';
  for (let i = from; i < hits.length; i++) {
    if (!takesIt(hits[i])) continue;
    if (!nearest || awayFrom(world, hits[i]) < awayFrom(world, nearest)) nearest = hits[i];
  }
  let kept = from;
  for (let i = from; i < hits.length; i++)
    if (hits[i] === nearest || !takesIt(hits[i])) hits[kept++] = hits[i];
  hits.length = kept;
  return nearest !== null;
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
      harm: move.damage * hit.share,
      x: hit.x,
      y: hit.y,
      z: hit.z,
    });
  if (result === 'walled' || result === 'dodged') return;
  const blow = {
    what: statics.words.hit,
    of: hit.by,
    thing: -1,
    fromX: hit.fromX,
    fromY: hit.fromY,
    strength: 1,
  };
  if (result === 'parried') {
    const guard = guardOf(target);
    if (guard) stagger(world, attacker, guard.stagger, because('parriedBy', target.placed.title));
    return;
  }
  harm(world, target, move.damage * hit.share, hit.by, blow);
  if (!target.isDead && move.knockback > 0) push(target, hit.heading, move.knockback * hit.share);
  if (result !== 'landed') return;
  attacker.fight.landedAt = world.tick;
  target.fight.hitAt = world.tick;
  if (target.isDead) return;
  if (move.stagger > 0)
    stagger(world, target, move.stagger, because('hitBy', attacker.placed.title));
}

/** Takes legs and arms for so many ticks, and breaks off what is not sturdy. */
function stagger(world: Surroundings, agent: AgentState, ticks: number, why: Reason): void {
  if (moveOf(agent)?.sturdy) return;
  const { fight } = agent;
  breakMove(world, agent, why);
  if (fight.guard >= 0) fight.loweredBy = why;
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
