import { describe, expect, it } from 'vitest';
import { applyCommand } from '../editing/apply-command.ts';
import type { MindDocument, NodeDocument, ProjectDocument } from '../model/documents.ts';
import { cornerProject, KEEN_SIGHT } from '../testing/orchard.fixture.ts';
import { checkProject } from './check-project.ts';

/** A keeper that does one tree in one of two states, without a finding. */
function quiet(root: NodeDocument = { do: 'turn', by: 90 }): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    memory: { quarry: { type: 'agent' } },
    machine: {
      initial: 'look',
      states: [
        {
          id: 'look',
          activity: { tree: 'main' },
          transitions: [
            {
              to: 'come',
              when: 'attention.strength > 0.5',
              do: [{ do: 'remember', key: 'quarry', value: 'attention.of' }],
            },
          ],
        },
        {
          id: 'come',
          activity: { do: 'moveTo', to: 'quarry', within: 1 },
          transitions: [{ to: 'look', when: '!sees(quarry)', for: 2 }],
        },
      ],
    },
  });
  document.minds.keeper.trees = { main: { root } };
  return document;
}

/** Codes and places of what is found, the mind's own path left out. */
function found(document: ProjectDocument): string[] {
  return checkProject(document).findings.map(
    ({ code, path }) => `${code} ${path.replace('minds.keeper.', '')}`,
  );
}

const wait = (seconds: number | string): NodeDocument => ({ do: 'wait', seconds });
const TREE = 'trees.main.root';

it('finds nothing in what is as it should be', () => {
  expect(found(quiet())).toEqual([]);
});

