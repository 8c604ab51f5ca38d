import {
  advance,
  createRun,
  explanationLines,
  QuestionError,
  why,
  whyNot,
} from '@crooked-lantern/core';
import { compiledFile } from './read-file.ts';

export interface ExplainOptions {
  agent: string;
  tick: number;
  seed?: number;
  mind?: string;
  not?: string;
  json?: boolean;
}

export function explain(
  file: string,
  { agent, mind, tick, seed, not, json }: ExplainOptions,
): number {
  const program = compiledFile(file, 'there is no run to ask about');
  if (!program) return 1;
  const run = createRun(program, 1, seed);
  while (run.head < tick) advance(run);
  const question = { run, agent, mind, tick };
  try {
    const answer = not === undefined ? why(question) : whyNot(question, not);
    process.stdout.write(
      `${json ? JSON.stringify(answer) : explanationLines(answer, program.ticksPerSecond).join('\n')}\n`,
    );
    return 0;
  } catch (error) {
    if (!(error instanceof QuestionError)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 1;
  }
}
