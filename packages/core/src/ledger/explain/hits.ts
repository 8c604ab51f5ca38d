import { gapToSector } from '../../numeric/circles.ts';
import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import { WORD_INDICES } from '../../terms/senses.ts';
import type { Agent } from '../../world/agents/agent.ts';
import { canBeHit } from '../../world/mechanics/fighting/hits.ts';
import type { MoveProgram } from '../../world/program/program.ts';
import { guardOf, isCovering, moveOf, phaseAt } from '../../world/state/fight.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import type { World } from '../../world/world.ts';
import { programAt, replayTick, revisit, revisitBefore, type RunPast } from '../run.ts';
import {
  checkTick,
  condition,
  degreesText,
  fact,
  QuestionError,
  type Question,
  type Statement,
} from './statement.ts';

/** Why a move hit or missed, and why it took so much: each thing it rests on, against what would have hit. */

type Hit = Extract<LedgerEntry, { kind: 'hit' }>;

/** Whether the agent made the move, or it was meant for it. */
export type HitSide = 'dealt' | 'taken';

/** Metres within which an edge that is met counts as met. */
const TOUCHING = 0.01;

const metres = (value: number) => `${value.toFixed(2)} m`;

/** The latest hit or miss up to the tick; null for none. */
function latest({ run, agent, tick }: Question, side: HitSide): Hit | null {
  const found = run.entries.findLast(
    (entry) =>
      entry.kind === 'hit' &&
      entry.tick <= tick &&
      (side === 'dealt' ? entry.agent : entry.of) === agent,
  );
  return (found as Hit | undefined) ?? null;
}

/** A world in the middle of a tick, as moves find it. */
function inFight(run: RunPast, tick: number): World {
  return revisitBefore(run, tick, 'fighting');
}

interface Pair {
  attacker: Agent;
  /** The agent it met or was meant for; for a strike at no one, the nearest agent it could have met. */
  target: Agent | null;
  move: MoveProgram;
}

function pairIn({ agents }: World, { agent, of, move: name }: Hit): Pair | null {
  const attacker = agents.find((each) => each.name === agent);
  const move = attacker?.archetype.moves.find((each) => each.name === name);
  if (!attacker || !move) return null;
  const target = agents.find((each) => each.name === of) ?? null;
  if (target || move.kind !== 'strike') return { attacker, move, target };
  const far = (other: Agent) => gapOf({ attacker, move }, other);
  const [nearest = null] = agents
    .filter((other) => canBeHit(attacker, other))
    .sort((one, other) => far(one) - far(other));
  return { attacker, move, target: nearest };
}

const gapOf = ({ attacker, move }: Pick<Pair, 'attacker' | 'move'>, target: Agent) =>
  gapToSector(
    target.body.x - attacker.body.x,
    target.body.y - attacker.body.y,
    target.archetype.radius,
    attacker.fight.heading,
    move.halfArc,
    attacker.archetype.radius + move.reach,
  );

/** The tick in which the move that hit or missed was begun; that of the hit where it is no longer kept. */
function begunAt({ entries, keptFrom }: RunPast, hit: Hit): number {
  const began = entries.findLast(
    (entry) =>
      entry.kind === 'move' &&
      entry.agent === hit.agent &&
      entry.move === hit.move &&
      entry.tick <= hit.tick,
  );
  return began && began.tick >= keptFrom ? began.tick : hit.tick;
}

/** The tick in which a strike that missed came nearest to its target, of those in which it could hit. */
function nearestTick(run: RunPast, hit: Hit, { move }: Pair): number {
  let best = hit.tick;
  if (hit.result !== 'missed' || move.kind !== 'strike') return best;
  let least = Infinity;
  for (
    let world = revisit(run, begunAt(run, hit));
    world.tick < hit.tick;
    world = replayTick(run, world)
  ) {
    const pair = pairIn(world, hit);
    if (!pair?.target || moveOf(pair.attacker) !== pair.move) continue;
    const { startedAt } = pair.attacker.fight;
    if (phaseAt(pair.move, world.tick - startedAt) !== WORD_INDICES.active) continue;
    const gap = gapOf(pair, pair.target);
    if (gap >= least) continue;
    least = gap;
    best = world.tick;
  }
  return best;
}

