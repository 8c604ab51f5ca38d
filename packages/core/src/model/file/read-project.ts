import * as yup from 'yup';
import {
  PROJECT_FORMAT,
  PROJECT_VERSION,
  projectSchema,
  type ProjectDocument,
} from '../documents.ts';
import { DEEPEST, parseJson } from './parse-json.ts';
import { migrated } from './migrate.ts';
import { pathOnto } from '../names/path-text.ts';
import { HOW_TO_CHECK, yupOf } from '../schema/yup.ts';

/** One thing wrong with a document: where, and what to do about it. */
export interface Fault {
  /** Such as `minds.warden.machine.states[0].transitions[1].when`; empty for the document as a whole. */
  path: string;
  message: string;
}

/** `version`: the one it was written in; the document is of today’s. */
export type ReadResult =
  { ok: true; document: ProjectDocument; version: number } | { ok: false; faults: Fault[] };

function refuse(path: string, message: string): ReadResult {
  return { ok: false, faults: [{ path, message }] };
}

/** Reads the text of an open file. Never throws; a refused file comes back as faults. */
export function readProjectText(text: string): ReadResult {
  const parsed = parseJson(text);
  return 'faults' in parsed ? { ok: false, faults: parsed.faults } : readProject(parsed.value);
}

/** The code of the first character that not every store and program takes: half of a surrogate pair, or a control character other than a tab or a line break; −1 where there is none. */
function oddCharacter(text: string): number {
  for (const character of text) {
    const code = character.codePointAt(0)!;
    const isControl = code < 32 ? code !== 9 && code !== 10 && code !== 13 : code === 127;
    if (isControl || (code >= 0xd800 && code <= 0xdfff)) return code;
  }
  return -1;
}

/** What makes a document unreadable before its form is looked at: a part that lies too deep, or a text that can't be kept. */
function troubleIn(document: object): Fault | null {
  const waiting: { part: object; path: string; depth: number }[] = [
    { part: document, path: '', depth: 1 },
  ];
  for (let entry = waiting.pop(); entry; entry = waiting.pop()) {
    const { part, path, depth } = entry;
    if (depth > DEEPEST)
      return {
        path: path.length > 120 ? `${path.slice(0, 120)}…` : path,
        message: `is nested more than ${DEEPEST} levels deep. Take parts out of what they are in.`,
      };
    for (const [key, inner] of Object.entries(part)) {
      const step = Array.isArray(part) ? Number(key) : key;
      const odd = typeof inner === 'string' ? oddCharacter(inner) : -1;
      if (odd >= 0)
        return {
          path: pathOnto(path, step),
          message: `has a character that can’t be kept, U+${odd.toString(16).toUpperCase().padStart(4, '0')}. Remove it.`,
        };
      if (typeof inner !== 'object' || inner === null) continue;
      waiting.push({ part: inner as object, path: pathOnto(path, step), depth: depth + 1 });
    }
  }
  return null;
}

/** Documents found to be of the right form. They are never changed, only replaced, and an edit asks for the same more than once. */
const wellFormed = new WeakSet<object>();

/**
 * Checks the form of a parsed document, and brings one of an earlier version to that of today. Names across it are
 * checked when it is compiled.
 */
export function readProject(written: unknown): ReadResult {
  if (typeof written !== 'object' || written === null || Array.isArray(written)) {
    return refuse('', 'A project is one JSON object; this is something else.');
  }
  if (wellFormed.has(written))
    return { ok: true, document: written as ProjectDocument, version: PROJECT_VERSION };
  const trouble = troubleIn(written);
  if (trouble) return { ok: false, faults: [trouble] };
  const { format, version } = written as { format?: unknown; version?: unknown };
  if (format !== PROJECT_FORMAT) {
    return refuse(
      'format',
      `must be "${PROJECT_FORMAT}": this file belongs to another program, or the line is missing.`,
    );
  }
  if (typeof version === 'number' && version > PROJECT_VERSION) {
    return refuse(
      'version',
      `${version} is newer than this Crooked Lantern, which reads up to ${PROJECT_VERSION}. Update it, then open the file again.`,
    );
  }
  const value = migrated(written);
  try {
    yupOf(projectSchema).validateSync(value, HOW_TO_CHECK);
  } catch (error) {
    if (!(error instanceof yup.ValidationError)) throw error;
    return { ok: false, faults: faultsOf(error) };
  }
  wellFormed.add(value);
  return { ok: true, document: value as ProjectDocument, version: Number(version) };
}

/** The single faults of a Yup error, in the order of their paths, each path once. */
function faultsOf(error: yup.ValidationError): Fault[] {
  const single = error.inner.length > 0 ? error.inner.flatMap((inner) => faultsOf(inner)) : [];
  if (single.length === 0) {
    return [{ path: error.path ?? '', message: error.errors[0] ?? error.message }];
  }
  const seen = new Set<string>();
  return single.filter(({ path, message }) => {
    const key = `${path}\n${message}`;
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}
