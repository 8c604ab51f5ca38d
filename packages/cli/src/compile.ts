import { encodeProgram } from '@crooked-lantern/core';
import { compiledFile } from './read-file.ts';

/** Prints a project file as the program that a game runs with the runtime alone. */
export function compile(file: string): number {
  const program = compiledFile(file, 'it was not compiled');
  if (!program) return 1;
  process.stdout.write(`${encodeProgram(program)}\n`);
  return 0;
}
