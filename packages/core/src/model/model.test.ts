import { readdirSync, readFileSync } from 'node:fs';
import Ajv from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cornerProject } from '../testing/orchard.fixture.ts';
import { ACTION_NAMES, ACTIONS } from './actions/actions.ts';
import {
  projectSchema,
  type NodeDocument,
  type ProjectDocument,
  type StateDocument,
} from './documents.ts';
import { nearestName } from './names/nearest-name.ts';
import { readProject, readProjectText } from './file/read-project.ts';
import { toJsonSchema } from './schema/json-schema.ts';
import { serialiseProject } from './file/serialise.ts';

const DEMOS = new URL('../../../../demo/', import.meta.url);
const DEMO = readFileSync(new URL('night-watch.lantern.json', DEMOS), 'utf8');

/** The demo with every kind of node, rules, lists, a second mind and squads besides. */
function everything(): ProjectDocument {
  const document = demo();
  const { warden } = document.minds;
  Object.assign(warden, {
    cadence: { every: 0.1 },
    channels: ['legs', 'eyes', 'voice'],
    memory: {
      ...warden.memory,
      seen: { type: 'list of agent', scope: 'squad', capacity: 4 },
      mood: { type: 'number', unit: 'm', default: 1 },
    },
    rules: {
      manners: {
        rows: [
          {
            when: 'time > 1',
            edge: true,
            do: [{ do: 'wait', seconds: 1, uninterrupted: true }],
            rows: [{ when: 'true', do: [{ do: 'add', key: 'seen', value: 'quarry' }] }],
            else: [{ do: 'stop' }],
          },
        ],
      },
    },
    trees: {
      ...warden.trees,
      all: {
        parameters: { long: 'number' },
        root: {
          selector: [
            { title: 'A', note: 'b', when: 'time > 2', holds: true, preempts: true, do: 'stop' },
            { sequence: [{ condition: 'true' }], restart: true },
            { parallel: [{ rules: 'manners' }], successes: 1, failures: 1 },
            {
              random: [
                { weight: 2, do: 'stop' },
                { weight: 'long', invert: { do: 'stop' } },
              ],
            },
            { repeat: { succeed: { do: 'stop' } }, times: 2, until: 'success' },
            { limit: { fail: { do: 'stop' } }, times: 2 },
            { cooldown: { timeout: { do: 'stop' }, seconds: 1 }, seconds: 'long' },
            { delay: { chance: { do: 'stop' }, probability: 0.5 }, seconds: 1 },
            { tree: 'lookAbout', with: { sweep: 90 } },
          ],
        },
      },
    },
  });
  document.minds.talk = { title: 'Talk', cadence: { on: 'event' }, activity: { rules: 'none' } };
  document.squads = {
    west: {
      title: 'West',
      note: 'n',
      reach: 20,
      delay: 0.5,
      roles: [
        { role: 'flank', title: 'Flank', slots: 1, score: '1 - self.light', commitment: 0.2 },
      ],
    },
  };
  document.factions = {
    wardens: { title: 'Wardens', note: 'n', toward: { gleaners: 'neutral' } },
  };
  document.players = {
    sneak: {
      title: 'Sneak',
      note: 'n',
      seed: 4,
      inputs: [
        { tick: 1, agent: 'gleaner', x: 1, y: -0.5, gait: 'run' },
        { tick: 9, agent: 'gleaner', act: 'throw', at: [4, 5] },
        { tick: 15, agent: 'gleaner', place: [4, 4] },
        { tick: 20, agent: 'gleaner', control: 'minds' },
      ],
    },
  };
  document.setups = {
    close: {
      title: 'Close',
      note: 'n',
      play: 'gleaner',
      seed: 3,
      player: 'sneak',
      agents: { warden1: { at: [3.4, 10.6], heading: 0 } },
    },
  };
  Object.assign(document.start, { player: 'sneak' });
  document.minds.warden.machine!.states[0].attention = ['hearing', 'sight'];
  Object.assign(document.archetypes.warden, {
    hearing: { threshold: 0.1 },
    lantern: { reach: 4, strength: 0.6 },
    sleepDistance: 60,
  });
  Object.assign(document.archetypes.warden.body, { height: 1.8, crouchHeight: 1 });
  document.archetypes.warden.sight!.points = 1;
  document.archetypes.warden.gaits.creep = { speed: 1, noise: 1, crouched: true, visibility: 0.5 };
  Object.assign(document.grounds.orchard, {
    light: 0.2,
    lamps: { l: { title: 'L', at: [3, 3], reach: 5, strength: 0.9 } },
    gates: {
      g: { title: 'G', at: [12, 2], size: [0.2, 1], state: 'locked', height: 2, muffles: 1 },
    },
    plates: { p: { title: 'P', at: [13, 5], size: [1, 1], opens: 'g' } },
    things: { b: { title: 'B', kind: 'basket', at: [14, 7], noise: 8 } },
    posts: { w: { title: 'W', at: [3, 5], heading: 90 } },
    spawns: { s: { at: [3, 5] } },
    zones: { z: { title: 'Z', at: [1, 1], size: [4, 4] } },
  });
  Object.assign(document.grounds.orchard.walls[0], { height: 2, muffles: 5 });
  Object.assign(document.grounds.orchard.agents.warden1, {
    post: 'w',
    asleep: true,
    overrides: {
      faction: 'wardens',
      mind: 'warden',
      minds: ['warden'],
      reaction: 0.4,
      gait: 'walk',
      health: 80,
      respawnDelay: 6,
      sleepDistance: 40,
      body: { radius: 0.4 },
      gaits: { walk: { speed: 1, noise: 2 } },
      sight: { fade: 0.5 },
      hearing: { threshold: 0.2 },
      lantern: { reach: 2 },
    },
  });
  Object.assign(document.archetypes.warden, { minds: ['talk'], squad: 'west', reaction: 0.2 });
  document.grounds.orchard.agents.warden1.squad = 'west';
  return document;
}

