import { readFileSync } from 'node:fs';
import {
  checkProject,
  formFindings,
  PROJECT_VERSION,
  readProjectText,
  type Finding,
  type Program,
} from '@crooked-lantern/core';

/** A project file read and checked; faults in its form come as findings too. */
export function readProjectFile(file: string): { program: Program | null; findings: Finding[] } {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    return {
      program: null,
      findings: [wholeFile(`${file} can’t be read: ${(error as Error).message}`)],
    };
  }
  const result = readProjectText(text);
  if (result.ok) {
    if (result.version !== PROJECT_VERSION)
      process.stderr.write(
        `${file} is written in version ${result.version} of the format. It is read as version ${PROJECT_VERSION}.\n`,
      );
    return checkProject(result.document);
  }
  return { program: null, findings: formFindings(result.faults) };
}

function wholeFile(message: string): Finding {
  return { code: 'form', severity: 'error', path: '', message };
}

export function findingText(finding: Finding): string {
  const where =
    finding.path === ''
      ? ''
      : `${finding.path}${finding.at ? ` [${finding.at[0]}–${finding.at[1]}]` : ''}: `;
  return `${finding.severity}: ${where}${finding.message}`;
}

/** The compiled file; null where it has errors, which are then printed, and `consequence` after them. */
export function compiledFile(file: string, consequence: string): Program | null {
  const { program, findings } = readProjectFile(file);
  if (program) return program;
  for (const finding of findings) process.stderr.write(`${findingText(finding)}\n`);
  process.stderr.write(`The file has errors, so ${consequence}.\n`);
  return null;
}
