import type { Sense } from '../model/documents.ts';

/**
 * Words that the world itself uses for what is sensed. Every program's texts begin with them, in this
 * order, so that the runtime knows their indices.
 */

/** In the order attention takes where a state says nothing else; the runtime takes no values from the model. */
export const SENSES: readonly Sense[] = ['sight', 'harm', 'hearing', 'found', 'told'];

export type Word =
  Sense | 'step' | 'landing' | 'gate' | 'body' | 'thing' | 'flight' | 'hit' | 'touch';
export const WORDS: readonly Word[] = [
  ...SENSES,
  'step',
  'landing',
  'gate',
  'body',
  'thing',
  'flight',
  'hit',
  'touch',
];

/** By word: its index among the texts of every program. */
export const WORD_INDICES = Object.fromEntries(
  WORDS.map((word, index) => [word, index]),
) as Readonly<Record<Word, number>>;
