import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import {
  BODY_POINTS,
  clearShare,
  coneGainAt,
  sightStrength,
  type SightKind,
} from '../../senses/sight.ts';
import type { Agent } from '../../world/agents/agent.ts';
import { lookFrom, senseAll } from '../../world/phases/senses.ts';
import { lightAt } from '../../world/state/light.ts';
import type { World } from '../../world/world.ts';
import { revisitBefore } from '../run.ts';
import {
  askedOf,
  checkTick,
  condition,
  degreesText,
  entriesOf,
  fact,
  lastBefore,
  QuestionError,
  type Question,
  type Statement,
} from './statement.ts';
import { perceptFact } from './why.ts';

/** Whether and how an agent notices another at a tick: each thing that sight rests on, and what senses brought before. */

/** So many of the latest percepts are listed. */
const LISTED = 12;

function conesText({ cones }: SightKind): string {
  return cones
    .map(({ range, halfAngle }) => `${degreesText(halfAngle)} to each side up to ${range} m`)
    .join(', ');
}

/** What must be so for sight to begin at all, and is not; null where all of it is. */
function missing({ statics }: World, agent: Agent, other: Agent): string | null {
  const { title } = other.placed;
  if (agent.away) return 'it is on the ground';
  if (agent.isDead) return 'it is alive';
  if (agent.asleep || agent.resting) return 'it is awake: sleeping agents sense nothing';
  if (statics.sights[agent.placed.archetype] === null) return 'it has sight';
  if (other.away) return `${title} is on the ground`;
  if (other.isDead) return `${title} is alive: the dead are found, not seen`;
  if (statics.strangers[agent.archetype.side]?.includes(other.index) !== true)
    return `${title} is friendly: friends are not looked at`;
  return null;
}

/** Everything that sight of another rests on in the tick, each whether it holds. */
function bySight(world: World, agent: Agent, other: Agent): Statement {
  const not = missing(world, agent, other);
  if (not !== null) return condition(false, not);
  const kind = world.statics.sights[agent.placed.archetype]!;
  const { title } = other.placed;
  const { ground } = world;
  const looker = lookFrom(agent, { x: 0, y: 0, heading: 0, faceX: 1, faceY: 0, eye: 0 });
  const { body, height, posture } = other;
  const target = { x: body.x, y: body.y, height, posture };
  const [dx, dy] = [target.x - looker.x, target.y - looker.y];
  const distance = Math.sqrt(dx * dx + dy * dy);
  const covered = coneGainAt(kind, looker, dx, dy, distance) > 0;
  const inReach = distance < kind.reach;
  // Asked for one point alone it gives the share of those in plain view, however many are needed.
  const clear = clearShare(ground, looker, target, 1);
  const points = Math.round(clear * BODY_POINTS.length);
  const light = lightAt(world, target.x, target.y);
  const rate = sightStrength(kind, ground, looker, target) * light;
  return {
    ...fact(
      rate > 0
        ? `it is in sight: awareness rises by ${rate.toFixed(3)} a second`
        : 'it is in sight',
      null,
      [
        condition(inReach, `${title} is ${distance.toFixed(1)} m away, of ${kind.reach} m it sees`),
        condition(
          covered,
          `${degreesText(Math.abs(wrapAngle(atan2(dy, dx) - looker.heading)))} off where it looks, with cones of ${conesText(kind)}`,
        ),
        condition(
          points >= kind.points,
          `${points} of ${BODY_POINTS.length} points of ${title} are in plain view, of ${kind.points} needed`,
        ),
        condition(light > 0, `the light on ${title} is ${light.toFixed(2)} of 1`),
        condition(posture > 0, `its gait gives away ${Math.round(posture * 100)} %`),
      ],
      [{ part: 'awareness a second', value: rate.toFixed(3) }],
    ),
    holds: rate > 0,
  };
}

function levelWords(awareness: number, kind: SightKind | null): string {
  if (kind && awareness >= kind.certain) return 'is certain of';
  if (kind && awareness >= kind.curious) return 'is curious about';
  return awareness > 0 ? 'has begun to notice' : 'notices';
}

/**
 * Whether the agent notices another in that tick, with all that its sight rests on then, and the latest percepts of
 * every sense. Throws a {@link QuestionError} where no agent has that name, or the tick can't be asked about.
 */
export function howItNotices(question: Question, of: string): Statement {
  checkTick(question);
  const { run, tick } = question;
  if (tick - 1 < run.keptFrom)
    throw new QuestionError(`What was before tick ${run.keptFrom} is no longer kept.`);
  const world = revisitBefore(run, tick, 'senses');
  const asked = askedOf(world, question);
  const { agent } = asked;
  const other = world.agents.find(({ name }) => name === of);
  if (!other || other === agent)
    throw new QuestionError(
      `There is no other agent “${of}”. There are: ${world.agents
        .filter((each) => each !== agent)
        .map(({ name }) => name)
        .join(', ')}.`,
    );
  const seeing = bySight(world, agent, other);
  senseAll(world);
  const kind = world.statics.sights[agent.placed.archetype];
  const awareness = agent.known.sight.awareness(agent.known.sight.find(other.index));
  const entries = entriesOf(question, asked);
  const percepts = entries.flatMap((entry) =>
    entry.kind === 'percept' && entry.of === of ? [perceptFact(entry)] : [],
  );
  const turned = lastBefore(
    entries,
    'percept',
    entries.length - 1,
    ({ sense, of: seen }) => sense === 'sight' && seen === of,
  );
  return {
    ...fact(
      `${agent.placed.title} ${levelWords(awareness, kind)} ${other.placed.title}`,
      turned < 0 ? null : entries[turned].tick,
      [seeing, ...percepts.reverse().slice(0, LISTED)],
      kind
        ? [
            { part: 'awareness', value: awareness.toFixed(2) },
            { part: 'curious from', value: String(kind.curious) },
            { part: 'certain from', value: String(kind.certain) },
          ]
        : [],
    ),
    holds: awareness > 0,
  };
}
