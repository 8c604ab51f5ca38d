import { DIRECTOR_NAME } from '../../model/groups.ts';
import { checkTick, fact, type Question, type Statement } from './statement.ts';
import { why } from './why.ts';

/** Why a run has ended. */

/** How a run ended up to the tick, who said so and why; that it goes on where it has not. */
export function whyEnded(question: Question): Statement {
  checkTick(question);
  const { run, tick } = question;
  const ending = run.entries.findLast((entry) => entry.kind === 'result' && entry.tick <= tick);
  if (ending?.kind !== 'result')
    return {
      ...fact('the run has ended', null, [fact('it goes on: no one has ended it', null)]),
      holds: false,
    };
  const { how, words, tick: at } = ending;
  const isSaid = run.entries.some(
    (entry) => entry.tick === at && entry.kind === 'did' && entry.action === 'end',
  );
  const cause = isSaid
    ? why({ ...question, agent: DIRECTOR_NAME, mind: undefined, tick: at })
    : fact('the last mode of the schedule was over', at);
  return fact(`the run ended: ${how}. ${words}`, at, [
    ...(isSaid ? [fact('the director did “end”', at)] : []),
    cause,
  ]);
}
