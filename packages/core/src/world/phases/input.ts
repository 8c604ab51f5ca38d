import { whoStandsAt } from '../mechanics/room.ts';
import { drop, gateInReach, pickUp, thingInReach, throwAt, use } from '../mechanics/hands.ts';
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

/** Does one thing with the hands; why it can't be, or an empty text. */
function act(world: World, agent: Agent, { act: what, at }: Input): string {
  if (what && agent.asleep) return 'it lies on the ground';
  switch (what) {
    case 'pickUp': {
      const thing = thingInReach(world, agent);
      return thing < 0 ? 'nothing to pick up is in reach' : pickUp(world, agent, thing);
    }
    case 'drop':
      return drop(world, agent);
    case 'throw':
      return at ? throwAt(world, agent, at[0], at[1]) : 'it is not said where to';
    case 'use': {
      const gate = gateInReach(world, agent);
      return gate < 0 ? 'no gate is in reach' : use(world, agent, gate);
    }
    default:
      return '';
  }
}

function applyInput(world: World, input: Input): void {
  const agent = world.agents.find((candidate) => candidate.name === input.agent);
  if (!agent) return;
  const { body, archetype, program } = agent;
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
    if (gait >= 0 && !Number.isNaN(archetype.paces[gait])) agent.setGait(gait);
  }
  record(world, agent, input, act(world, agent, input));
}

function record(world: World, agent: Agent, input: Input, trouble: string): void {
  if (!world.recorder) return;
  const { x, y, gait, act: what, at, place, control } = input;
  recordFor(agent, world.recorder, {
    kind: 'input',
    x,
    y,
    gait,
    ...(what ? { act: what } : {}),
    ...(at ? { at } : {}),
    ...(place ? { place } : {}),
    ...(control ? { control } : {}),
    ...(trouble ? { trouble } : {}),
  });
}

/** Moves a body to where there is room for it; why it can't be, or an empty text. */
function putDown(world: World, agent: Agent, x: number, y: number): string {
  const { body, archetype } = agent;
  if (world.ground.isBlocked(x, y, archetype.radius)) return 'there is a wall';
  const inWay = whoStandsAt(world, agent, x, y);
  if (inWay) return `${inWay.placed.title} stands there`;
  body.x = x;
  body.y = y;
  body.vx = 0;
  body.vy = 0;
  body.pathX = NaN;
  body.markX = x;
  body.markY = y;
  return '';
}
