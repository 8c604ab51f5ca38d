import { readFileSync } from 'node:fs';
import path from 'node:path';
import {
  advance,
  checkProject,
  coverageOf,
  createObserver,
  createRun,
  explanationLines,
  findState,
  observe,
  readProjectText,
  observationsOf,
  whatEverLedTo,
  whoTold,
  why,
  whyNotNamed,
  withSetup,
  type Input,
  type ProjectDocument,
  type Run,
  type StateDocument,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';

/**
 * Mistakes that are made every day, planted one at a time: each is found from its symptom by what the interface
 * itself answers, in at most four steps, and the same questions say nothing of the kind where it is not there.
 */

const demo = (file: string): ProjectDocument => {
  const read = readProjectText(
    readFileSync(path.resolve(import.meta.dirname, `../demo/${file}.lantern.json`), 'utf8'),
  );
  if (!read.ok) throw new Error(read.faults[0].message);
  return read.document;
};

/** What was seen, and what can be asked of it. */
interface Scene {
  document: ProjectDocument;
  run: Run;
  /** All that the questions below answer, as people read it. */
  checks(): string;
  noticed(): string;
  never(): string;
  why(agent: string): string;
  whyNot(agent: string, what: string): string;
  ever(agent: string, state: string): string;
  told(agent: string): string;
}

const ENDLESS = () => true;

function seen(
  document: ProjectDocument,
  seconds: number,
  inputs: Record<number, Input> = {},
): Scene {
  const { program, findings } = checkProject(document);
  if (!program) throw new Error(findings.map(({ message }) => message).join('\n'));
  const run = createRun(program, 1, 7);
  for (let i = 1; i <= seconds * 60; i++) advance(run, inputs[i] ? [inputs[i]] : []);
  const words = (answer: ReturnType<typeof why>) => explanationLines(answer, 60).join('\n');
  const at = (agent: string) => ({ run, agent, tick: run.head });
  return {
    document,
    run,
    checks: () => findings.map(({ path: where, message }) => `${where}: ${message}`).join('\n'),
    noticed: () => {
      const observation = createObserver();
      observe(observation, run, ENDLESS);
      return observationsOf(observation)
        .map(({ kind, agent, message }) => `${kind} ${agent}: ${message}`)
        .join('\n');
    },
    never: () =>
      coverageOf(run)
        .filter(({ times }) => times === 0)
        .map(({ part, title }) => `${part} ${title}`)
        .join('\n'),
    why: (agent) => words(why(at(agent))),
    whyNot: (agent, what) => words(whyNotNamed(at(agent), what)),
    ever: (agent, state) => words(whatEverLedTo(at(agent), state)),
    told: (agent) => words(whoTold(at(agent))),
  };
}

interface Bug {
  /** What is wrong, as its maker would say once it is found. */
  bug: string;
  of: 'night-watch' | 'keepers-duel';
  setup?: string;
  seconds: number;
  inputs?: Record<number, Input>;
  plant: (document: ProjectDocument) => void;
  /** From the symptom to the cause: each a question of the interface, with what its answer says. */
  steps: [(scene: Scene) => string, RegExp][];
}

const wardenState = ({ minds }: ProjectDocument, id: string): StateDocument =>
  findState(minds.warden.machine!.states, id)!;

const leave = (document: ProjectDocument, state: string, to: string) =>
  wardenState(document, state).transitions!.find((each) => each.to === to)!;

const runAway: Record<number, Input> = {
  200: { agent: 'gleaner', x: -1, y: 0.15, gait: 'run' },
};

const BUGS: Bug[] = [
  {
    bug: 'a threshold that awareness never reaches',
    of: 'night-watch',
    setup: 'caught',
    seconds: 4,
    plant: (document) => {
      leave(document, 'calm', 'chase').when = 'awareness(attention.of) >= 10';
    },
    steps: [
      [({ why: ask }) => ask('warden2'), /is in (Peer|Look into it|Rounds)/],
      [({ whyNot: ask }) => ask('warden2', 'chase'), /- awareness\(attention\.of\) >= 10/],
    ],
  },
  {
    bug: 'a guard that has to hold for far too long',
    of: 'night-watch',
    setup: 'caught',
    seconds: 1,
    plant: (document) => {
      leave(document, 'calm', 'chase').when = 'awareness(attention.of) >= 5';
      leave(document, 'rounds', 'peer').for = 20;
    },
    steps: [[({ whyNot: ask }) => ask('warden2', 'peer'), /- all that for 20 s/]],
  },
  {
    bug: 'a time that is ten times too long',
    of: 'night-watch',
    setup: 'caught',
    seconds: 6,
    plant: (document) => {
      leave(document, 'calm', 'chase').when = 'awareness(attention.of) >= 5';
      leave(document, 'peer', 'lookInto').after = 12;
    },
    steps: [
      [({ why: ask }) => ask('warden2'), /is in Peer/],
      [({ whyNot: ask }) => ask('warden2', 'lookInto'), /- 12 s in Peer/],
    ],
  },
  {
    bug: 'two guards that meet, so that it flickers',
    of: 'night-watch',
    setup: 'caught',
    seconds: 5,
    plant: (document) => {
      leave(document, 'calm', 'chase').when = 'awareness(attention.of) >= 5';
      leave(document, 'peer', 'rounds').when = 'attention.strength > 0.3';
      leave(document, 'peer', 'rounds').after = 0.3;
    },
    steps: [
      [
        ({ noticed }) => noticed(),
        /flicker warden2: It goes back and forth between Peer and Rounds/,
      ],
      [({ noticed }) => noticed(), /attention\.strength was/],
    ],
  },
  {
    bug: 'a comparison turned around',
    of: 'night-watch',
    setup: 'caught',
    seconds: 6,
    plant: (document) => {
      leave(document, 'chase', 'collar').when = 'sees(quarry) && distance(quarry) > 12';
    },
    steps: [
      [({ why: ask }) => ask('warden2'), /is in Chase/],
      [
        ({ whyNot: ask }) => ask('warden2', 'collar'),
        /- distance\(quarry\) > 12 {2}\[distance\(quarry\) = [01]\./,
      ],
    ],
  },
  {
    bug: 'no way back from a state',
    of: 'night-watch',
    setup: 'caught',
    seconds: 45,
    inputs: runAway,
    plant: (document) => {
      wardenState(document, 'comb').transitions = [{ to: 'chase', when: 'time > 1000' }];
    },
    steps: [
      [({ never }) => never(), /transition Comb 1: to Chase, time > 1000/],
      // Of all the ways back none leads from there.
      [({ whyNot: ask }) => ask('warden2', 'rounds'), /^(?![^]*of Comb)/],
    ],
  },
  {
    bug: 'a word that nobody says any more',
    of: 'night-watch',
    setup: 'caught',
    seconds: 6,
    plant: (document) => {
      leave(document, 'calm', 'assist').when = "told.kind == 'help'";
    },
    steps: [
      [({ told }) => told('warden4'), /told it “seen”/],
      [({ whyNot: ask }) => ask('warden4', 'assist'), /- told\.kind == 'help'/],
    ],
  },
  {
    bug: 'an action that lets nothing interrupt it',
    of: 'night-watch',
    setup: 'caught',
    seconds: 8,
    plant: (document) => {
      wardenState(document, 'chase').activity = { do: 'wait', seconds: 30, uninterrupted: true };
    },
    steps: [
      [({ why: ask }) => ask('warden2'), /is in Chase/],
      [({ noticed }) => noticed(), /starved warden2: .*wait can’t be interrupted/],
    ],
  },
  {
    bug: 'an event that is misspelt',
    of: 'night-watch',
    setup: 'caught',
    seconds: 4,
    plant: (document) => {
      leave(document, 'lookInto', 'rounds').on = 'finished';
    },
    steps: [[({ checks }) => checks(), /finished/]],
  },
  {
    bug: 'a key that is set to nothing',
    of: 'night-watch',
    setup: 'caught',
    seconds: 4,
    plant: (document) => {
      wardenState(document, 'chase').entry![0] = {
        do: 'remember',
        key: 'quarry',
        value: 'found.of',
      };
    },
    steps: [
      [
        ({ noticed }) => noticed(),
        /notFinite warden2: spot was to be written in Comb, and the value was nothing/,
      ],
      [({ whyNot: ask }) => ask('warden2', 'collar'), /- sees\(quarry\)/],
    ],
  },
  {
    bug: 'an option that is worth nothing',
    of: 'keepers-duel',
    seconds: 20,
    plant: ({ minds }) => {
      minds.keeper.choices!.ward.options.find(({ id }) => id === 'rakeSweep')!.weight = 0;
    },
    steps: [[({ never }) => never(), /option Rake sweep \(Hold them off\)/]],
  },
  {
    bug: 'roles that are swapped',
    of: 'night-watch',
    setup: 'caught',
    seconds: 4,
    plant: ({ minds }) => {
      const text = JSON.stringify(minds.warden.trees!.runDown).replace("'flank'", "'press'");
      minds.warden.trees!.runDown = JSON.parse(text) as never;
    },
    steps: [
      [({ why: ask }) => ask('warden2') + ask('warden4'), /is in (Chase|Collar)/],
      [
        ({ whyNot: ask }) => ask('warden2', 'runDown:5') + ask('warden4', 'runDown:5'),
        /!\(self\.role == 'press'\)/,
      ],
    ],
  },
  {
    bug: 'two minds that pull on the same legs',
    of: 'night-watch',
    seconds: 8,
    plant: ({ minds, archetypes }) => {
      minds.homesick = {
        title: 'Homesick',
        cadence: { every: 0.5 },
        machine: {
          initial: 'home',
          states: [
            {
              id: 'home',
              activity: { do: 'moveTo', to: 'self.post', within: 0.3 },
              transitions: [{ to: 'home', after: 0.5 }],
            },
          ],
        },
      };
      const { warden } = archetypes;
      warden.minds = ['warden', 'homesick'];
      delete warden.mind;
    },
    steps: [[({ checks, noticed }) => checks() + noticed(), /legs/]],
  },
  {
    bug: 'options that score the same',
    of: 'keepers-duel',
    seconds: 20,
    plant: ({ minds }) => {
      for (const option of minds.keeper.choices!.ward.options) {
        delete option.considerations;
        delete option.when;
        delete option.cost;
        option.weight = 0.5;
      }
    },
    steps: [[({ noticed }) => noticed(), /tie keeper: \d+ options of ward score 0\.50 alike/]],
  },
  {
    bug: 'a rule on a level that should be on an edge',
    of: 'night-watch',
    seconds: 4,
    plant: ({ minds }) => {
      minds.goose = {
        title: 'Goose',
        activity: { rules: 'manners' },
        rules: {
          manners: { rows: [{ when: 'time > 1', do: [{ do: 'say', text: 'Honk.' }] }] },
        },
      } as never;
    },
    steps: [[({ noticed }) => noticed(), /repeated goose: It did say 5 times in a row/]],
  },
  {
    bug: 'states that lead on to each other in one decision',
    of: 'night-watch',
    seconds: 3,
    plant: (document) => {
      wardenState(document, 'rounds').transitions = [{ to: 'peer', when: 'time > 1' }];
      wardenState(document, 'peer').transitions = [{ to: 'rounds', when: 'time > 1' }];
    },
    steps: [[({ noticed }) => noticed(), /endless warden1: Within one decision .* (peer|rounds)/]],
  },
  {
    bug: 'somebody who has no route to follow',
    of: 'night-watch',
    seconds: 3,
    plant: ({ grounds, start }) => {
      delete grounds[start.ground].agents.warden1.route;
    },
    steps: [[({ checks }) => checks(), /[Ww]arden ?1.*route/]],
  },
  {
    bug: 'a phase that begins ten times too late',
    of: 'keepers-duel',
    seconds: 5,
    plant: ({ minds }) => {
      const warding = findState(minds.keeper.machine!.states, 'warding')!;
      const [first] = warding.transitions!;
      first.when = first.when!.replace('0.65', '0.065');
    },
    steps: [[({ whyNot: ask }) => ask('keeper', 'pressing'), /- self\.healthShare < 0\.065/]],
  },
  {
    bug: 'somebody who belongs to no squad',
    of: 'night-watch',
    setup: 'caught',
    seconds: 6,
    plant: ({ grounds, start }) => {
      delete grounds[start.ground].agents.warden4.squad;
    },
    steps: [
      [({ whyNot: ask }) => ask('warden4', 'assist'), /- told\.kind == 'seen'/],
      [({ told }) => told('warden4'), /was told something: never/],
    ],
  },
  {
    bug: 'a state that no way leads to',
    of: 'night-watch',
    seconds: 1,
    plant: (document) => {
      wardenState(document, 'rounds').transitions!.splice(1, 1);
    },
    steps: [
      [({ never }) => never(), /state Wake the sleeper/],
      [({ checks }) => checks(), /[Tt]end|Wake the sleeper/],
    ],
  },
  {
    bug: 'a body that stops farther away than its guard asks for',
    of: 'night-watch',
    setup: 'caught',
    seconds: 5,
    plant: ({ minds }) => {
      const text = JSON.stringify(minds.warden.trees!.runDown)
        .replace('"within":0.9', '"within":1.9')
        .replace('"distance":1.1', '"distance":2.1');
      minds.warden.trees!.runDown = JSON.parse(text) as never;
    },
    steps: [
      [({ whyNot: ask }) => ask('warden2', 'collar'), /distance\(quarry\) < 1\.2/],
      [({ checks }) => checks(), /1\.9/],
    ],
  },
];

describe('a mistake that was planted', () => {
  it.each(BUGS)('is found: $bug', ({ of, setup, seconds, inputs, plant, steps }) => {
    const made = (change: (document: ProjectDocument) => void) => {
      const document = demo(of);
      change(document);
      return seen(setup === undefined ? document : withSetup(document, setup), seconds, inputs);
    };
    const broken = made(plant);
    expect(steps.length).toBeLessThanOrEqual(4);
    for (const [ask, says] of steps) expect(ask(broken)).toMatch(says);
    // Without it the last question does not say so: the answer is of the mistake.
    const [ask, says] = steps[steps.length - 1];
    expect(ask(made(() => {}))).not.toMatch(says);
  });
});
