import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compileProject } from '../compile/compile-project.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { readProjectText } from '../model/file/read-project.ts';
import { cornerProject, KEEN_SIGHT } from '../testing/orchard.fixture.ts';
import { checkProject } from './check-project.ts';

const calm = () =>
  cornerProject({
    sight: KEEN_SIGHT,
    memory: { quarry: { type: 'agent' }, heat: { type: 'number', default: 0 } },
    machine: {
      initial: 'rounds',
      states: [
        {
          id: 'rounds',
          entry: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
          transitions: [{ to: 'chase', when: 'sees(quarry)' }],
        },
        {
          id: 'chase',
          activity: { do: 'moveTo', to: 'quarry', within: 1 },
          transitions: [{ to: 'rounds', when: 'heat > 1', for: 1 }],
        },
      ],
    },
  });

type Change = (document: ProjectDocument) => void;
const states = (document: ProjectDocument) => document.minds.keeper.machine!.states;

function found(change: Change) {
  const document = calm();
  change(document);
  return checkProject(document);
}

describe('errors', () => {
  it.each<[string, Change, string, string]>([
    [
      'unknown state',
      (d) => (states(d)[0].transitions![0].to = 'chaes'),
      'states[0].transitions[0].to',
      'Did you mean “chase”?',
    ],
    [
      'unknown function',
      (d) => (states(d)[0].transitions![0].when = 'seez(quarry)'),
      'states[0].transitions[0].when',
      'Did you mean “sees”?',
    ],
    [
      'unknown key',
      (d) => (states(d)[0].entry![0].key = 'querry'),
      'states[0].entry[0].key',
      'Did you mean “quarry”?',
    ],
    [
      'wrong type',
      (d) => (states(d)[0].entry![0].value = 'time'),
      'states[0].entry[0].value',
      'an agent is needed',
    ],
    [
      'wrong unit',
      (d) => (states(d)[1].activity = { do: 'moveTo', to: 'quarry', within: 'time' }),
      'states[1].activity.within',
      'This gives s; m is needed',
    ],
    [
      'unknown gait',
      (d) => (states(d)[0].entry = [{ do: 'setGait', gait: 'sprint' }]),
      'states[0].entry[0].gait',
      '“keeper” has no gait “sprint”',
    ],
    ['two states with one id', (d) => (states(d)[1].id = 'rounds'), 'states[1].id', 'Two states'],
    [
      'an action that takes time on entry',
      (d) => (states(d)[0].entry = [{ do: 'wait', seconds: 1 }]),
      'states[0].entry[0]',
      'while here',
    ],
    [
      'no first state inside',
      (d) => (states(d)[0].states = [{ id: 'a' }]),
      'states[0]',
      'needs “initial”',
    ],
    [
      'a first state from elsewhere',
      (d) => Object.assign(states(d)[0], { states: [{ id: 'a' }], initial: 'chase' }),
      'states[0].initial',
      'not directly inside',
    ],
    [
      'a first state that is nested',
      (d) =>
        (d.minds.keeper.machine = {
          initial: 'b',
          states: [{ id: 'a', initial: 'b', states: [{ id: 'b' }] }],
        }),
      'machine.initial',
      'outermost',
    ],
    [
      'a history on top',
      (d) => states(d).push({ id: 'past', kind: 'history' }),
      'states[2]',
      'belongs inside',
    ],
    [
      'a final state with ways out',
      (d) => (states(d)[1].kind = 'final'),
      'states[1].transitions',
      'Remove it',
    ],
    [
      'one parallel region',
      (d) => Object.assign(states(d)[0], { kind: 'parallel', states: [{ id: 'a' }] }),
      'states[0].states',
      'at least two',
    ],
    [
      '“for” without “when”',
      (d) => (states(d)[0].transitions![0] = { to: 'chase', on: 'done', for: 1 }),
      'transitions[0].for',
      'Use “after”',
    ],
    [
      'a transition with no reason',
      (d) => (states(d)[0].transitions![0] = { to: 'chase' }),
      'transitions[0]',
      'would fire at once',
    ],
    [
      'a transition that would fire over and over',
      (d) => (states(d)[0].transitions![0] = { when: 'time > 1', do: [{ do: 'stop' }] }),
      'transitions[0]',
      'over and over',
    ],
    [
      'raising done',
      (d) => (states(d)[0].entry = [{ do: 'raise', event: 'done.success' }]),
      'entry[0].event',
      'choose another name',
    ],
    [
      'a key named like a function',
      (d) => (d.minds.keeper.memory!.sees = { type: 'flag' }),
      'memory.sees',
      'expression language',
    ],
    [
      'a default of the wrong type',
      (d) => (d.minds.keeper.memory!.heat.default = 'hot'),
      'memory.heat.default',
      'must be a number',
    ],
    [
      'a unit on a flag',
      (d) => (d.minds.keeper.memory!.wet = { type: 'flag', unit: 'm' }),
      'memory.wet.unit',
      'Only numbers',
    ],
    [
      'an unknown archetype',
      (d) => (d.grounds.corner.agents.keeper.archetype = 'keper'),
      'agents.keeper.archetype',
      'Did you mean “keeper”?',
    ],
    [
      'an unknown route',
      (d) => (d.grounds.corner.agents.keeper.route = 'north'),
      'agents.keeper.route',
      'no route “north”',
    ],
    ['an unknown ground', (d) => (d.start.ground = 'cellar'), 'start.ground', 'no ground “cellar”'],
    [
      'an unknown player',
      (d) => (d.start.play = 'glaener'),
      'start.play',
      'Did you mean “gleaner”?',
    ],
    [
      'an agent in a wall',
      (d) => d.grounds.corner.walls.push({ at: [1, 4], size: [2, 2] }),
      'agents.keeper.at',
      'is placed in a wall',
    ],
    [
      'two agents in one place',
      (d) => (d.grounds.corner.agents.gleaner.at = [2.2, 5]),
      'at',
      'the same spot',
    ],
    [
      'certain below curious',
      (d) =>
        (d.archetypes.keeper.sight = {
          cones: [{ range: 1, halfAngle: 1, gain: 1 }],
          fade: 1,
          grace: 1,
          curious: 0.8,
          certain: 0.5,
          forgetAfter: 1,
        }),
      'sight.curious',
      'above certain (0.5)',
    ],
    [
      'an unknown gait to begin with',
      (d) => (d.archetypes.keeper.gait = 'wlak'),
      'archetypes.keeper.gait',
      'Did you mean “walk”?',
    ],
  ])('%s', (_, change, path, words) => {
    const { program, findings } = found(change);
    expect(program).toBeNull();
    const errors = findings.filter(({ severity }) => severity === 'error');
    expect(
      errors.some((error) => error.path.endsWith(path) && error.message.includes(words)),
      JSON.stringify(errors),
    ).toBe(true);
  });
});