describe('trees', () => {
  it.each<[string, NodeDocument, string[]]>([
    [
      'behind a sibling that never fails',
      { selector: [wait(1), wait(2)] },
      [`unreachable ${TREE}.selector[1]`],
    ],
    [
      'behind one whose guard may fail',
      { selector: [{ ...wait(1), when: 'time > 1' }, wait(2)] },
      [],
    ],
    [
      'behind one whose time may be missing',
      { selector: [wait('distance(quarry) / 1'), wait(2)] },
      ['expression trees.main.root.selector[0].seconds'],
    ],
    [
      'behind one that always fails',
      { sequence: [{ fail: wait(1) }, wait(2)] },
      [`unreachable ${TREE}.sequence[1]`],
    ],
    [
      'behind a condition that can’t hold',
      { sequence: [{ condition: 'awareness(quarry) > 2' }, wait(2)] },
      [`unreachable ${TREE}.sequence[1]`],
    ],
    [
      'behind rules, which never end',
      { sequence: [{ rules: 'all' }, wait(2)] },
      [`unreachable ${TREE}.sequence[1]`],
    ],
    [
      'a later sibling that preempts is reached',
      { selector: [{ ...wait(9), when: 'time > 5', preempts: true }, wait(1)] },
      [],
    ],
    ['a repeat that spins', { repeat: { do: 'say', text: 'Hm' } }, [`endless ${TREE}`]],
    ['a repeat that waits each round', { repeat: wait(1) }, []],
    ['no children', { parallel: [] }, [`noChildren ${TREE}`]],
    [
      'a timeout shorter than what is inside',
      { timeout: { sequence: [wait(2), wait(3)] }, seconds: 4 },
      [`coupled ${TREE}.seconds`],
    ],
    [
      'a timeout against a cooldown between rounds',
      { timeout: { repeat: { cooldown: wait(0.5), seconds: 3 }, times: 3 }, seconds: 6 },
      [`coupled ${TREE}.seconds`],
    ],
    [
      'a timeout that leaves time',
      { timeout: { selector: [wait(2), wait(9)] }, seconds: 4 },
      [`unreachable ${TREE}.timeout.selector[1]`],
    ],
    [
      'two at once for the eyes',
      {
        parallel: [
          { do: 'turn', by: 90 },
          { do: 'face', toward: 'self.post' },
        ],
      },
      [`conflict ${TREE}.parallel[1]`],
    ],
    [
      'legs and eyes at once',
      {
        parallel: [
          { do: 'turn', by: 90 },
          { do: 'moveTo', to: 'self.post' },
        ],
      },
      [],
    ],
    [
      'a weight outside random',
      { sequence: [{ ...wait(1), weight: 2 }] },
      [`parameter ${TREE}.sequence[0].weight`],
    ],
    [
      'preempts outside a selector',
      { sequence: [{ ...wait(1), when: 'time > 1', preempts: true }] },
      [`parameter ${TREE}.sequence[0].preempts`],
    ],
    ['holds without a guard', { ...wait(1), holds: true }, [`parameter ${TREE}.holds`]],
    ['a tree that is not there', { tree: 'mian' }, [`unknownName ${TREE}.tree`]],
    [
      'a probability that can’t be read',
      { chance: wait(1), probability: 'mian' },
      [`expression ${TREE}.probability`],
    ],
    [
      'a tree that calls itself',
      { sequence: [wait(1), { tree: 'main' }] },
      [`structure ${TREE}.sequence[1].tree`],
    ],
  ])('%s', (_, root, wanted) => {
    const document = quiet(root);
    if (JSON.stringify(root).includes('rules'))
      document.minds.keeper.rules = { all: { rows: [{ when: 'time > 1', do: [{ do: 'stop' }] }] } };
    expect(found(document)).toEqual(wanted);
  });

  it('says so when no agent on the ground can notice any agent', () => {
    const codes = (change: (document: ProjectDocument) => void) => {
      const document = quiet();
      change(document);
      return found(document);
    };
    const nobody = ['cannotWork grounds.corner'];
    expect(codes((d) => (d.archetypes.gleaner.faction = 'keepers'))).toEqual(nobody);
    expect(codes((d) => (d.factions = { keepers: { toward: { gleaners: 'friendly' } } }))).toEqual(
      nobody,
    );
    expect(codes((d) => (d.factions = { keepers: { toward: { gleaners: 'neutral' } } }))).toEqual(
      [],
    );
    // Ears alone notice those whose steps are heard.
    const deaf = (noise: number | undefined) => (d: ProjectDocument) => {
      delete d.archetypes.keeper.sight;
      d.archetypes.keeper.hearing = { threshold: 0.2 };
      d.archetypes.gleaner.gaits.walk = { speed: 2, ...(noise ? { noise } : {}) };
    };
    expect(codes(deaf(undefined))).toContain(nobody[0]);
    expect(codes(deaf(5))).not.toContain(nobody[0]);
  });

  it('says of a rule that was just begun that it does nothing yet, and runs', () => {
    const document = quiet({ rules: 'all' });
    document.minds.keeper.rules = { all: { rows: [{ when: 'time > 1' }] } };
    const { findings, program } = checkProject(document);
    expect(findings.map(({ severity, message }) => [severity, message])).toEqual([
      ['warning', expect.stringMatching(/does nothing yet/)],
    ]);
    expect(program).not.toBeNull();
  });

  it('says that a row which fires in each decision learns a place each time', () => {
    const learning = (edge: true | undefined) => {
      const document = quiet({ rules: 'all' });
      document.grounds.corner.routes = {
        round: {
          points: [
            [3, 5],
            [6, 5],
          ],
        },
      };
      document.minds.keeper.rules = {
        all: {
          rows: [
            {
              when: 'time > 1',
              ...(edge ? { edge } : {}),
              do: [{ do: 'learnWaypoint', route: 'round', at: 'self.post' }],
            },
          ],
        },
      };
      return found(document);
    };
    expect(learning(undefined)).toEqual(['learnsAlways rules.all.rows[0].do[0]']);
    expect(learning(true)).toEqual([]);
  });

  it('says of a call what is missing, too much, or of another type or unit', () => {
    const called = (with_: Record<string, string | number> | undefined) => {
      const document = quiet({ tree: 'inner', ...(with_ ? { with: with_ } : {}) });
      document.minds.keeper.trees!.inner = {
        parameters: { long: 'number' },
        root: wait('long'),
      };
      return found(document);
    };
    expect(called({ long: 2 })).toEqual([]);
    expect(called(undefined)).toEqual([`parameter ${TREE}`]);
    expect(called({ long: 2, short: 1 })).toEqual([`unknownName ${TREE}.with.short`]);
    expect(called({ long: 'quarry' })).toEqual([`expression ${TREE}.with.long`]);
    // A length where a time is needed is told where it is used.
    expect(called({ long: 'distance(quarry)' })).toEqual(['expression trees.inner.root.seconds']);
  });

  it('a parameter that no expression of its tree names, whatever its fields are called', () => {
    const unused = (root: NodeDocument) => {
      const document = quiet({ tree: 'inner', with: { seconds: 2, spot: 'self.place' } });
      document.minds.keeper.trees!.inner = {
        parameters: { seconds: 'number', spot: 'point' },
        root,
      };
      return found(document);
    };
    const path = 'trees.inner.parameters';
    // A field of that name is no use of it, nor is a text that holds it.
    expect(unused(wait(1))).toEqual([`unused ${path}.seconds`, `unused ${path}.spot`]);
    expect(unused({ do: 'say', text: 'seconds' })).toContain(`unused ${path}.seconds`);
    expect(unused(wait('seconds'))).toEqual([`unused ${path}.spot`]);
    expect(
      unused({ sequence: [wait('seconds'), { do: 'moveTo', to: 'spot', within: 1 }] }),
    ).toEqual([]);
    expect(unused({ sequence: [{ ...wait(1), when: 'distance(spot) < seconds * 1' }] })).toEqual(
      [],
    );
  });

  it('a state that waits for an end that never comes', () => {
    const document = quiet({ repeat: wait(1) });
    document.minds.keeper.machine!.states[0].transitions!.push({ to: 'come', on: 'done' });
    expect(found(document)).toEqual(['endless machine.states[0].transitions[1].on']);
  });
});

