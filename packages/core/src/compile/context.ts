import type { ProjectDocument } from '../model/documents.ts';
import { DEFAULT_TICKS_PER_SECOND } from '../model/documents.ts';
import type { Findings } from './finding.ts';

/** What all parts of one compilation share. */
export interface CompileContext {
  document: ProjectDocument;
  findings: Findings;
  ticksPerSecond: number;
  texts: string[];
  gaits: string[];
  routes: Map<string, number>;
}

export const byName = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** The names of a record in ascending order, `x-` fields left out. */
export function namesOf(record: object): string[] {
  return Object.keys(record)
    .filter((name) => !name.startsWith('x-'))
    .sort(byName);
}

export function createContext(document: ProjectDocument, findings: Findings): CompileContext {
  const gaits = new Set(
    namesOf(document.archetypes).flatMap((name) => namesOf(document.archetypes[name].gaits)),
  );
  const ground = Object.hasOwn(document.grounds, document.start.ground)
    ? document.grounds[document.start.ground]
    : undefined;
  return {
    document,
    findings,
    ticksPerSecond: document.ticksPerSecond ?? DEFAULT_TICKS_PER_SECOND,
    texts: [],
    gaits: [...gaits].sort(byName),
    routes: new Map(namesOf(ground?.routes ?? {}).map((name, index) => [name, index])),
  };
}

export function internText({ texts }: CompileContext, text: string): number {
  const known = texts.indexOf(text);
  return known >= 0 ? known : texts.push(text) - 1;
}

export function ticks({ ticksPerSecond }: CompileContext, seconds: number): number {
  return Math.round(seconds * ticksPerSecond);
}
