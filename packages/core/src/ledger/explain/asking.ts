import type { Name } from '../../model/documents.ts';
import { whatEverLedTo, whoTold, whyRemembered } from './ever.ts';
import { whyEnded } from './ended.ts';
import { howItHit, type HitSide } from './hits.ts';
import { whyItMoves } from './moving.ts';
import { howItNotices } from './noticing.ts';
import type { Question, Statement } from './statement.ts';
import type { Target } from './target.ts';
import { whyNoAgent } from './waves.ts';
import { whyNot } from './why-not.ts';
import { why } from './why.ts';

/** What can be asked of an agent and a tick. */
export type Asking =
  /** Why it does what it does. */
  | { ask: 'why' }
  | { ask: 'whyNot'; target: Target }
  | { ask: 'moves' }
  | { ask: 'notices'; agent: Name }
  /** About the whole run up to the tick. */
  | { ask: 'ever'; state: Name }
  | { ask: 'memory'; key: Name }
  | { ask: 'told' }
  /** Why its latest move, or the latest that was meant for it, hit or missed, and took so much. */
  | { ask: 'hit'; side: HitSide }
  /** Why no agent of a wave comes. */
  | { ask: 'wave'; wave: Name }
  /** Why the run ended. */
  | { ask: 'ended' };

type Of<Ask extends Asking['ask']> = Extract<Asking, { ask: Ask }>;

const ANSWERS: {
  readonly [Ask in Asking['ask']]: (question: Question, asking: Of<Ask>) => Statement;
} = {
  why: (question) => why(question),
  whyNot: (question, { target }) => whyNot(question, target),
  moves: (question) => whyItMoves(question),
  notices: (question, { agent }) => howItNotices(question, agent),
  ever: (question, { state }) => whatEverLedTo(question, state),
  memory: (question, { key }) => whyRemembered(question, key),
  told: (question) => whoTold(question),
  hit: (question, { side }) => howItHit(question, side),
  wave: (question, { wave }) => whyNoAgent(question, wave),
  ended: (question) => whyEnded(question),
};

/**
 * Answers a question.
 *
 * @throws {QuestionError} what is asked about does not exist at that tick
 */
export function answer(question: Question, asking: Asking): Statement {
  return (ANSWERS[asking.ask] as (question: Question, asking: Asking) => Statement)(
    question,
    asking,
  );
}