describe('a choice', () => {
  it('without options is said to pick nothing', () => {
    const document = quiet({ choice: 'next' });
    document.minds.keeper.choices = { next: { options: [] } };
    expect(found(document)).toEqual(['empty choices.next']);
    document.minds.keeper.choices.next.options.push({ id: 'look', does: { do: 'turn', by: 90 } });
    expect(found(document)).toEqual([]);
  });
});

describe('transitions', () => {
  const foundWith = (list: NonNullable<MindDocument['machine']>['states'][0]['transitions']) => {
    const document = quiet();
    document.minds.keeper.machine!.states[0].transitions!.push(...list!);
    return found(document);
  };
  it.each([
    ['asks for more than there can be', { to: 'come', when: 'awareness(quarry) > 1' }, true],
    ['asks for what an earlier one takes', { to: 'come', when: 'attention.strength > 0.7' }, true],
    [
      'asks for the same and more',
      { to: 'come', when: 'attention.strength > 0.5 && time > 3' },
      true,
    ],
    ['asks for less', { to: 'come', when: 'attention.strength > 0.4' }, false],
    ['waits for an event nobody raises', { to: 'come', on: 'bell' }, true],
    ['waits for a noise nobody makes', { to: 'come', on: 'hearing.bell' }, true],
    ['waits for a word nobody tells', { to: 'come', on: 'told.fire' }, true],
    ['hears a step', { to: 'come', on: 'hearing.step' }, false],
    ['finds something', { to: 'come', on: 'found' }, false],
    ['is touched', { to: 'come', on: 'harm.touch' }, false],
    ['is held up', { to: 'come', on: 'stuck' }, false],
    ['loses certainty', { to: 'come', on: 'sight.unsure' }, false],
    ['waits for what the senses raise', { to: 'come', on: 'sight' }, false],
    [
      'is urgent, so it comes first',
      { to: 'come', when: 'attention.strength > 0.7', urgent: true },
      false,
    ],
    [
      'takes an event in the same case',
      { to: 'come', on: 'sight.certain', when: 'attention.strength > 0.7' },
      false,
    ],
  ] as const)('one that %s', (_, leave, never) => {
    expect(foundWith([leave])).toEqual(
      never ? ['neverFires machine.states[0].transitions[1]'] : [],
    );
  });

  it('a key that is forgotten before its age is asked for', () => {
    const document = quiet();
    document.minds.keeper.memory!.quarry.forgetAfter = 4;
    document.minds.keeper.machine!.states[1].transitions!.push({
      to: 'look',
      when: 'age(quarry) > 5',
    });
    expect(found(document)).toEqual(['neverFires machine.states[1].transitions[1]']);
  });
});

