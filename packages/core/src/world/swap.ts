import { transplantMachine } from '../mind/machine/transplant.ts';
import { stopLegs } from '../motion/body.ts';
import { circleBlocked } from '../space/walls.ts';
import type { Agent } from './agent.ts';
import type { Program } from './program.ts';
import { recordFor } from './record-agent.ts';
import { createStatics } from './statics.ts';
import { createWorld, setRecorder, type World } from './world.ts';

function carryBody(old: Agent, agent: Agent): void {
  const { body } = agent;
  const { pace } = body;
  Object.assign(body, old.body, { path: old.body.path.slice(), pace });
  const gait = agent.program.gaits.indexOf(old.program.gaits[old.gait]);
  if (gait >= 0 && !Number.isNaN(agent.archetype.paces[gait])) agent.setGait(gait);
  if (circleBlocked(agent.statics.walls, body.x, body.y, agent.archetype.radius)) {
    body.x = agent.placed.x;
    body.y = agent.placed.y;
    stopLegs(body);
  }
}

function carryTracks(old: Agent, agent: Agent): void {
  const { agents } = agent.program;
  agent.tracks = old.tracks.flatMap((track) => {
    const of = agents.findIndex((other) => other.name === old.program.agents[track.of].name);
    return of < 0 ? [] : [{ ...track, of }];
  });
  agent.attend();
}

function carryMemory(old: Agent, agent: Agent): void {
  if (!old.mind || !agent.mind) return;
  const { keys } = agent.mind.program;
  old.mind.program.keys.forEach((was, index) => {
    const key = keys.findIndex((now) => now.name === was.name && now.type === was.type);
    if (key < 0 || old.mindState!.writtenAt[index] < 0) return;
    let value = old.memory[was.slot];
    if (was.type === 'agent') {
      const name = old.program.agents[value]?.name;
      value = agent.program.agents.findIndex((other) => other.name === name);
      if (value < 0) return;
    }
    if (was.type === 'text') {
      value = agent.program.texts.indexOf(old.program.texts[value]);
      if (value < 0) return;
    }
    const { slot } = keys[key];
    agent.memory[slot] = value;
    if (was.type === 'point') agent.memory[slot + 1] = old.memory[was.slot + 1];
    agent.mindState!.writtenAt[key] = old.mindState!.writtenAt[index];
  });
}

function carryMachine(old: Agent, agent: Agent): { from: string; to: string }[] {
  if (!old.mind || !agent.mind || old.mind.program.name !== agent.mind.program.name) return [];
  const { state, moved, activityCut } = transplantMachine(
    old.mind.program.machine,
    old.mindState!.machine,
    agent.mind.program.machine,
    agent.mind.machine,
  );
  agent.mindState!.machine = state;
  if (activityCut) {
    stopLegs(agent.body);
    agent.freeEyes();
  }
  return moved;
}

/**
 * The world as it goes on under an edited program from the next tick: agents keep body, senses, luck,
 * memory by key and active states by id; agents that are new start where they are placed.
 */
export function swapProgram(world: World, program: Program, edit: number, seed: number): World {
  const next = createWorld(program, seed, createStatics(program, world.statics));
  next.tick = world.tick;
  next.decideFor = world.decideFor;
  setRecorder(next, world.recorder);
  world.recorder?.({ tick: world.tick, agent: '', kind: 'edit', edit });
  for (const agent of next.agents) {
    agent.tick = world.tick;
    const old = world.agents.find((candidate) => candidate.name === agent.name);
    if (!old) continue;
    carryBody(old, agent);
    carryTracks(old, agent);
    agent.stream = old.stream.slice();
    agent.inbox = old.inbox.slice();
    agent.speech = old.speech;
    agent.spokenAt = old.spokenAt;
    carryMemory(old, agent);
    const moved = carryMachine(old, agent);
    if (world.recorder)
      for (const move of moved) recordFor(agent, world.recorder, { kind: 'moved', ...move });
  }
  return next;
}
