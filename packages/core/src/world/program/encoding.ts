import { seal, unseal, type Seal } from '../../numeric/sealed-text.ts';
import type { Program } from './program.ts';

/** Raised whenever a program of before would be read wrongly. */
export const PROGRAM_VERSION = 3;

const PROGRAM: Seal = {
  format: 'crooked-lantern/program',
  version: PROGRAM_VERSION,
  what: 'compiled program',
  remedy: 'Compile the project file again.',
};

/** A program as text, so that a game can ship it and read it back exactly. */
export function encodeProgram(program: Program): string {
  return seal(PROGRAM, program);
}

/**
 * The program a text holds.
 *
 * @throws {Error} it holds none, or one of another version, or is damaged
 */
export function decodeProgram(text: string): Program {
  return unseal(PROGRAM, text) as Program;
}
