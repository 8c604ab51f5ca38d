import { BROKEN, HIT_RESULTS, MOVE_PHASES, type HitResult, type MovePhase } from './fighting.ts';

/**
 * The senses, one entry each, in the order that attention takes where a state says nothing else. Documents,
 * the checker, the runtime and the pages all read this; what a sense does while it runs stands in
 * `world/phases/senses.ts`. A new sense is an entry here, a case there, and built-ins that ask of it.
 */
export const SENSE_KINDS = {
  sight: {
    title: 'Sight',
    tint: 'sight',
    nothing: 'sees nobody',
    raises: ['curious', 'certain', 'unsure', 'lost'],
  },
  harm: { title: 'Harm', tint: 'harm', nothing: 'was not harmed', raises: ['hit', 'touch'] },
  hearing: {
    title: 'Hearing',
    tint: 'sound',
    nothing: 'has heard nothing',
    raises: ['step', 'landing', 'gate'],
  },
  found: {
    title: 'Found',
    tint: 'found',
    nothing: 'has found nothing',
    raises: ['body', 'thing', 'gate', 'flight'],
  },
  told: { title: 'Told', tint: 'told', nothing: 'was told nothing', raises: ['call'] },
} as const satisfies Record<string, SenseKind>;

export interface SenseKind {
  title: string;
  /** The colour it has everywhere, by the name of its token. */
  tint: string;
  /** That it has brought nothing, of an agent. */
  nothing: string;
  /** What the world itself raises as `sense.what`; others come from what minds say and do. */
  raises: readonly string[];
}

export type Sense = keyof typeof SENSE_KINDS;
export const SENSES = Object.keys(SENSE_KINDS) as readonly Sense[];

/** Places of the senses, for what is kept by sense. */
export const SIGHT = SENSES.indexOf('sight');
export const HARM = SENSES.indexOf('harm');
export const HEARING = SENSES.indexOf('hearing');
export const FOUND = SENSES.indexOf('found');
export const TOLD = SENSES.indexOf('told');

type Raised<S extends Sense> = (typeof SENSE_KINDS)[S]['raises'][number];
export type Word = Sense | Raised<Exclude<Sense, 'sight'>> | MovePhase | HitResult | typeof BROKEN;

/** Words that percepts say what they are of by. Every program's texts begin with them, so that their indices are known. */
export const WORDS: readonly Word[] = [
  ...new Set<Word>([
    ...SENSES,
    ...SENSE_KINDS.hearing.raises,
    ...SENSE_KINDS.found.raises,
    ...SENSE_KINDS.harm.raises,
    ...MOVE_PHASES,
    ...HIT_RESULTS,
    BROKEN,
    // All others, and those of senses to come: what is already there keeps its place.
    ...SENSES.filter((sense) => sense !== 'sight').flatMap((sense) => SENSE_KINDS[sense].raises),
  ]),
];

/** By word: its index among the texts of every program. */
export const WORD_INDICES = Object.fromEntries(
  WORDS.map((word, index) => [word, index]),
) as Readonly<Record<Word, number>>;
