import { encodeProgram } from '@crooked-lantern/core';
import { print } from './output.ts';
import { compiledFile } from './read-file.ts';

/** Prints a project file as the program that a game runs with the runtime alone. */
export async function compile(file: string): Promise<number> {
  const program = compiledFile(file, 'it was not compiled');
  if (!program) return 1;
  await print(`${encodeProgram(program)}\n`);
  return 0;
}