/** The heights it meets a body at. */
function heightsFact({ from, to }: MoveProgram, { height, placed }: Agent): Statement {
  return condition(
    from < height,
    `it goes from ${metres(Math.max(0, from))} to ${metres(to)} above the floor, and ${placed.title} is ${metres(height)} high`,
  );
}

/** What a strike rests on: distance, direction, heights, and that no wall is between. */
function strikeFacts({ ground }: World, pair: Pair, target: Agent): Statement[] {
  const { attacker, move } = pair;
  const [dx, dy] = [target.body.x - attacker.body.x, target.body.y - attacker.body.y];
  const away = Math.sqrt(dx * dx + dy * dy);
  const between = Math.max(0, away - attacker.archetype.radius - target.archetype.radius);
  const off = Math.abs(wrapAngle(atan2(dy, dx) - attacker.fight.heading));
  const isBeside = gapToSector(
    dx,
    dy,
    target.archetype.radius,
    attacker.fight.heading,
    move.halfArc,
    away + target.archetype.radius,
  );
  const z = (Math.max(0, move.from) + Math.min(move.to, target.height)) / 2;
  const clear =
    ground.castRay(attacker.body.x, attacker.body.y, target.body.x, target.body.y, 0, z) >= 1;
  return [
    condition(
      between <= move.reach,
      `${target.placed.title} was ${metres(between)} away from edge to edge, of ${metres(move.reach)} it reaches`,
    ),
    condition(
      isBeside === 0,
      `${target.placed.title} was ${degreesText(off)} off its direction, of ${degreesText(move.halfArc)} to each side and half its body`,
    ),
    heightsFact(move, target),
    condition(clear, 'no wall stood between'),
  ];
}

/** What something that flies rests on: how far it flew, how near it passed, and at what height. */
function shotFacts(run: RunPast, hit: Hit, { attacker, move, target }: Pair): Statement[] {
  // Who sent it off may have gone on since.
  const sent = Math.min(hit.tick, begunAt(run, hit) + move.windUp);
  const { x, y } = pairIn(revisit(run, sent), hit)?.attacker.body ?? attacker.body;
  const [dx, dy] = [hit.x - x, hit.y - y];
  const within = attacker.archetype.radius - move.radius;
  const flown = Math.max(0, Math.sqrt(dx * dx + dy * dy) - within);
  const facts = [fact(`it flew ${metres(flown)}, of ${metres(move.reach)} it reaches`, null)];
  if (!target) return facts;
  const [ox, oy] = [target.body.x - x, target.body.y - y];
  const length = Math.sqrt(dx * dx + dy * dy) || 1;
  const along = (ox * dx + oy * dy) / length;
  const beside = Math.abs(ox * dy - oy * dx) / length;
  const room = target.archetype.radius + move.radius;
  const { title } = target.placed;
  return [
    ...facts,
    condition(
      along - room <= length + TOUCHING,
      `${title} was ${metres(Math.max(0, along))} along its way, which ended after ${metres(length)}`,
    ),
    condition(
      beside <= room,
      `its way led past the middle of ${title} at ${metres(beside)}, of ${metres(room)} at which it hits`,
    ),
    condition(
      hit.z - move.radius <= target.height,
      `it was ${metres(hit.z)} above the floor there, and ${title} is ${metres(target.height)} high`,
    ),
  ];
}

/** What the guard of a target had to do with it; nothing where it held none. */
function guardFacts(
  { tick }: World,
  hit: Hit,
  { attacker, move }: Pair,
  target: Agent,
): Statement[] {
  const { fight, body } = target;
  const { title } = target.placed;
  if (fight.untouchableUntil > tick) return [fact(`${title} was invulnerable, from a dodge`, null)];
  const guard = guardOf(target);
  if (!guard) return [fact(`${title} held no guard`, null)];
  const seconds = (ticks: number) => `${(ticks / target.ticksPerSecond).toFixed(2)} s`;
  const held = tick - fight.raisedAt;
  const comesFrom = atan2(attacker.body.y - body.y, attacker.body.x - body.x);
  const off = Math.abs(wrapAngle(comesFrom - body.heading));
  const covers = isCovering(guard, fight.raisedAt, tick);
  return [
    fact(`${title} held ${guard.title}`, fight.raisedAt, [
      condition(
        covers,
        `it was raised ${seconds(held)} before; it covers after ${seconds(guard.raise)}, for ${seconds(guard.maxDuration)}`,
      ),
      condition(
        off <= guard.halfArc,
        `the hit came from ${degreesText(off)} off its front, of ${degreesText(guard.halfArc)} to each side`,
      ),
      condition(
        hit.z >= guard.from && hit.z <= guard.to,
        `the hit came at ${metres(hit.z)}, and it covers ${metres(guard.from)} to ${metres(guard.to)}`,
      ),
      ...(guard.parry > 0 && move.kind === 'strike'
        ? [
            condition(
              covers && held - guard.raise < guard.parry,
              `it parries in the first ${seconds(guard.parry)}`,
            ),
          ]
        : []),
    ]),
  ];
}

