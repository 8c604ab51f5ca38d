import {
  advance,
  checkDocument,
  checkInMind,
  createRun,
  inputsOf,
  readChoiceAt,
  readHeat,
  readInMind,
  type Branches,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { entryTitles, onlyAgentTitles } from '../engine/entry-titles.ts';
import { entryWords } from '../engine/entry-words.ts';
import { choicePastOf, type ChoiceHistory } from './choice-history.ts';
import type { View } from './frames.ts';
import { noticedObservations, type Noticing } from './noticing.ts';
import type { EngineApi } from '../engine/protocol.ts';

/** What is read of the run and of the document as they are now; nothing goes on by it. */

/** What readings need of the engine they are of. */
export interface ReadEngine {
  branches(): Branches | null;
  /** The latest document, and the one the latest program was compiled from. */
  document(): ProjectDocument | null;
  inForce(): ProjectDocument | null;
  view: View;
  weighed: ChoiceHistory;
  noticing: Noticing;
}

export type Readings = Pick<
  EngineApi,
  | 'checkExpression'
  | 'readExpression'
  | 'tryOut'
  | 'choicePast'
  | 'choiceAt'
  | 'heat'
  | 'recording'
  | 'find'
  | 'observations'
>;

export function createReadings(engine: ReadEngine): Readings {
  const { view, weighed, noticing } = engine;
  const running = () => engine.branches()?.run ?? null;
  return {
    async checkExpression(mind, source, place) {
      const document = engine.document();
      return document ? checkInMind(document, mind, source, place) : [];
    },
    async readExpression(mind, source, tree) {
      const run = running();
      const inForce = engine.inForce();
      if (!run || !inForce || run.world.statics.program !== run.latest.program) return [];
      const agent = run.world.agents.find(({ name }) => name === view.agent);
      return agent ? readInMind(inForce, agent, mind, source, tree) : [];
    },
    async tryOut(tried, agent, seconds) {
      const { program, findings } = checkDocument(tried);
      if (!program)
        return { trouble: findings.find(({ severity }) => severity === 'error')!.message };
      const { ticksPerSecond } = program;
      const trial = createRun(program, 1);
      for (let i = 0; i < seconds * ticksPerSecond; i++) advance(trial);
      return { entries: trial.entries.filter((entry) => entry.agent === agent), ticksPerSecond };
    },
    async choicePast() {
      return view.choice ? choicePastOf(weighed) : null;
    },
    async choiceAt(x, y) {
      const run = running();
      return run && view.choice ? readChoiceAt(run.world, view.choice, x, y) : null;
    },
    async heat(option, step) {
      const run = running();
      return run && view.choice ? readHeat(run.world, view.choice, option, step) : null;
    },
    async recording() {
      const run = running();
      return run ? { seed: run.seed, inputs: inputsOf(run) } : { seed: 0, inputs: [] };
    },
    async find(words) {
      const run = running();
      if (!run) return [];
      const wanted = words.toLowerCase();
      const document = engine.document();
      const titles = document ? entryTitles(document) : onlyAgentTitles();
      const found = run.entries.filter((entry) =>
        `${entry.agent} ${titles.agent(entry.agent)} ${entryWords(entry, titles)}`
          .toLowerCase()
          .includes(wanted),
      );
      return [...new Set(found.map(({ tick }) => tick))];
    },
    async observations() {
      const branches = engine.branches();
      return branches ? noticedObservations(noticing, branches) : null;
    },
  };
}
