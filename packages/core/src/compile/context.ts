import { USUAL_VIEW, type GroundView } from '../terms/views.ts';
import { WORDS } from '../terms/senses.ts';
import { directingMinds, groupNames } from '../model/groups.ts';
import type { GroundName, NamesInTexts } from '../expression/scope.ts';
import type { GroundDocument, ProjectDocument } from '../model/documents.ts';
import { DEFAULT_TICKS_PER_SECOND } from '../model/documents.ts';
import { byName, namesOf } from '../model/names/names.ts';
import { kindsOf, type Kind } from '../model/kinds.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import type { Program } from '../world/program/program.ts';
import { collectFindings, type Findings } from './finding.ts';

/** What all parts of one compilation share. */
export interface CompileContext {
  document: ProjectDocument;
  findings: Findings;
  ticksPerSecond: number;
  texts: string[];
  gaits: string[];
  kinds: Kind[];
  onGround: Map<string, GroundName>;
  view: GroundView;
  inTexts: NamesInTexts;
  /** Minds that direct a ground. */
  directing: ReadonlySet<string>;
}

/** What expressions can name of a ground. One name must not mean two things. */
function namesOnGround(
  ground: GroundDocument,
  groundName: string,
  findings: Findings,
): Map<string, GroundName> {
  const { routes, gates = {}, things = {}, zones = {} } = ground;
  const kinds = { route: routes, gate: gates, thing: things, zone: zones } as const;
  const known = new Map<string, GroundName>();
  for (const [type, record] of Object.entries(kinds) as [GroundName['type'], object][]) {
    namesOf(record).forEach((name, index) => {
      const other = known.get(name);
      if (other) {
        findings.error(
          'taken',
          `grounds.${groundName}.${type}s.${name}`,
          `“${name}” is a ${other.type} already: an expression could not tell the two apart. Give one another name.`,
        );
      } else known.set(name, { type, index });
    });
  }
  return known;
}

/** To read expressions for a program that is there already: texts it knows keep their numbers, others are equal to nothing. */
export function contextOf(
  document: ProjectDocument,
  { texts }: Pick<Program, 'texts'>,
): CompileContext {
  return { ...createContext(document, collectFindings()), texts: [...texts] };
}

export function createContext(document: ProjectDocument, findings: Findings): CompileContext {
  const kinds = kindsOf(document);
  const gaits = new Set(kinds.flatMap(({ archetype }) => namesOf(archetype.gaits)));
  const ground = Object.hasOwn(document.grounds, document.start.ground)
    ? document.grounds[document.start.ground]
    : undefined;
  return {
    document,
    findings,
    view: ground?.view ?? USUAL_VIEW,
    ticksPerSecond: document.ticksPerSecond ?? DEFAULT_TICKS_PER_SECOND,
    texts: [...WORDS],
    gaits: [...gaits].sort(byName),
    kinds,
    inTexts: {
      group: new Set(groupNames(document)),
      score: new Set(namesOf(ground?.scores ?? {})),
      wave: new Set(namesOf(ground?.waves ?? {})),
    },
    directing: directingMinds(document),
    onGround: ground ? namesOnGround(ground, document.start.ground, findings) : new Map(),
  };
}

export function internText({ texts }: CompileContext, text: string): number {
  const known = texts.indexOf(text);
  return known >= 0 ? known : texts.push(text) - 1;
}

export function ticks({ ticksPerSecond }: CompileContext, seconds: number): number {
  return Math.round(seconds * ticksPerSecond);
}

/** Place of a name that a document uses among those there are; −1, with a finding, where it is not there. */
export function indexOfName(
  names: readonly string[],
  name: string,
  path: string,
  what: string,
  context: CompileContext,
): number {
  const index = names.indexOf(name);
  if (index < 0)
    context.findings.error(
      'unknownName',
      path,
      `There is no ${what} “${name}”.${suggestion(name, names)}`,
    );
  return index;
}

/** A rule of conduct is heeded or not when its guard begins to hold, so it needs one. */
export function checkConduct(
  { findings }: CompileContext,
  { conduct, when }: { conduct?: true; when?: string },
  path: string,
): void {
  if (!conduct || when !== undefined) return;
  findings.error(
    'parameter',
    `${path}.conduct`,
    'A rule of conduct is obeyed or not when its guard begins to hold, and this one has no guard. Add a guard.',
  );
}