function demo(): ProjectDocument {
  return JSON.parse(DEMO) as ProjectDocument;
}

/** The demo with one value at a path replaced (undefined removes it). */
function broken(path: (string | number)[], value: unknown): unknown {
  const document = everything() as unknown as Record<string | number, unknown>;
  let place = document;
  for (const step of path.slice(0, -1)) place = place[step] as typeof place;
  const last = path[path.length - 1];
  if (value === undefined) delete place[last];
  else place[last] = value;
  return document;
}

function faults(value: unknown): string[] {
  const result = readProject(value);
  return result.ok ? [] : result.faults.map(({ path, message }) => `${path}: ${message}`);
}

const STATES = ['minds', 'warden', 'machine', 'states'];

describe('faults of form', () => {
  it.each<[string, (string | number)[], unknown, string]>([
    ['a missing field', ['title'], undefined, 'title: is missing'],
    [
      'a number out of range',
      ['archetypes', 'warden', 'body', 'radius'],
      9,
      'archetypes.warden.body.radius: must be at most 3, not 9',
    ],
    [
      'a number as text',
      ['archetypes', 'warden', 'body', 'radius'],
      '0.3',
      'archetypes.warden.body.radius: must be a number, not "0.3"',
    ],
    [
      'an unknown field',
      ['archetypes', 'warden', 'bdoy'],
      {},
      'archetypes.warden.bdoy: is not a field this version knows. Did you mean “body”?',
    ],
    [
      'an unknown action',
      [...STATES, 0, 'states', 0, 'entry', 0, 'do'],
      'setGates',
      'minds.warden.machine.states[0].states[0].entry[0].do: “setGates” is not an action. Did you mean “setGate”?',
    ],
    [
      'an unknown parameter',
      [...STATES, 0, 'states', 0, 'entry', 0, 'speed'],
      3,
      'minds.warden.machine.states[0].states[0].entry[0].speed: is not a field this version knows. Known here: do, gait.',
    ],
    [
      'a missing parameter',
      [...STATES, 0, 'states', 0, 'activity', 'route'],
      undefined,
      'minds.warden.machine.states[0].states[0].activity.route: is missing',
    ],
    [
      'a deep state’s id',
      [...STATES, 1, 'states', 2, 'id'],
      'Go there',
      'minds.warden.machine.states[1].states[2].id: must be a name: a lower-case letter, then up to 39 letters and digits',
    ],
    [
      'a list that should be one',
      [...STATES],
      {},
      'minds.warden.machine.states: must be a list, not {}',
    ],
    ['an unusable name', ['minds', 'The Warden'], {}, 'minds["The Warden"]: is not a usable name'],
    [
      'a place with three numbers',
      ['grounds', 'orchard', 'agents', 'gleaner', 'at'],
      [1, 2, 3],
      'grounds.orchard.agents.gleaner.at',
    ],
    [
      'a wrong choice',
      ['grounds', 'orchard', 'routes', 'west', 'end'],
      'round',
      'grounds.orchard.routes.west.end: must be one of: loop, stop, thereAndBack',
    ],
    ['null', ['start', 'play'], null, 'start.play'],
  ])('%s is told with its path', (_, path, value, message) => {
    expect(
      faults(broken(path, value)).some((fault) => fault.startsWith(message)),
      faults(broken(path, value)).join('\n'),
    ).toBe(true);
  });

  it('are all told at once', () => {
    const document = broken(['title'], undefined) as ProjectDocument;
    document.archetypes.warden.body.radius = 9;
    document.grounds.orchard.width = -1;
    expect(faults(document)).toHaveLength(3);
  });

  it('keep a foreign, newer or unreadable file out, saying what to do', () => {
    const first = (text: string) => {
      const result = readProjectText(text);
      return result.ok ? '' : result.faults[0].message;
    };
    expect(first('{"title": "x",}')).toMatch(/not JSON.*line 1, column 15/);
    expect(first('[]')).toContain('one JSON object');
    expect(first('{"format": "something/else"}')).toContain('belongs to another program');
    expect(first('{"format": "crooked-lantern/project", "version": 3}')).toContain('3 is newer');
  });

  it.each<[string, (text: string) => string, string, RegExp]>([
    [
      'a key that is given twice',
      (text) => text.replace('"title"', '"title": "x",\n "title"'),
      'title',
      /given twice.*line \d+, column \d+/,
    ],
    [
      'a place of three numbers',
      (text) => text.replace(/"at": ?\[[^\]]+\]/, '"at": [1, 2, 3]'),
      'grounds.',
      /^must be two numbers \[x, y\], not \[1,2,3\]$/,
    ],
    [
      'a number too large',
      (text) => text.replace(/"fade": ?[\d.]+/, '"fade": 1e400'),
      'archetypes.',
      /too large.*1e400/,
    ],
    ['a comment', (text) => `// mine\n${text}`, '', /line 1, column 1/],
    ['a text cut off', (text) => text.slice(0, -20), '', /not JSON.*line \d+/],
    ['nothing at all', () => '', '', /not JSON/],
  ])('tell of %s, and where', (_, change, path, words) => {
    const result = readProjectText(change(serialiseProject(demo())));
    expect(result.ok).toBe(false);
    const [fault] = result.ok ? [] : result.faults;
    expect(fault.path.startsWith(path)).toBe(true);
    expect(fault.message).toMatch(words);
  });

  it.each<[string, (document: ProjectDocument) => void]>([
    [
      'tree nodes',
      ({ minds }) => {
        let root: NodeDocument = { do: 'stop' };
        for (let i = 0; i < 1000; i++) root = { invert: root };
        minds.warden.trees!.deep = { root };
      },
    ],
    [
      'states',
      ({ minds }) => {
        let state: StateDocument = { id: 's0' };
        for (let i = 1; i < 500; i++)
          state = { id: `s${i}`, initial: `s${i - 1}`, states: [state] };
        minds.warden.machine!.states.push(state);
      },
    ],
    [
      'fields of its own',
      (document) => {
        let field: unknown = 1;
        for (let i = 0; i < 100_000; i++) field = { deeper: field };
        Object.assign(document, { 'x-deep': field });
      },
    ],
  ])('that have %s inside each other without end are refused in words', (_, change) => {
    const document = demo();
    change(document);
    const result = readProject(document);
    expect(result.ok ? '' : result.faults[0].message).toMatch(/more than 256 levels deep/);
    const text = `${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}`;
    const read = readProjectText(text);
    expect(read.ok ? '' : read.faults[0].message).toMatch(/more than 256 levels deep at line 1/);
  });

  it('take a byte order mark for what it is', () => {
    expect(readProjectText(`\uFEFF${serialiseProject(demo())}`)).toEqual({
      ok: true,
      document: demo(),
      version: 2,
    });
  });

  it('never make reading throw', () => {
    fc.assert(fc.property(fc.string(), (text) => void readProjectText(text)));
    fc.assert(fc.property(fc.json(), (text) => void readProjectText(text)));
    fc.assert(
      fc.property(
        fc.constantFrom('minds', 'archetypes', 'grounds', 'start'),
        fc.jsonValue(),
        (part, value) => {
          readProject({ ...demo(), [part]: value });
        },
      ),
    );
  });

  it.each(['constructor', 'toString', '__proto__', 'hasOwnProperty'])(
    'tell of a field called %s',
    (name) => {
      const broken = JSON.parse(
        JSON.stringify(demo()).replace('{"format"', `{"${name}":{},"format"`),
      ) as unknown;
      expect(readProject(broken)).toMatchObject({ ok: false, faults: [{ path: name }] });
    },
  );

  it('tell of an action that is named by no text, whatever it is', () => {
    const document = broken(['minds', 'warden', 'activity'], { do: { toString: {} } });
    delete (document as ProjectDocument).minds.warden.machine;
    expect(readProject(document)).toMatchObject({
      ok: false,
      faults: [{ path: 'minds.warden.activity.do', message: 'must be the name of an action' }],
    });
  });

  it('leave x- fields alone anywhere', () => {
    const document = broken(['x-colour'], 'blue') as ProjectDocument;
    (document.archetypes.warden as unknown as Record<string, unknown>)['x-model'] = {
      file: 'warden',
      parts: [1, 2],
    };
    (document.minds as Record<string, unknown>)['x-notes'] = [1];
    expect(faults(document)).toEqual([]);
    const read = readProjectText(serialiseProject(document));
    expect(read).toEqual({ ok: true, document, version: 2 });
  });
});