/** Where its damage comes from, and what is left of the health of the target. */
function damageFacts({ entries }: RunPast, hit: Hit, { move }: Pair, target: Agent): Statement[] {
  if (!(hit.harm > 0)) return [];
  const points = (value: number) => Number(value.toFixed(2));
  const taken = entries.find(
    (entry) =>
      entry.kind === 'harm' &&
      entry.tick === hit.tick &&
      entry.agent === hit.of &&
      entry.by === hit.agent,
  );
  const share = move.damage > 0 ? hit.harm / move.damage : 0;
  const made = fact(
    share === 1
      ? `${points(hit.harm)} points of damage: all of the ${points(move.damage)} of ${move.title}`
      : `${points(hit.harm)} points of damage: ${Math.round(share * 100)} % of the ${points(move.damage)} of ${move.title}`,
    hit.tick,
  );
  const { title } = target.placed;
  if (taken?.kind !== 'harm')
    return [made, fact(`${title} has no health that could be taken`, hit.tick)];
  return [made, fact(`${title} had ${points(taken.left)} points of health left`, hit.tick)];
}

const WORDS: Record<Hit['result'], string> = {
  landed: 'landed on',
  guarded: 'was guarded by',
  parried: 'was parried by',
  dodged: 'was dodged by',
  missed: 'missed',
  walled: 'met a wall on its way to',
};

/**
 * Why the latest move of the agent, or the latest that was meant for it, hit or missed, and why it took so much. Throws
 * a {@link QuestionError} where there was none up to the tick, or what was there is no longer kept.
 */
export function howItHit(question: Question, side: HitSide): Statement {
  checkTick(question);
  const { run, agent: name } = question;
  const hit = latest(question, side);
  if (!hit) {
    const { agents } = programAt(run, question.tick);
    const title = agents.find((each) => each.name === name)?.title ?? name;
    throw new QuestionError(
      side === 'dealt'
        ? `${title} has made no move up to here that hit or missed.`
        : `No move has hit ${title} up to here, or missed it.`,
    );
  }
  if (hit.tick - 1 < run.keptFrom)
    throw new QuestionError(`What was before tick ${run.keptFrom} is no longer kept.`);
  const end = inFight(run, hit.tick);
  const endPair = pairIn(end, hit);
  const tick = endPair ? nearestTick(run, hit, endPair) : hit.tick;
  const world = tick === hit.tick ? end : inFight(run, tick);
  const pair = tick === hit.tick ? endPair : pairIn(world, hit);
  if (!pair) throw new QuestionError(`An edit has taken ${hit.move} away since.`);
  const { attacker, target, move } = pair;
  const object = hit.of !== '' && target ? ` ${target.placed.title}` : ' everyone';
  const by =
    hit.result === 'missed' && hit.missedBy !== undefined ? ` by ${metres(hit.missedBy)}` : '';
  const geometry =
    move.kind === 'strike' && target ? strikeFacts(world, pair, target) : shotFacts(run, hit, pair);
  const isMet = hit.result !== 'missed' && hit.result !== 'walled' && target !== null;
  return fact(
    `${move.title} of ${attacker.placed.title} ${WORDS[hit.result]}${object}${by}`,
    hit.tick,
    [
      ...(target?.isDead
        ? [condition(false, `${target.placed.title} was alive: the dead are not hit`)]
        : []),
      ...(tick === hit.tick ? geometry : [fact('when it was nearest', tick, geometry)]),
      ...(isMet ? guardFacts(world, hit, pair, target) : []),
      ...(isMet ? damageFacts(run, hit, pair, target) : []),
    ],
  );
}
