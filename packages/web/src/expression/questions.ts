import {
  BUILTINS,
  PARTS_CALLED,
  groupNames,
  namesOf,
  type Builtin,
  type CalledPart,
  type ProjectDocument,
} from '@crooked-lantern/core';
import type { KnownKey } from './expression-editor.tsx';

/** What can be asked, for a user who does not know the names: everything an expression can name, by what it is about. */

export const TOPICS = {
  seen: 'What I see and notice',
  heard: 'What I hear, feel, find or am told',
  remembered: 'What I remember',
  self: 'Myself',
  place: 'A place',
  time: 'Time',
  game: 'The game around me',
} as const;

export type Topic = keyof typeof TOPICS;

/** These work with numbers that were asked for before. */
const CALCULATIONS = new Set(['min', 'max', 'abs', 'floor', 'clamp', 'trapezoid']);

/** What any agent may know of the game. */
const OF_THE_GAME = new Set(['mode', 'timeLeft', 'score', 'tier']);

export interface Question {
  id: string;
  topic: Topic;
  /** “how fast this body moves”. */
  about: string;
  /** As it stands in an expression. */
  name: string;
  /** Null for a plain value. */
  parameters: readonly { name: string; type: string }[] | null;
  result: string;
  unit?: string;
  directorOnly?: boolean;
  /** What the text that it gives is the name of. */
  gives?: CalledPart;
}

function topicOf({ name, parameters, sense, unit, directorOnly }: Builtin): Topic | null {
  if (CALCULATIONS.has(name)) return null;
  if (directorOnly || OF_THE_GAME.has(name)) return 'game';
  if (sense === 'sight' || sense === 'attention' || name === 'hostile') return 'seen';
  if (sense !== undefined) return 'heard';
  if (name.startsWith('self.')) return 'self';
  const [first] = parameters ?? [];
  if (first?.type === 'key') return 'time';
  if (first?.type.startsWith('list') || name === 'known') return 'remembered';
  if (first !== undefined) return 'place';
  return unit === 's' ? 'time' : 'self';
}

const OF_BUILTINS: readonly Question[] = BUILTINS.flatMap((builtin) => {
  const topic = topicOf(builtin);
  // Bands and what is elsewhere are asked for by name: their arguments are no values to choose.
  if (topic === null || builtin.ownWay) return [];
  const { name, about, result, unit, directorOnly, gives } = builtin;
  // A text that is the name of something is chosen among those names.
  const parameters =
    builtin.parameters?.map(({ name, type, names }) => ({ name, type: names ?? type })) ?? null;
  const types = (parameters ?? []).map(({ type }) => type).join(' ');
  return [
    {
      id: `${name} ${types}`.trim(),
      topic,
      about,
      name,
      parameters,
      result,
      unit,
      directorOnly,
      gives,
    },
  ];
});

/** Every question there is, where these keys are remembered; with what only a director may ask, or without. */
export function questionsWith(keys: readonly KnownKey[], isDirector: boolean): Question[] {
  const ofKeys = keys.map(({ name, type, note }) => ({
    id: `key ${name}`,
    topic: 'remembered' as const,
    about: note ? `${name}: ${note}` : `${name}, ${type}`,
    name,
    parameters: null,
    result: type,
  }));
  const fits = ({ directorOnly, topic }: Question) =>
    isDirector ? !OF_A_BODY.has(topic) : !directorOnly;
  return [...ofKeys, ...OF_BUILTINS.filter(fits)];
}

/** A director has no body and no senses. */
const OF_A_BODY: ReadonlySet<Topic> = new Set(['seen', 'heard', 'self']);

/** The names that parts of a project have, by what a text is the name of. */
export const NAMES_CALLED: Partial<Record<CalledPart, (document: ProjectDocument) => string[]>> = {
  group: groupNames,
  score: ({ grounds, start }) => namesOf(grounds[start.ground]?.scores ?? {}),
  wave: ({ grounds, start }) => namesOf(grounds[start.ground]?.waves ?? {}),
  mode: ({ grounds, start }) =>
    grounds[start.ground]?.schedule?.modes.map(({ mode }) => mode) ?? [],
  tier: ({ tiers = [] }) => tiers.map(({ name }) => name),
  role: ({ squads = {} }) =>
    Object.values(squads).flatMap(({ roles = [] }) => roles.map(({ role }) => role)),
  move: ({ archetypes }) => Object.values(archetypes).flatMap(({ moves = {} }) => namesOf(moves)),
  guard: ({ archetypes }) =>
    Object.values(archetypes).flatMap(({ guards = {} }) => namesOf(guards)),
};

function kindsOfThings({ grounds, start }: ProjectDocument): string[] {
  return Object.values(grounds[start.ground]?.things ?? {}).flatMap(({ kind }) => kind ?? []);
}

/** The words that the answer of a question can be, as far as they are known; none where any text can come. */
export function wordsFor(
  { name, about, result, gives }: Pick<Question, 'name' | 'about' | 'result' | 'gives'>,
  document: ProjectDocument,
): string[] {
  if (result !== 'text') return [];
  const own =
    name === 'found.kind' ? kindsOfThings(document) : gives && NAMES_CALLED[gives]?.(document);
  // Of others what they are about says it: 'windUp', 'active' or 'recovery'.
  const said = [...about.matchAll(/'([^']+)'/g)].map(([, word]) => word);
  return [...new Set(own?.length ? own : said)];
}

/** Names that may stand for a parameter of a type: keys, plain values, and what is on the ground. */
export function namesFor(
  type: string,
  keys: readonly KnownKey[],
  onGround: Readonly<Record<string, readonly string[]>>,
): string[] {
  if (type === 'key') return keys.map(({ name }) => name);
  const plain = BUILTINS.filter(({ parameters, result }) => !parameters && result === type);
  return [
    ...keys.filter((key) => key.type === type).map(({ name }) => name),
    ...plain.map(({ name }) => name),
    ...(onGround[type] ?? []),
  ];
}

/** How an answer becomes something that holds or does not. */
export const TESTS = {
  number: {
    '>': 'is more than',
    '>=': 'is at least',
    '<': 'is less than',
    '<=': 'is at most',
    '==': 'is exactly',
  },
  flag: { '': 'is so', '!': 'is not so' },
  text: { '==': 'is', '!=': 'is not' },
  other: { known: 'is known', '!known': 'is not known' },
} as const;

type TestedType = keyof typeof TESTS;

export function testedType(result: string): TestedType {
  return result === 'number' || result === 'flag' || result === 'text' ? result : 'other';
}

/** Types of parameters that are written as texts. */
const TEXTS: ReadonlySet<string> = new Set(['text', ...Object.keys(PARTS_CALLED)]);

/** A text as it stands in an expression. */
function quoted(text: string): string {
  return `'${text.replace(/[\\']/g, '')}'`;
}

/**
 * The expression a question becomes. `test` is one of {@link TESTS} with what is compared with, where
 * something that holds is wanted; null where the answer itself is.
 */
export function expressionOf(
  { name, parameters, result }: Question,
  given: readonly string[],
  test: { how: string; with: string } | null,
): string {
  const asked = parameters
    ? `${name}(${parameters.map(({ type }, i) => (TEXTS.has(type) ? quoted(given[i]) : given[i])).join(', ')})`
    : name;
  if (!test) return asked;
  switch (testedType(result)) {
    case 'flag':
      return `${test.how}${asked}`;
    case 'other':
      return `${test.how}(${asked})`;
    case 'text':
      return `${asked} ${test.how} ${quoted(test.with)}`;
    case 'number':
      return `${asked} ${test.how} ${test.with}`;
  }
}
