#!/usr/bin/env node
import { Command, InvalidArgumentError } from 'commander';
import { check } from './check.ts';
import { compile } from './compile.ts';
import { explain, type ExplainOptions } from './explain.ts';
import { run } from './run.ts';

function number(minimum: number, maximum: number, whole: boolean) {
  return (text: string): number => {
    const value = Number(text);
    if (
      text.trim() === '' ||
      !Number.isFinite(value) ||
      value < minimum ||
      value > maximum ||
      (whole && !Number.isInteger(value))
    ) {
      throw new InvalidArgumentError(
        `It takes a ${whole ? 'whole ' : ''}number from ${minimum} to ${maximum}.`,
      );
    }
    return value;
  };
}

const program = new Command('lantern')
  .description('Checks and runs project files without a browser.')
  .showHelpAfterError();

program
  .command('check')
  .description('Prints the findings of a project file; exits with 1 if one of them is an error.')
  .argument('<file>', 'a project file')
  .option('--json', 'one JSON object a finding')
  .action((file: string, options: { json?: boolean }) => {
    process.exitCode = check(file, options.json ?? false);
  });

program
  .command('compile')
  .description('Prints a project file as the program that the runtime runs in a game.')
  .argument('<file>', 'a project file')
  .action((file: string) => {
    process.exitCode = compile(file);
  });

program
  .command('run')
  .description('Runs a project file and prints its ledger and the state hash of the last tick.')
  .argument('<file>', 'a project file')
  .option(
    '--seed <number>',
    'seed instead of the file’s own',
    number(0, Number.MAX_SAFE_INTEGER, true),
  )
  .option('--seconds <number>', 'how long to run', number(0, 86_400, false), 30)
  .option('--json', 'JSON Lines instead of text')
  .action((file: string, options: { seed?: number; seconds: number; json?: boolean }) => {
    process.exitCode = run(file, { ...options, json: options.json ?? false });
  });

program
  .command('why')
  .description(
    'Says why an agent is in its state at a tick, or why it is not in another or does not do a row of its tree.',
  )
  .argument('<file>', 'a project file')
  .requiredOption('--agent <name>', 'the agent asked about')
  .requiredOption('--tick <number>', 'the tick asked about', number(1, 10_000_000, true))
  .option(
    '--seed <number>',
    'seed instead of the file’s own',
    number(0, Number.MAX_SAFE_INTEGER, true),
  )
  .option('--mind <name>', 'which of its minds, if it has several')
  .option(
    '--not <what>',
    'ask why it is not in this state, or does not do this row (title, or tree:3)',
  )
  .option('--notices <agent>', 'ask how it notices this agent, and what keeps it from seeing it')
  .option('--moves', 'ask why it moves as it does')
  .option('--json', 'the whole explanation as one JSON object')
  .action((file: string, options: ExplainOptions) => {
    process.exitCode = explain(file, options);
  });

program.parse();
