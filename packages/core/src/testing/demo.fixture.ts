import { readFileSync } from 'node:fs';
import path from 'node:path';
import { compileProject } from '../compile/compile-project.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProjectText } from '../model/file/read-project.ts';
import type { Program } from '../world/program/program.ts';

const NIGHT_WATCH = path.resolve(import.meta.dirname, '../../../../demo/night-watch.lantern.json');

/** Night Watch as it ships, to be changed at will. */
export function nightWatch(): ProjectDocument {
  const read = readProjectText(readFileSync(NIGHT_WATCH, 'utf8'));
  if (!read.ok) throw new Error(JSON.stringify(read.faults));
  return read.document;
}

/** Throws where the document has errors. */
export function compiled(document: ProjectDocument): Program {
  const { program, findings } = compileProject(document);
  if (!program) throw new Error(JSON.stringify(findings));
  return program;
}
