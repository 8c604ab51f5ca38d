#!/usr/bin/env node
import { readFileSync } from 'node:fs';
import { Command, InvalidArgumentError, Option } from 'commander';
import { check } from './check.ts';
import { compile } from './compile.ts';
import { explain, type ExplainOptions } from './explain.ts';
import { endWith } from './output.ts';
import { run, RUN_FORMATS, type RunOptions } from './run.ts';

function number(minimum: number, maximum: number, whole: boolean) {
  return (text: string): number => {
    const value = Number(text);
    // Decimal figures only: neither 0x10 nor 1e3.
    if (
      !/^-?\d+(\.\d+)?$/.test(text) ||
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

// `print` reports the error to the command that writes. Without a listener here Node would end the process first.
process.stdout.on('error', () => {});

const { version } = JSON.parse(
  readFileSync(new URL('../package.json', import.meta.url), 'utf8'),
) as { version: string };

const seed = () =>
  new Option('--seed <number>', 'seed instead of the file’s own').argParser(
    number(0, Number.MAX_SAFE_INTEGER, true),
  );
const tier = () => new Option('--tier <tier>', 'tier to begin with, by name or title');
const setup = () => new Option('--setup <set-up>', 'set-up to begin as, by name or title');
const player = () =>
  new Option('--player <player>', 'scripted player that gives the input, by name or title');

const program = new Command('lantern')
  .description('Checks and runs project files without a browser.')
  .version(version)
  .showHelpAfterError();

program
  .command('check')
  .description('Prints the findings of project files; exits with 1 if one of them is an error.')
  .argument('<files...>', 'project files; - for standard input')
  .option('--json', 'one JSON object a finding, on standard output')
  .action((files: string[], options: { json?: boolean }) =>
    endWith(check(files, options.json ?? false)),
  );

program
  .command('compile')
  .description('Prints a project file as the program that the runtime runs in a game.')
  .argument('<file>', 'a project file; - for standard input')
  .action((file: string) => endWith(compile(file)));

program
  .command('run')
  .description('Runs a project file and prints its ledger and the state hash of the last tick.')
  .argument('<file>', 'a project file; - for standard input')
  .addOption(seed())
  .option('--seconds <number>', 'how long to run', number(0, 86_400, false), 30)
  .addOption(tier())
  .addOption(setup())
  .addOption(player())
  .addOption(
    new Option('--as <format>', 'text, a recording (json, csv), or a timeline (trace)')
      .choices(RUN_FORMATS)
      .default('text'),
  )
  .addOption(new Option('--json', 'the same as --as json').conflicts('as'))
  .action((file: string, { json, ...options }: RunOptions & { json?: true }) =>
    endWith(run(file, json ? { ...options, as: 'json' } : options)),
  );

program
  .command('why')
  .description(
    'Says why an agent is in its state at a tick, or why it is not in another or does not do a row of its tree.',
  )
  .argument('<file>', 'a project file; - for standard input')
  .requiredOption('--agent <agent>', 'the agent asked about, by name or title')
  .requiredOption('--tick <number>', 'the tick asked about', number(1, 10_000_000, true))
  .addOption(seed())
  .addOption(tier())
  .addOption(setup())
  .addOption(player())
  .option('--mind <name>', 'which of its minds, if it has several')
  .addOption(
    new Option(
      '--not <what>',
      'ask why it is not in this state, or does not do this option or row (title, or tree:3)',
    ).conflicts(['notices', 'moves']),
  )
  .addOption(
    new Option(
      '--notices <agent>',
      'ask how it notices this agent, and what keeps it from seeing it',
    ).conflicts(['not', 'moves']),
  )
  .addOption(new Option('--moves', 'ask why it moves as it does').conflicts(['not', 'notices']))
  .option('--json', 'the whole explanation as one JSON object')
  .action((file: string, options: ExplainOptions) => endWith(explain(file, options)));

await program.parseAsync();
