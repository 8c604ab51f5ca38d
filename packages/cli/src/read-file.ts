import { readFileSync, statSync } from 'node:fs';
import {
  checkProject,
  formFindings,
  PROJECT_VERSION,
  readProjectText,
  type Finding,
  type Program,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { beginAs, type Beginning } from './beginning.ts';
import { tell } from './output.ts';

/** Bytes; the server takes no larger project either. */
const LARGEST = 8 * 1_048_576;
/** The name of a file that stands for standard input. */
const STANDARD_INPUT = '-';

/** A project file as it was read; `trouble` says why it could not be. */
type ReadFile = { document: ProjectDocument } | { findings: Finding[] };

function textOf(file: string): string {
  if (file === STANDARD_INPUT) return readFileSync(0, 'utf8');
  const { size } = statSync(file);
  if (size > LARGEST)
    throw new Error(
      `it has ${(size / 1_048_576).toFixed(1)} MB, and a project has ${LARGEST / 1_048_576} MB at most`,
    );
  return readFileSync(file, 'utf8');
}

function readDocument(file: string): ReadFile {
  let text: string;
  try {
    text = textOf(file);
  } catch (error) {
    return { findings: [wholeFile(`${file} can’t be read: ${(error as Error).message}`)] };
  }
  const result = readProjectText(text);
  if (!result.ok) return { findings: formFindings(result.faults) };
  if (result.version !== PROJECT_VERSION)
    tell(
      `${file} is written in version ${result.version} of the format. It is read as version ${PROJECT_VERSION}.`,
    );
  return { document: result.document };
}

/** A project file read and checked; faults in its form come as findings too. */
export function findingsOf(file: string): Finding[] {
  const read = readDocument(file);
  return 'findings' in read ? read.findings : checkProject(read.document).findings;
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

/** The compiled file, begun as is asked; null where it has errors, which are then printed, and `consequence` after them. */
export function compiledFile(
  file: string,
  consequence: string,
  beginning: Beginning = {},
): Program | null {
  const read = readDocument(file);
  let findings: readonly Finding[];
  if ('findings' in read) ({ findings } = read);
  else {
    const begun = beginAs(read.document, beginning);
    if ('trouble' in begun) {
      tell(begun.trouble);
      return null;
    }
    const checked = checkProject(begun.document);
    if (checked.program) return checked.program;
    ({ findings } = checked);
  }
  for (const finding of findings) tell(findingText(finding));
  tell(`The file has errors, so ${consequence}.`);
  return null;
}
