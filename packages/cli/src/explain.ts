import {
  advance,
  createRun,
  explanationLines,
  howItNotices,
  QuestionError,
  why,
  whyItMoves,
  whyNotNamed,
  type Question,
  type Statement,
} from '@crooked-lantern/core';
import { findNamed, type Beginning } from './beginning.ts';
import { print, tell } from './output.ts';
import { compiledFile } from './read-file.ts';

export interface ExplainOptions extends Beginning {
  agent: string;
  tick: number;
  seed?: number;
  mind?: string;
  not?: string;
  notices?: string;
  moves?: boolean;
  json?: boolean;
}

function answerTo(question: Question, { not, notices, moves }: ExplainOptions): Statement {
  if (notices !== undefined) return howItNotices(question, notices);
  if (moves) return whyItMoves(question);
  return not === undefined ? why(question) : whyNotNamed(question, not);
}

export async function explain(file: string, options: ExplainOptions): Promise<number> {
  const { mind, tick, seed, json } = options;
  const program = compiledFile(file, 'there is no run to ask about', options);
  if (!program) return 1;
  const run = createRun(program, 1, seed);
  while (run.head < tick) advance(run);
  const agent = findNamed(program.agents, options.agent)?.name ?? options.agent;
  const question = { run, agent, mind, tick };
  try {
    const answer = answerTo(question, options);
    await print(
      `${json ? JSON.stringify(answer) : explanationLines(answer, program.ticksPerSecond).join('\n')}\n`,
    );
    return 0;
  } catch (error) {
    if (!(error instanceof QuestionError)) throw error;
    tell(error.message);
    return 1;
  }
}