describe('bodies, minds and ground', () => {
  it.each<[string, (document: ProjectDocument) => void, string[]]>([
    ['no sight', (d) => delete d.archetypes.keeper.sight, ['cannotWork archetypes.keeper']],
    [
      'no speed',
      (d) => (d.archetypes.keeper.gaits = { walk: 0 }),
      ['cannotWork archetypes.keeper.gaits.walk'],
    ],
    [
      'no route to follow',
      (d) => (d.minds.keeper.trees!.main.root = { do: 'followRoute', route: 'self.route' }),
      ['cannotWork grounds.corner.agents.keeper'],
    ],
    [
      'a waypoint in a wall',
      (d) => {
        d.grounds.corner.walls = [{ at: [5, 1], size: [1, 1] }];
        d.grounds.corner.routes = {
          round: {
            points: [
              [3, 3],
              [5.5, 1.5],
            ],
          },
        };
        d.grounds.corner.agents.keeper.route = 'round';
      },
      ['cannotWork grounds.corner.routes.round.points[1]'],
    ],
    [
      'a second mind for the same eyes',
      (d) => {
        d.minds.aim = { title: 'Aim', activity: { do: 'face', toward: 'attention.place' } };
        d.archetypes.keeper.minds = ['aim'];
      },
      ['conflict archetypes.keeper.minds[0]'],
    ],
    [
      'a channel that is not declared',
      (d) => (d.minds.keeper.channels = ['legs']),
      ['conflict trees.main.root'],
    ],
    [
      'one key declared in two ways',
      (d) => {
        d.minds.mouth = {
          title: 'Mouth',
          memory: { quarry: { type: 'point' } },
          activity: { do: 'wait', seconds: 1 },
        };
        d.archetypes.keeper.minds = ['mouth'];
      },
      ['conflict minds.mouth.memory.quarry'],
    ],
    [
      'a mind that is not there',
      (d) => (d.archetypes.keeper.minds = ['tongue']),
      ['unknownName archetypes.keeper.minds[0]'],
    ],
    [
      'a squad that is not there',
      (d) => (d.archetypes.keeper.squad = 'west'),
      ['unknownName archetypes.keeper.squad'],
    ],
    [
      'remember on a list',
      (d) => {
        d.minds.keeper.memory!.seen = { type: 'list of agent' };
        d.minds.keeper.machine!.states[1].entry = [
          { do: 'remember', key: 'seen', value: 'attention.of' },
        ];
      },
      ['parameter machine.states[1].entry[0].key', 'unused memory.seen'],
    ],
    [
      'gives up within sight',
      (d) =>
        d.minds.keeper.machine!.states[1].transitions!.push({
          to: 'look',
          when: 'distance(quarry) > 4',
        }),
      ['coupled machine.states[1].transitions[1].when'],
    ],
  ])('%s', (_, change, wanted) => {
    const document = quiet();
    change(document);
    expect(found(document)).toEqual(wanted);
  });
});

describe('remedies', () => {
  it.each<[string, (document: ProjectDocument) => void]>([
    ['a key nobody uses', (d) => (d.minds.keeper.memory!.spare = { type: 'number' })],
    ['a tree nobody calls', (d) => (d.minds.keeper.trees!.spare = { root: { do: 'stop' } })],
    [
      'rules that are never called',
      (d) =>
        (d.minds.keeper.rules = { spare: { rows: [{ when: 'time > 1', do: [{ do: 'stop' }] }] } }),
    ],
    [
      'a state nothing leads to',
      (d) =>
        d.minds.keeper.machine!.states.push({ id: 'nap', transitions: [{ to: 'look', after: 1 }] }),
    ],
    [
      'a transition that never fires',
      (d) => d.minds.keeper.machine!.states[0].transitions!.push({ to: 'come', on: 'bell' }),
    ],
    [
      'an approach that never arrives',
      (d) =>
        (d.minds.keeper.machine!.states[1].activity = { do: 'moveTo', to: 'quarry', within: 0.2 }),
    ],
  ])('of %s put it right in one step', (_, change) => {
    const document = quiet();
    change(document);
    const { findings } = checkProject(document);
    expect(findings).toHaveLength(1);
    const { command } = findings[0].remedy!;
    expect(found(applyCommand(document, command))).toEqual([]);
  });

  it('of what is already gone say so', () => {
    const spare = { mind: 'keeper', key: 'spare' };
    expect(() => applyCommand(quiet(), { command: 'removeKey', ...spare })).toThrow(/no “spare”/);
  });
});
