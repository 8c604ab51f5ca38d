import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  checkProject,
  readProjectText,
  type Program,
  type ProjectDocument,
} from '@crooked-lantern/core';

/** A demo as a document, such as `windfall`. Throws where it can’t be read. */
export function demoDocument(name: string): ProjectDocument {
  const file = path.resolve(import.meta.dirname, `../demo/${name}.lantern.json`);
  const read = readProjectText(readFileSync(file, 'utf8'));
  if (!read.ok) throw new Error(read.faults[0].message);
  return read.document;
}

/** The program of a demo, changed. Throws where it has errors. */
export function demoProgram(
  name: string,
  change: (document: ProjectDocument) => void = () => {},
): Program {
  const document = demoDocument(name);
  change(document);
  const { program, findings } = checkProject(document);
  if (!program) throw new Error(`${findings[0].path}: ${findings[0].message}`);
  return program;
}
