import { because } from '../../terms/reasons.ts';
import { reasonText } from '../../world/readout/reason-text.ts';
import { length } from '../../numeric/distance.ts';
import { FORCES } from '../../motion/body.ts';
import { LEGS_ARRIVED, LEGS_FAILED, LEGS_MOVING } from '../../motion/legs.ts';
import type { Agent } from '../../world/agents/agent.ts';
import type { World } from '../../world/world.ts';
import { revisit } from '../run.ts';
import {
  activeStates,
  askedOf,
  checkTick,
  entriesOf,
  fact,
  lastBefore,
  placeOf,
  type Asked,
  type Question,
  type Statement,
} from './statement.ts';
import { endFact } from './why.ts';

/** Why an agent moves as it does at a tick: the forces on its body, and where its way leads. */

/** Metres per second below which a body counts as standing, and a force as none. */
const NOTHING = 0.005;
/** Metres between two bodies within which the other is named. */
const NEAR = 1.5;
/** Seconds without getting on that are worth a word. */
const HELD = 0.5;

type Force = (typeof FORCES)[number];

function forceOf({ body }: Agent, force: Force): number {
  const at = 2 * FORCES.indexOf(force);
  return length(body.forces[at], body.forces[at + 1]);
}

function speedWords(speed: number): string {
  return `${speed.toFixed(2)} m/s`;
}

/** Others on the ground beside it, the nearest first. */
function others(world: World, agent: Agent): Statement[] {
  return world.agents
    .flatMap((other) => {
      if (other === agent || other.away || other.isDead) return [];
      const between =
        length(other.body.x - agent.body.x, other.body.y - agent.body.y) -
        agent.archetype.radius -
        other.archetype.radius;
      return between < NEAR ? [{ between, title: other.placed.title }] : [];
    })
    .sort((a, b) => a.between - b.between)
    .map(({ between, title }) =>
      fact(`${title} is ${Math.max(0, between).toFixed(2)} m beside it`, null),
    );
}

/** What it did last, and how that ended. */
function didLast(question: Question, asked: Asked): Statement[] {
  const entries = entriesOf(question, asked);
  const last = lastBefore(entries, 'end', entries.length - 1);
  const entry = last < 0 ? undefined : entries[last];
  return entry?.kind === 'end' ? [endFact(question, asked, entry)] : [];
}

/** Where its way leads, and who set it on it. */
function onItsWay(question: Question, asked: Asked): Statement[] {
  const { agent } = asked;
  const { body } = agent;
  if (!Number.isNaN(body.steerX)) return [fact('a player steers it', null)];
  const to = `(${body.goalX.toFixed(1)}, ${body.goalY.toFixed(1)})`;
  const state = asked.mind.program.machine.states[activeStates(asked).at(-1) ?? -1];
  const sent = state && {
    ...fact(`set out in ${state.title}`, body.goalTick),
    place: placeOf(asked, state.id, state.title),
  };
  if (body.legs === LEGS_FAILED)
    return [
      fact(
        `it found no way to ${to}${body.trouble && `: ${reasonText(because(body.trouble))}`}`,
        body.goalTick,
      ),
    ];
  if (body.legs === LEGS_ARRIVED) return [fact(`it is where it was to go: ${to}`, body.goalTick)];
  if (body.legs !== LEGS_MOVING)
    return [fact('nothing sends it anywhere', null, didLast(question, asked))];
  return [
    fact(
      `toward ${to}, with ${body.wayLeft.toFixed(1)} m to go`,
      body.goalTick,
      sent ? [sent] : [],
      [{ part: 'its part', value: speedWords(forceOf(agent, 'seek')) }],
    ),
    ...(body.held > HELD ? [fact(`it has been blocked for ${body.held.toFixed(1)} s`, null)] : []),
  ];
}

const WORDS: Record<Exclude<Force, 'seek'>, string> = {
  separate: 'away from bodies that have the right of way and are too near',
  avoid: 'around a body in its way, or one coming the other way',
};

/** The forces that others put on it. */
function becauseOfOthers(world: World, agent: Agent): Statement[] {
  return (Object.keys(WORDS) as (keyof typeof WORDS)[]).flatMap((force) => {
    const size = forceOf(agent, force);
    if (size < NOTHING) return [];
    return [
      fact(WORDS[force], null, others(world, agent), [
        { part: 'its part', value: speedWords(size) },
      ]),
    ];
  });
}

/** Why the agent moves, or stands, as it does in that tick. Throws a QuestionError where that can't be asked. */
export function whyItMoves(question: Question): Statement {
  checkTick(question);
  const world = revisit(question.run, question.tick);
  const asked = askedOf(world, question);
  const { agent } = asked;
  const { vx, vy, pace } = agent.body;
  const speed = length(vx, vy);
  const { title } = agent.placed;
  const moves = speed >= NOTHING;
  return fact(
    moves ? `${title} moves at ${speedWords(speed)}` : `${title} stands still`,
    null,
    [...becauseOfOthers(world, agent), ...onItsWay(question, asked)],
    moves
      ? [
          { part: 'x', value: vx.toFixed(2) },
          { part: 'y', value: vy.toFixed(2) },
          { part: 'pace', value: speedWords(pace) },
        ]
      : [],
  );
}
