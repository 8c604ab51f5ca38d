import { checkProject, type Program, type ProjectDocument } from '@crooked-lantern/core';
import { demoDocument } from '../packages/core/src/testing/demo.fixture.ts';

export { demoDocument };

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
