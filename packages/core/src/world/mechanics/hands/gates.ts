import { because, type Reason } from '../../../terms/reasons.ts';
import type { AgentState } from '../../state/agent-state.ts';
import {
  GATE_CLOSED,
  GATE_LOCKED,
  GATE_OPEN,
  distanceToBox,
  type BoxProgram,
  type GateStatus,
} from '../../program/program.ts';
import type { Surroundings } from '../../state/surroundings.ts';

/** Gates open and close while the world runs: for bodies, sight, light, sound and paths. */

/** How far a gate is heard when it opens or closes. */
const GATE_NOISE = 5;

/** Metres from a place to a gate. */
export function distanceToGate(
  { statics }: Surroundings,
  gate: number,
  x: number,
  y: number,
): number {
  return distanceToBox(statics.program.ground.gates[gate], x, y);
}

/** Brings the ground to where the gates are; for the start and after restoring. */
export function settleGates(world: Surroundings): void {
  world.gates.forEach((_, gate) => settleGate(world, gate));
}

function settleGate({ ground, gates }: Surroundings, gate: number): void {
  ground.setGate(gate, gates[gate] !== GATE_OPEN);
}

/** Whether the rest of a body's way leads past a gate. */
function leadsPast(agent: AgentState, box: BoxProgram): boolean {
  const { body } = agent;
  const margin = agent.archetype.radius + 0.3;
  let [x, y] = [body.x, body.y];
  for (let i = body.pathAt; i + 1 < body.path.length; i += 2) {
    const [nextX, nextY] = [body.path[i], body.path[i + 1]];
    const left = Math.min(x, nextX) - margin;
    const right = Math.max(x, nextX) + margin;
    const top = Math.min(y, nextY) - margin;
    const bottom = Math.max(y, nextY) + margin;
    if (left < box.x + box.width && right > box.x && top < box.y + box.height && bottom > box.y)
      return true;
    [x, y] = [nextX, nextY];
  }
  return false;
}

/** Whether a body stands where the gate would close. */
function isGateBlocked(world: Surroundings, gate: number): boolean {
  const box = world.statics.program.ground.gates[gate];
  return world.agents.some(
    ({ body, archetype }) => distanceToBox(box, body.x, body.y) < archetype.radius,
  );
}

/** Sets a gate; agents on their way through find another. */
function setGate(world: Surroundings, gate: number, status: GateStatus, maker: number): void {
  const box = world.statics.program.ground.gates[gate];
  world.gates[gate] = status;
  settleGate(world, gate);
  world.noises.push({
    what: world.statics.words.gate,
    x: box.x + box.width / 2,
    y: box.y + box.height / 2,
    reach: GATE_NOISE,
    maker,
    thing: -1,
  });
  for (const agent of world.agents) {
    if (agent.body.path.length === 0) continue;
    // A gate that opened may offer a shorter way to anyone.
    if (status === GATE_OPEN || leadsPast(agent, box)) agent.body.pathX = NaN;
  }
}

/** Why a gate can't be moved by hand now; null where it can. */
export function whyGateStays(world: Surroundings, gate: number): Reason | null {
  const status = world.gates[gate];
  if (status === GATE_LOCKED) return because('gateLocked');
  return status === GATE_OPEN && isGateBlocked(world, gate) ? because('gateOccupied') : null;
}

/** Opens a closed gate, closes an open one. */
export function useGate(world: Surroundings, gate: number, by: number): void {
  setGate(world, gate, world.gates[gate] === GATE_OPEN ? GATE_CLOSED : GATE_OPEN, by);
}

/** Sets a gate to what it is to be, locked or not; returns why it can't be, or null. */
export function moveGate(world: Surroundings, gate: number, status: GateStatus): Reason | null {
  if (world.gates[gate] === status) return null;
  if (status !== GATE_OPEN && isGateBlocked(world, gate)) return because('gateOccupied');
  setGate(world, gate, status, -1);
  return null;
}

/** A gate with plates is open while an agent stands on one of them, and as it was at the start otherwise. */
export function pressPlates(world: Surroundings): void {
  const { plates } = world.statics.program.ground;
  if (plates.length === 0) return;
  for (const gate of world.statics.platedGates) {
    const presser = plates
      .filter((plate) => plate.gate === gate)
      .map((plate) =>
        world.agents.findIndex(({ body }) => distanceToBox(plate, body.x, body.y) === 0),
      )
      .find((agent) => agent >= 0);
    const start = world.statics.startingGates[gate];
    const status = presser === undefined ? start : GATE_OPEN;
    if (world.gates[gate] === status) continue;
    if (status !== GATE_OPEN && isGateBlocked(world, gate)) continue;
    setGate(world, gate, status, presser ?? -1);
  }
}
