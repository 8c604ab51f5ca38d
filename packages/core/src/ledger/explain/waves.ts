import { reasonText } from '../../world/readout/reason-text.ts';
import { countAlive, toCome } from '../../world/mechanics/game/waves.ts';
import { whyNoAgentComes } from '../../world/readout/game.ts';
import { revisit } from '../run.ts';
import { checkTick, fact, QuestionError, type Question, type Statement } from './statement.ts';

/** Why no agent of a wave comes, and how it went so far. */

/** So many of the latest things are listed. */
const LISTED = 12;

/** Why no agent of a wave comes at the tick, with what happened before, the latest first. Throws a {@link QuestionError} for an unknown wave. */
export function whyNoAgent(question: Question, name: string): Statement {
  checkTick(question);
  const { run, tick } = question;
  const world = revisit(run, tick);
  const { waves } = world.statics.program.director;
  const index = waves.findIndex((wave) => wave.name === name);
  if (index < 0)
    throw new QuestionError(
      `There is no wave “${name}”. There are: ${waves.map((wave) => wave.name).join(', ') || 'none'}.`,
    );
  const { title } = waves[index];
  const past = run.entries.flatMap((entry): Statement[] => {
    if (entry.tick > tick) return [];
    if (entry.kind === 'came' && entry.wave === name)
      return [fact(`${entry.agent} came, at ${entry.at}`, entry.tick)];
    if (entry.kind !== 'wave' || entry.wave !== name) return [];
    const { how, times, reason } = entry;
    const words = {
      comes: times === 1 ? 'it came for the first time' : `it came, ${times} times so far`,
      held: `it was held up${reason ? `: ${reasonText(reason)}` : ''}`,
      over: 'it was over',
      calledOff: 'it was called off',
    }[how];
    return [fact(words, entry.tick)];
  });
  const { heldSince } = world.waves[index];
  return fact(
    `no agent of ${title} comes now: ${whyNoAgentComes(world, index)}`,
    heldSince >= 0 ? heldSince : null,
    past.reverse().slice(0, LISTED),
    [
      { part: 'alive', value: String(countAlive(world, waves[index])) },
      { part: 'to come', value: String(toCome(world, index)) },
    ],
  );
}
