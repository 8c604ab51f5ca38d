import { isPlace } from '../../numeric/place.ts';
import { PLAYER_ACTS } from '../../terms/player-acts.ts';
import type { Input } from '../program/program.ts';
import type { World } from '../world.ts';

/** An input that makes no sense. Nothing was changed. */
export class InputError extends Error {
  readonly input: Input;

  constructor(input: Input, message: string) {
    super(message);
    this.name = 'InputError';
    this.input = input;
  }
}

/** What is wrong with an input, in a sentence; null where nothing is. */
function troubleWith({ agents, statics }: World, input: Input): string | null {
  const { agent, x, y, gait, act, at, move, place, control } = input;
  const { gaits } = statics.program;
  if (!agents.some(({ name }) => name === agent)) return `There is no agent “${agent}”.`;
  const of = `The input for “${agent}” has`;
  if (!Number.isFinite(x) || !Number.isFinite(y))
    return `${of} x ${x} and y ${y}. Both take a number from −1 to 1.`;
  if (gait !== null && !gaits.includes(gait))
    return `${of} the gait “${String(gait)}”. It takes ${gaits.map((each) => `“${each}”`).join(', ')}, or null for the usual one.`;
  if (act !== undefined && !PLAYER_ACTS.includes(act))
    return `${of} the act “${String(act)}”. It takes one of ${PLAYER_ACTS.join(', ')}.`;
  for (const [name, value] of Object.entries({ at, place }))
    if (value !== undefined && !isPlace(value))
      return `${of} ${JSON.stringify(value)} for “${name}”. It takes a place: two numbers, in metres.`;
  if (move !== undefined && typeof move !== 'string')
    return `${of} a move that is no name. It takes the name of a move or guard.`;
  if (control !== undefined && control !== 'player' && control !== 'minds')
    return `${of} the control “${String(control)}”. It takes “player” or “minds”.`;
  return null;
}

/** @throws {InputError} one makes no sense; none has been done by then */
export function checkInputs(world: World, inputs: readonly Input[]): void {
  for (const input of inputs) {
    const trouble = troubleWith(world, input);
    if (trouble !== null) throw new InputError(input, trouble);
  }
}