describe('numbers that only work together', () => {
  const coupled = (change: Change) =>
    found(change).findings.filter(({ code }) => code === 'coupled');
  const chase = (document: ProjectDocument) => states(document)[1];

  it('an approach that ends inside the other body never arrives', () => {
    const findings = coupled(
      (d) => (chase(d).activity = { do: 'moveTo', to: 'quarry', within: 0.4 }),
    );
    expect(findings).toMatchObject([
      { severity: 'warning', path: 'minds.keeper.machine.states[1].activity' },
    ]);
    expect(findings[0].message).toContain('within 0.4 m of an agent, but bodies touch at 0.6 m');
    expect(
      coupled((d) => (chase(d).activity = { do: 'moveTo', to: 'quarry' })),
      'by default too',
    ).toHaveLength(1);
    expect(coupled((d) => (chase(d).activity = { do: 'moveTo', to: 'self.post' }))).toEqual([]);
  });

  it('an approach that stops before the distance its state waits for', () => {
    const waitsFor = (when: string) => (d: ProjectDocument) =>
      (chase(d).transitions![0] = { to: 'rounds', when });
    const [finding] = coupled(waitsFor('sees(quarry) && distance(quarry) < 0.9'));
    expect(finding.path).toBe('minds.keeper.machine.states[1].transitions[0].when');
    expect(finding.message).toContain('below 0.9 m, but “chase” stops at 1 m');
    expect(coupled(waitsFor('distance(quarry) < 1.2'))).toEqual([]);
    expect(coupled(waitsFor('distance(quarry) > 0.9'))).toEqual([]);
    expect(coupled(waitsFor('distance(attention.of) < 0.9'))).toEqual([]);
  });
});

describe('warnings', () => {
  it.each<[string, Change, string, string]>([
    [
      'a state nothing leads to',
      (d) => states(d).push({ id: 'sleep', transitions: [{ to: 'rounds', after: 1 }] }),
      'unreachable',
      'states[2]',
    ],
    ['a state with no way out', (d) => delete states(d)[1].transitions, 'noWayOut', 'states[1]'],
    [
      'a transition behind one that always fires',
      (d) => states(d)[0].transitions!.unshift({ to: 'chase', when: 'true' }),
      'neverFires',
      'states[0].transitions[1]',
    ],
    [
      'a key that is read but never written',
      (d) => delete states(d)[0].entry,
      'neverWritten',
      'memory.quarry',
    ],
    [
      'a mind that no agent has',
      (d) => (d.minds.spare = structuredClone(d.minds.keeper)),
      'unused',
      'minds.spare',
    ],
  ])('%s', (_, change, code, path) => {
    const { program, findings } = found(change);
    expect(program).not.toBeNull();
    expect(
      findings.filter((finding) => finding.code === code).map((finding) => finding.path),
    ).toEqual([expect.stringContaining(path)]);
  });

  it('finds nothing in the demo, nor in a project without faults', () => {
    const demo = readProjectText(
      readFileSync(new URL('../../../../demo/night-watch.lantern.json', import.meta.url), 'utf8'),
    );
    expect(demo.ok && checkProject(demo.document).findings).toEqual([]);
    expect(checkProject(calm()).findings).toEqual([]);
  });
});

it('a compiled program is plain data: it survives being written as JSON, but for missing numbers', () => {
  const { program } = compileProject(calm());
  expect(structuredClone(program)).toEqual(program);
});