describe('a text', () => {
  it.each([
    ['a control character', 'Night\u0000Watch', 'U+0000'],
    ['a bell', 'Night\u0007', 'U+0007'],
    ['half of a pair', 'Night\ud83c', 'U+D83C'],
    ['the other half', '\udf19', 'U+DF19'],
  ])('with %s is refused with its place', (_, title, code) => {
    const document = demo();
    Object.assign(document.minds.warden, { note: title });
    expect(readProject(document)).toEqual({
      ok: false,
      faults: [
        {
          path: 'minds.warden.note',
          message: `has a character that can’t be kept, ${code}. Remove it.`,
        },
      ],
    });
  });

  it('with line breaks, tabs and whole pairs is kept', () => {
    const document = demo();
    Object.assign(document.minds.warden, { note: 'Night\n\tWatch \ud83c\udf19' });
    expect(readProject(document).ok).toBe(true);
  });
});

describe('the text of the file', () => {
  it.each(readdirSync(DEMOS))('of the demo %s is what the demo says', (file) => {
    const text = readFileSync(new URL(file, DEMOS), 'utf8');
    const read = readProjectText(text);
    expect(read.ok && serialiseProject(read.document)).toBe(text);
  });

  it('is the same whatever order the keys were made in', () => {
    const shuffle = (value: unknown): unknown => {
      if (Array.isArray(value)) return value.map(shuffle);
      if (typeof value !== 'object' || value === null) return value;
      return Object.fromEntries(
        Object.entries(value)
          .reverse()
          .map(([key, entry]) => [key, shuffle(entry)]),
      );
    };
    expect(serialiseProject(shuffle(demo()) as ProjectDocument)).toBe(DEMO);
  });

  it('reads back as the document it was made from', () => {
    const document = cornerProject({
      machine: { initial: 'a', states: [{ id: 'a', title: 'A “quoted”\nline' }] },
    });
    expect(readProjectText(serialiseProject(document))).toEqual({ ok: true, document, version: 2 });
  });
});

