import { CHANNELS } from '../../terms/channels.ts';
import { SENSE_KINDS, SENSES, type Sense } from '../../terms/senses.ts';
import { distance } from '../../numeric/distance.ts';
import { readList } from '../../mind/machine/cells.ts';
import type { Agent } from '../agents/agent.ts';
import type { World } from '../world.ts';
import { actionOn } from './picture.ts';
import { readMindOf, type MindReadout } from './readout.ts';

/** What there is to say of one agent at this tick: what it does, what it knows, and what is true. */
export interface FollowedReadout {
  agent: string;
  title: string;
  /** By mind, the titles of its active states, outermost first. */
  minds: { mind: string; title: string; states: string[] }[];
  /** What has each part of its body: “legs: moveTo”. */
  acts: { channel: string; action: string }[];
  /** What its attention is on, in words; empty for nothing. */
  attention: string;
  /** Highest awareness by sight, 0 to 1. */
  awareness: number;
  /** Points; null for an agent that can’t be hurt. */
  health: number | null;
  role: string;
  memory: MindReadout['memory'];
  known: KnownOther[];
  percepts: { sense: Sense; what: string; of: string; seconds: number }[];
}

/** Where it believes an agent to be, against where that agent is. */
interface KnownOther {
  of: string;
  title: string;
  x: number;
  y: number;
  trueX: number;
  trueY: number;
  /** Metres between the two. */
  off: number;
  /** Seconds since it saw them; 0 while they are in sight. */
  seconds: number;
  /** 0 to 1. */
  awareness: number;
}

function actsOf(agent: Agent): FollowedReadout['acts'] {
  return CHANNELS.flatMap((channel, i) => {
    const action = actionOn(agent, i);
    return action === '' ? [] : [{ channel, action }];
  });
}

function knownOf(agent: Agent, { agents }: World): KnownOther[] {
  return agent.noticed.flatMap(({ of, x, y, visible, seenAt, awareness }) => {
    const other = agents[of];
    if (x - x !== 0 || !other) return [];
    return [
      {
        of: other.name,
        title: other.placed.title,
        x,
        y,
        trueX: other.x,
        trueY: other.y,
        off: distance(x, y, other.x, other.y),
        seconds: visible ? 0 : (agent.tick - seenAt) / agent.ticksPerSecond,
        awareness,
      },
    ];
  });
}

function attentionOf(agent: Agent, { agents }: World): string {
  const { attentionSense: by, attentionOf: of, attentionStrength } = agent.known;
  if (by < 0) return '';
  const title = agents[of]?.placed.title ?? agent.program.texts[agent.percepts[by]?.what ?? -1];
  const sense = SENSE_KINDS[SENSES[by]].title.toLowerCase();
  return `${title ?? 'something'}, by ${sense}, ${attentionStrength.toFixed(2)}`;
}

/** The readout of an agent by name; null where there is none. */
export function readFollowed(world: World, name: string): FollowedReadout | null {
  const agent = world.agents.find((candidate) => candidate.name === name);
  if (!agent) return null;
  const { program, minds, known } = agent;
  const { health } = agent.life;
  return {
    agent: name,
    title: agent.placed.title,
    minds: minds.map((mind) => ({
      mind: mind.program.name,
      title: mind.program.title,
      states: readList(agent.memory, mind.machine.cells.active).map(
        (at) => mind.program.machine.states[at].title,
      ),
    })),
    acts: actsOf(agent),
    attention: attentionOf(agent, world),
    awareness: known.awarenessShown,
    health: health - health === 0 ? health : null,
    role: program.texts[agent.role] ?? '',
    memory: minds.length > 0 ? readMindOf(agent, minds[0], null).memory : [],
    known: knownOf(agent, world),
    percepts: agent.percepts.flatMap((percept, sense) =>
      percept === null
        ? []
        : [
            {
              sense: SENSES[sense],
              what: program.texts[percept.what],
              of: world.agents[percept.of]?.placed.title ?? '',
              seconds: known.perceptAge(sense),
            },
          ],
    ),
  };
}
