import type { Program } from './program.ts';

/**
 * A program as text, so that a game can ship it and read it back exactly. It is JSON; the numbers that
 * JSON has no word for stand as text behind a tilde, and text that begins with a tilde gets another.
 */

const PROGRAM_FORMAT = 'crooked-lantern/program';
/** Raised whenever a program of before would be read wrongly. */
export const PROGRAM_VERSION = 2;

const NUMBERS: ReadonlyMap<string, number> = new Map([
  ['~NaN', NaN],
  ['~Infinity', Infinity],
  ['~-Infinity', -Infinity],
  ['~-0', -0],
]);

function encodeValue(_: string, value: unknown): unknown {
  if (typeof value === 'string') return value.startsWith('~') ? `~${value}` : value;
  if (typeof value !== 'number') return value;
  if (Object.is(value, -0)) return '~-0';
  return value - value === 0 ? value : `~${value}`;
}

function decodeValue(_: string, value: unknown): unknown {
  if (typeof value !== 'string' || !value.startsWith('~')) return value;
  const number = NUMBERS.get(value);
  if (number !== undefined) return number;
  if (value.startsWith('~~')) return value.slice(1);
  throw new Error(`“${value}” is no number.`);
}

export function encodeProgram(program: Program): string {
  return JSON.stringify({ format: PROGRAM_FORMAT, version: PROGRAM_VERSION, program }, encodeValue);
}

/** The program a text holds. Throws an Error that says why where it holds none of this version. */
export function decodeProgram(text: string): Program {
  let value: unknown;
  try {
    value = JSON.parse(text, decodeValue);
  } catch (error) {
    throw new Error(`This is no compiled program: ${(error as Error).message}`, { cause: error });
  }
  const { format, version, program } = (value ?? {}) as Record<string, unknown>;
  if (format !== PROGRAM_FORMAT)
    throw new Error('This is no compiled program. Compile the project file first.');
  if (version !== PROGRAM_VERSION)
    throw new Error(
      `This program was compiled for version ${String(version)} of the runtime; this one reads version ${PROGRAM_VERSION}. Compile the project file again.`,
    );
  return program as Program;
}
