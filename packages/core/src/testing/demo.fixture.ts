import { readFileSync } from 'node:fs';
import path from 'node:path';
import { compileProject } from '../compile/compile-project.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProjectText } from '../model/file/read-project.ts';
import type { Program } from '../world/program/program.ts';

const DEMOS = path.resolve(import.meta.dirname, '../../../../demo');

/** A demo as it ships, such as `windfall`, to be changed at will. */
export function demoDocument(name: string): ProjectDocument {
  const read = readProjectText(readFileSync(path.join(DEMOS, `${name}.lantern.json`), 'utf8'));
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return read.document;
}

export const nightWatch = () => demoDocument('night-watch');

/** Throws where the document has errors. */
export function compiled(document: ProjectDocument): Program {
  const { program, findings } = compileProject(document);
  if (!program) throw new Error(JSON.stringify(findings));
  return program;
}

/** A demo as it ships, ready to be played: its program, and who is played in it. */
export interface Demo {
  program: Program;
  player: string;
}

const demos = new Map<string, Demo>();

/** A demo as it ships. Programs never change, so each is compiled once. */
export function demo(name: string): Demo {
  let made = demos.get(name);
  if (!made) {
    const document = demoDocument(name);
    demos.set(name, (made = { program: compiled(document), player: document.start.play! }));
  }
  return made;
}