describe('the published JSON Schema', () => {
  const published = JSON.parse(
    readFileSync(new URL('../../../../docs/project.schema.json', import.meta.url), 'utf8'),
  ) as object;
  const validate = new Ajv({ strict: true, allErrors: false }).compile(published);

  it('is the one the code checks with', () => {
    expect(published).toMatchObject(toJsonSchema(projectSchema));
  });

  it('takes the demo, and a document with everything in it', () => {
    expect(validate(demo()), JSON.stringify(validate.errors)).toBe(true);
    expect(validate(everything()), JSON.stringify(validate.errors)).toBe(true);
    expect(readProject(everything())).toMatchObject({ ok: true });
    expect(readProjectText(serialiseProject(everything()))).toEqual({
      ok: true,
      document: everything(),
      version: 2,
    });
  });

  it('says of every number what it is and in what bounds', () => {
    const bare: string[] = [];
    const visit = (schema: unknown, at: string): void => {
      if (typeof schema !== 'object' || schema === null) return;
      const { type, description, minimum, maximum } = schema as Record<string, unknown>;
      if ((type === 'number' || type === 'integer') && description === undefined) bare.push(at);
      if (description !== undefined && (minimum === undefined) !== (maximum === undefined))
        bare.push(`${at} has one bound`);
      for (const [key, inner] of Object.entries(schema)) visit(inner, `${at}/${key}`);
    };
    visit(published, '');
    // Coordinates are reported by their pair, a default by its key, the version by the format.
    const told = /prefixItems|properties\/default\/|properties\/version$/;
    expect(bare.filter((at) => !told.test(at))).toEqual([]);
  });

  it('agrees with the code on documents broken anywhere', () => {
    /** Every path into the demo. */
    const paths: (string | number)[][] = [];
    const visit = (value: unknown, path: (string | number)[]) => {
      if (path.length > 0) paths.push(path);
      if (typeof value !== 'object' || value === null) return;
      for (const [key, entry] of Object.entries(value))
        visit(entry, [...path, Array.isArray(value) ? Number(key) : key]);
    };
    visit(everything(), []);
    const value = fc.oneof(
      fc.constant(undefined),
      fc.jsonValue(),
      fc.constantFrom<unknown>('', 'ok', -1, 0.5, 1e9, true, [], {}, [1, 2]),
    );
    fc.assert(
      fc.property(fc.constantFrom(...paths), value, (path, replacement) => {
        // A hole in a list is no JSON.
        fc.pre(replacement !== undefined || typeof path[path.length - 1] === 'string');
        const document = broken(path, replacement);
        expect(
          validate(document),
          `${path.join('.')} = ${JSON.stringify(replacement)} ${faults(document).join(' ')}`,
        ).toBe(faults(document).length === 0);
      }),
      { numRuns: 300 },
    );
  });
});

describe('nearest names', () => {
  it('finds what was meant, and nothing where nothing is near', () => {
    expect(nearestName('sesee', ['sees', 'distance'])).toBe('sees');
    expect(nearestName('distnace', ['sees', 'distance'])).toBe('distance');
    expect(nearestName('zzzz', ['sees', 'distance'])).toBeUndefined();
  });
});

describe('the table of actions', () => {
  it('says of each what it is about, when it succeeds and when it fails', () => {
    for (const name of ACTION_NAMES) {
      const { about, succeeds, fails, parameters } = ACTIONS[name];
      for (const text of [
        about,
        succeeds,
        fails,
        ...Object.values(parameters).map((parameter) => parameter.about),
      ]) {
        expect(text.length, name).toBeGreaterThan(3);
      }
    }
  });
});
