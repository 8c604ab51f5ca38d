import { because, type Reason } from '../../terms/reasons.ts';
import { whoStandsAt } from '../mechanics/game/room.ts';
import { drop, gateInReach, pickUp, thingInReach, throwAt, use } from '../mechanics/hands/hands.ts';
import { call } from '../mechanics/telling/messages.ts';
import { beginMove, lowerGuard, raiseGuard } from '../mechanics/fighting/moves.ts';
import { atan2, wrapAngle } from '../../numeric/trigonometry.ts';
import type { Agent } from '../agents/agent.ts';
import type { Input } from '../program/program.ts';
import { recordFor } from '../state/record.ts';
import type { World } from '../world.ts';

/** What players do, live or scripted. */
export function takeInputs(world: World, inputs: readonly Input[]): void {
  const { scripted } = world.statics;
  for (const input of scripted.get(world.tick) ?? []) applyInput(world, input);
  for (const input of inputs) applyInput(world, input);
}

/** Does one thing with the hands; returns why it can't be, or null. */
function act(world: World, agent: Agent, input: Input): Reason | null {
  const { act: what, at, move } = input;
  if (what && agent.away) return because('absent');
  if (what && agent.asleep) return because('lying');
  switch (what) {
    case 'pickUp': {
      const thing = thingInReach(world, agent);
      return thing < 0 ? because('nothingInReach') : pickUp(world, agent, thing);
    }
    case 'drop':
      return drop(world, agent);
    case 'throw':
      return at ? throwAt(world, agent, at[0], at[1]) : because('throwPlaceMissing');
    case 'use': {
      const gate = gateInReach(world, agent);
      return gate < 0 ? because('noGateInReach') : use(world, agent, gate);
    }
    case 'strike':
    case 'dodge':
      return makeMove(world, agent, what, input);
    case 'guard':
      return raiseGuard(
        agent,
        placeNamed(agent.archetype.guards, move, () => true),
      );
    case 'call':
      call(world, agent);
      return null;
    case 'lower':
      lowerGuard(agent);
      return null;
    default:
      return null;
  }
}

/** Place of what is named; else of the first that fits. */
function placeNamed<T extends { name: string }>(
  list: readonly T[],
  name: string | undefined,
  fits: (each: T) => boolean,
): number {
  return list.findIndex((each) => (name === undefined ? fits(each) : each.name === name));
}

/** The target of a player’s move: the nearest enemy in front of it, since a player sees for itself. */
function aimedAt({ agents }: World, agent: Agent): number {
  let best = -1;
  let least = Infinity;
  for (const other of agents) {
    if (other === agent || other.isDead || !agent.self.isHostile(other.index)) continue;
    const off = Math.abs(wrapAngle(atan2(other.y - agent.y, other.x - agent.x) - agent.heading));
    const away = agent.awayFrom(other.x, other.y) * (1 + off);
    // Absent agents are at no distance.
    if (!(away < least)) continue;
    best = other.index;
    least = away;
  }
  return best;
}

function makeMove(
  world: World,
  agent: Agent,
  what: 'strike' | 'dodge',
  input: Input,
): Reason | null {
  const move = placeNamed(
    agent.archetype.moves,
    input.move,
    ({ kind }) => (kind === 'dodge') === (what === 'dodge'),
  );
  if (move < 0) return because(what === 'dodge' ? 'noDodge' : 'noMove');
  // A dodge goes where the legs are steered, else back.
  const isSteered = input.x !== 0 || input.y !== 0;
  const heading = isSteered ? atan2(input.y, input.x) : agent.heading + Math.PI;
  return beginMove(world, agent, move, aimedAt(world, agent), heading);
}

function applyInput(world: World, input: Input): void {
  const agent = world.agents.find((candidate) => candidate.name === input.agent);
  if (!agent) return;
  const { body, archetype, program } = agent;
  world.acting = agent.index;
  if (input.place && agent.away) return record(world, agent, input, because('absent'));
  if (input.place) {
    const trouble = putDown(world, agent, input.place[0], input.place[1]);
    return record(world, agent, input, trouble);
  }
  if (input.control === 'minds') {
    body.steerX = NaN;
    body.steerY = NaN;
  } else {
    body.steerX = input.x;
    body.steerY = input.y;
    const gait = input.gait === null ? archetype.gait : program.gaits.indexOf(input.gait);
    if (gait >= 0 && !Number.isNaN(archetype.speeds[gait])) agent.setGait(gait);
  }
  record(world, agent, input, act(world, agent, input));
}

function record(world: World, agent: Agent, input: Input, trouble: Reason | null): void {
  if (!world.recorder) return;
  const { x, y, gait, act: what, at, move, place, control } = input;
  recordFor(agent, world.recorder, {
    kind: 'input',
    x,
    y,
    gait,
    ...(what ? { act: what } : {}),
    ...(at ? { at } : {}),
    ...(move ? { move } : {}),
    ...(place ? { place } : {}),
    ...(control ? { control } : {}),
    ...(trouble ? { trouble } : {}),
  });
}

/** Moves a body to where there is room for it; returns why it can't be, or null. */
function putDown(world: World, agent: Agent, x: number, y: number): Reason | null {
  const { body, archetype } = agent;
  if (world.ground.isBlocked(x, y, archetype.radius)) return because('wall');
  const inWay = whoStandsAt(world, agent, x, y);
  if (inWay) return because('occupied', inWay.placed.title);
  body.x = x;
  body.y = y;
  body.vx = 0;
  body.vy = 0;
  body.pathX = NaN;
  body.markX = x;
  body.markY = y;
  return null;
}
