import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BUILTINS, signature } from './builtins.ts';
import { checkExpression } from './check.ts';
import { compileFlag, compileNumber, compilePoint } from './closures.ts';
import type { Facts } from './facts.ts';
import type { ValueType } from './ir.ts';
import { readFlag, readParts, readText } from './readout.ts';
import type { Scope, ScopeKey } from './scope.ts';

const texts: string[] = [];
const scope: Scope = {
  keys: new Map<string, ScopeKey>([
    ['quarry', { index: 0, scope: 'self', slot: 0, type: 'agent' }],
    ['boldness', { index: 1, scope: 'self', slot: 1, type: 'number' }],
    ['lair', { index: 2, scope: 'self', slot: 2, type: 'point' }],
    ['tired', { index: 3, scope: 'self', slot: 4, type: 'flag' }],
    ['mood', { index: 4, scope: 'self', slot: 5, type: 'text' }],
    ['patience', { index: 5, scope: 'self', slot: 6, type: 'number', unit: 's' }],
  ]),
  onGround: new Map([['west', { type: 'route', index: 0 }]]),
  view: 'above',
  internText: (text) => (texts.includes(text) ? texts.indexOf(text) : texts.push(text) - 1),
};

const fighters = {
  moveOf: () => -1,
  phaseOf: () => -1,
  guardOf: () => -1,
  healthOf: () => 50,
};

/** A keeper at (1, 2), facing +x, that sees agent 3 at (4, 6). Slots: quarry, boldness, lair x y, tired, mood, patience. */
function facts(memory: number[] = [3, 0.5, 10, 2, 1, -1, 4]): Facts {
  return {
    memory: Float64Array.from(memory),
    squadMemory: new Float64Array(0),
    worldMemory: new Float64Array(0),
    here: {
      x: 1,
      y: 2,
      light: () => 0.25,
      inZone: () => false,
      fromHome: () => 2,
      sees: (agent) => agent === 3,
      canReach: () => true,
      impactIn: () => NaN,
    },
    known: {
      ...fighters,
      aware: true,
      tracked: { length: 1, of: () => 3, find: () => 0, x: () => 4, y: () => 6 },
      attentionOf: 3,
      attentionX: 4,
      attentionY: 6,
      attentionStrength: 0.75,
      attentionSense: 0,
      attentionAge: 0.5,
      keyAge: (key) => (key === 0 ? 2.5 : NaN),
      awareness: (agent) => (agent === 3 ? 0.75 : 0),
      x: (agent) => (agent === 3 ? 4 : NaN),
      y: (agent) => (agent === 3 ? 6 : NaN),
      speedX: (agent) => (agent === 3 ? 2 : NaN),
      speedY: (agent) => (agent === 3 ? -1 : NaN),
      percept: (sense) =>
        sense === 2 ? { what: 0, of: -1, thing: -1, x: 1, y: 7, strength: 0.4 } : null,
      perceptAge: (sense) => (sense === 2 ? 1.5 : NaN),
    },
    self: {
      heading: 0,
      vx: 3,
      vy: 4,
      postX: 0,
      postY: 0,
      homeX: 0,
      homeY: 0,
      route: -1,
      crouched: false,
      carried: -1,
      role: -1,
      health: 60,
      healthShare: 0.6,
      lastResult: -1,
      sinceHit: () => NaN,
      sinceLanded: () => 2,
      cooldownLeft: () => 0,
      isReady: () => true,
      isHostile: (agent) => agent === 3,
      isFree: () => true,
    },
    around: {
      ...fighters,
      seconds: () => 12,
      tier: -1,
      isOpen: () => true,
      zoneX: () => 5,
      zoneY: () => 6,
      x: (agent) => (agent >= 0 ? 9 : NaN),
      y: (agent) => (agent >= 0 ? 2 : NaN),
      thingX: () => NaN,
      thingY: () => NaN,
      thingWeight: () => 1,
      game: {
        mode: () => -1,
        timeLeft: () => NaN,
        score: () => 3,
        players: () => 1,
        alive: () => 2,
        toCome: () => 0,
        inZone: () => 0,
        thingsIn: () => 0,
        weightIn: () => 0,
      },
    },
    at(x, y) {
      return { ...this, here: { ...this.here, x, y } };
    },
  };
}

function check(source: string, type: ValueType) {
  const result = checkExpression(source, scope, { types: [type] });
  if (!result.ok) throw new Error(result.faults.map(({ message }) => message).join('\n'));
  return result.expression;
}

const flag = (source: string, memory?: number[]) =>
  compileFlag(check(source, 'flag').ir)(facts(memory));
const number = (source: string, memory?: number[]) =>
  compileNumber(check(source, 'number').ir)(facts(memory));

function fault(source: string, type: ValueType = 'flag') {
  const result = checkExpression(source, scope, { types: [type] });
  if (result.ok) throw new Error(`${source} has no fault.`);
  return result.faults[0];
}

describe('a name that nothing has', () => {
  it('is given beside the sentence, so that a page can offer to declare it', () => {
    expect(fault('grudges > 1')).toMatchObject({ unknown: 'grudges', at: [0, 7] });
    expect(fault('quarry > 1').unknown).toBeUndefined();
  });
});

describe('shapes that are one closure', () => {
  /** `(true ? x : x)` is of no such shape, and means the same. */
  const plain = (part: string) => `(true ? ${part} : ${part})`;
  const numbers = [
    (agent: string) => `awareness(${agent})`,
    (agent: string) => `distance(${agent})`,
    () => 'age(patience)',
    () => 'time',
    () => 'self.speed',
    () => 'attention.strength',
    () => 'boldness',
    () => 'distance(self.post)',
  ];
  const flags = [
    (agent: string) => `sees(${agent})`,
    (agent: string) => `known(${agent})`,
    () => 'tired',
  ];
  const agents = ['quarry', 'attention.of'];
  const memories = [
    [3, 0.5, 10, 2, 1, -1, 4],
    [-1, NaN, NaN, NaN, 0, -1, NaN],
    [7, 0, 1, 2, 0, 1, 0],
  ];

  it('give what the table of built-ins gives', () => {
    for (const memory of memories) {
      for (const agent of agents) {
        for (const make of numbers) {
          expect(number(make(agent), memory), make(agent)).toEqual(
            number(make(plain(agent)), memory),
          );
          for (const operator of ['<', '<=', '>', '>=', '==', '!=']) {
            for (const limit of [0, 0.5, 5, 12]) {
              const source = `${make(agent)} ${operator} ${limit}`;
              const other = `${make(plain(agent))} ${operator} ${plain(`${limit}`)}`;
              expect(flag(source, memory), source).toBe(flag(other, memory));
            }
          }
        }
        for (const make of flags) {
          expect(flag(make(agent), memory)).toBe(flag(plain(make(plain(agent))), memory));
          expect(flag(`!${make(agent)}`, memory)).toBe(!flag(plain(make(plain(agent))), memory));
          for (const not of ['', '!']) {
            for (const rest of ['time > 5', 'time < 5', 'tired && boldness < 1']) {
              const source = `${rest} && ${not}${make(agent)}`;
              const other = `${rest} && ${not}${plain(make(plain(agent)))}`;
              expect(flag(source, memory), source).toBe(flag(other, memory));
            }
          }
        }
      }
    }
  });
});

describe('values', () => {
  it.each([
    ['1 + 2 * 3 - 4 / 2', 5],
    ['-(7 % 4)', -3],
    ['min(3, 1, 2) + max(1, 2)', 3],
    ['clamp(boldness, 0.6, 1)', 0.6],
    ['abs(-2)', 2],
    ['distance(quarry)', 5],
    ['distance(lair)', 9],
    ['awareness(quarry)', 0.75],
    ['self.speed', 5],
    ['time', 12],
    ['age(quarry)', 2.5],
    ['tired ? 1 : 2', 1],
    ['bearing(lair)', 0],
  ])('%s is %d', (source, value) => {
    expect(number(source)).toBeCloseTo(value, 12);
  });

  it.each([
    ['sees(quarry) && distance(quarry) < 6', true],
    ['!sees(quarry) || boldness >= 0.5', true],
    ['tired == true', true],
    ['quarry == attention.of', true],
    ['quarry != attention.of', false],
    ['boldness != 0.5', false],
    ['known(lair) && known(quarry) && known(boldness)', true],
  ])('%s is %s', (source, value) => {
    expect(flag(source)).toBe(value);
  });

  it('takes points apart', () => {
    const { x, y } = compilePoint(check('tired ? lastSeen(quarry) : self.place', 'point').ir);
    expect([x(facts()), y(facts())]).toEqual([4, 6]);
  });

  it('compares texts', () => {
    const memory = [3, 0, 0, 0, 0, scope.internText('sour'), 0];
    expect(flag("mood == 'sour'", memory)).toBe(true);
    expect(flag("mood != 'sweet'", memory)).toBe(true);
  });
});

describe('what is missing', () => {
  const nothing = [-1, NaN, NaN, NaN, 0, -1, NaN];

  it('makes every comparison false, “!=” too', () => {
    for (const operator of ['<', '<=', '>', '>=', '==', '!=']) {
      expect(flag(`boldness ${operator} 1`, nothing)).toBe(false);
      expect(flag(`1 ${operator} distance(quarry)`, nothing)).toBe(false);
    }
    expect(flag('quarry == attention.of', nothing)).toBe(false);
    expect(flag('quarry != attention.of', nothing)).toBe(false);
    expect(flag("mood == 'sour' || mood != 'sour'", nothing)).toBe(false);
  });

  it('can be asked for', () => {
    expect(flag('known(quarry) || known(lair) || known(boldness)', nothing)).toBe(false);
  });

  it('comes from any arithmetic without a finite result', () => {
    for (const source of ['1 / 0', '0 / 0', '1 % 0', '1e308 * 10', 'boldness + 1']) {
      expect(number(source, nothing)).toBeNaN();
    }
  });

  it('is unseen and unknown', () => {
    expect(flag('sees(quarry)', nothing)).toBe(false);
    expect(number('awareness(quarry)', nothing)).toBe(0);
  });
});

describe('faults', () => {
  it.each([
    ['seez(quarry)', 'Did you mean “sees”?', [0, 4]],
    ['sees(quary)', 'Did you mean “quarry”?', [5, 10]],
    ['distance(quarry) <', 'stops too early', [18, 18]],
    ['boldness = 1', 'write “==”', [0, 12]],
    ['boldness', 'true or false is needed', [0, 8]],
    ['sees', 'is a function', [0, 4]],
    ['sees(lair)', 'sees(agent) is needed', [0, 10]],
    ['distance(quarry) < patience', '“distance(quarry)” is in m, “patience” is in s', [0, 27]],
    ['distance(quarry) + time > 1', '“distance(quarry)” is in m, “time” is in s', [0, 23]],
    ['sees(quarry) && boldness', '“boldness” is a number', [16, 24]],
    ['lair == lair', 'compare distance(point)', [0, 12]],
    ['age(time) > 1', 'name of a memory key', [4, 8]],
    ['self["place"] == 1', 'plain names with dots', [0, 13]],
    ['sees(quarry) sees(quarry)', 'left over', [13, 25]],
    ['sees(quarry) and boldness > 1', '“and” is written “&&”', [13, 16]],
    ['(sees(quarry) or boldness > 1)', '“or” is written “||”', [14, 16]],
    ['not sees(quarry)', '“not” is written “!”', [0, 3]],
    ['(not sees(quarry))', '“not” is written “!”', [1, 4]],
    ['distance(quarry) < 2m', 'without “m”: its unit follows', [20, 21]],
    ['patience > 2 s', 'without “s”', [13, 14]],
    ['(patience > 2 s)', 'without “s”', [14, 15]],
    ['self.heading > 90°', 'without “°”', [17, 18]],
    ['placeOf(quarry)', 'Did you mean “lastSeen”?', [0, 7]],
    ['self.hp', 'Did you mean “self.health”?', [0, 7]],
    ['inRange(quarry)', 'Did you mean “canReach” or “distance”?', [0, 7]],
    ['heerd', 'Did you mean heard.place, heard.kind', [0, 5]],
    ['heard', 'Did you mean heard.place, heard.kind', [0, 5]],
    ['heerd.kind', 'Did you mean “heard.kind”?', [0, 10]],
    ['() => true', 'can’t be used', [0, 10]],
    ['`x` == `y`', 'can’t be used', [0, 3]],
    ['', 'missing', [0, 0]],
    ['quarry ?? lair', '“??”', [0, 14]],
    ["mood < 'a'", 'compares numbers', [0, 10]],
  ])('%s: %s', (source, words, at) => {
    const found = fault(source);
    expect(found.message).toContain(words);
    expect(found.at).toEqual(at);
  });

  it('lets a length be compared with a length, whatever it is made of', () => {
    expect(flag('distance(quarry) < self.speed * patience')).toBe(true);
    expect(flag('distance(quarry) / patience < self.speed')).toBe(true);
  });

  it('never lets assignment, code or other syntax through, and never throws', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (source) => {
        const result = checkExpression(source, scope, {
          types: ['flag', 'number', 'point', 'agent', 'text', 'route'],
        });
        if (result.ok) return;
        for (const { at } of result.faults) {
          expect(at[0]).toBeGreaterThanOrEqual(0);
          expect(at[1]).toBeLessThanOrEqual(source.length);
        }
      }),
    );
  });
});

describe('readouts', () => {
  const names = {
    agents: [{ title: '' }, { title: '' }, { title: '' }, { title: 'Gleaner' }],
    texts,
    routes: [{ title: 'West' }],
    things: [],
    gates: [],
    zones: [],
  };

  it('puts values in the place of names', () => {
    expect(readText(check('distance(quarry) < 1.6 && !sees(quarry)', 'flag'), facts(), names)).toBe(
      '5 < 1.6 && !true',
    );
    expect(readText(check('quarry == attention.of', 'flag'), facts(), names)).toBe(
      'Gleaner == Gleaner',
    );
    expect(readText(check('boldness > 1', 'flag'), facts([0, NaN, 0, 0, 0, 0, 0]), names)).toBe(
      'nothing > 1',
    );
  });

  it('marks what fails of several conditions, in the text with values', () => {
    const read = (source: string, given = facts()) => {
      const { holds, text, failing, lacks } = readFlag(check(source, 'flag'), given, names);
      return { holds, text, failing: failing.map((at) => text.slice(...at)), lacks };
    };
    expect(read('distance(quarry) < 1.6 && sees(quarry) && boldness > 100')).toEqual({
      holds: false,
      text: '5 < 1.6 && true && 0.5 > 100',
      failing: ['5 < 1.6', '0.5 > 100'],
      lacks: [],
    });
    expect(read('sees(quarry) && (boldness > 100 || !sees(quarry))').failing).toEqual([
      '0.5 > 100 || !true',
    ]);
    // Of one condition nothing is marked: all of it fails. Of those that hold, neither.
    expect(read('distance(quarry) < 1.6').failing).toEqual([]);
    expect(read('distance(quarry) > 1.6 && sees(quarry)').failing).toEqual([]);
  });

  it('lists the telling parts', () => {
    expect(readParts(check('sees(quarry) && boldness * 2 >= 0.5', 'flag'), facts(), names)).toEqual(
      [
        { part: 'sees(quarry)', value: 'true' },
        { part: 'boldness * 2', value: '1' },
      ],
    );
  });
});

/** Numbers built at random from all that gives one. */
const numberSource: fc.Arbitrary<string> = fc.letrec<{ number: string; flag: string }>((tie) => ({
  number: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom('0', '1', '1e300', 'boldness', 'attention.strength', 'awareness(quarry)'),
    fc
      .tuple(tie('number'), fc.constantFrom('+', '-', '*', '/', '%'), tie('number'))
      .map(([a, o, b]) => `(${a} ${o} ${b})`),
    fc.tuple(tie('flag'), tie('number'), tie('number')).map(([t, a, b]) => `(${t} ? ${a} : ${b})`),
    tie('number').map((a) => `max(-${a}, 1)`),
  ),
  flag: fc.oneof(
    { depthSize: 'small' },
    fc.constantFrom('tired', 'sees(quarry)', 'known(lair)'),
    fc
      .tuple(tie('number'), fc.constantFrom('<', '>=', '==', '!='), tie('number'))
      .map(([a, o, b]) => `(${a} ${o} ${b})`),
    tie('flag').map((a) => `!${a}`),
  ),
})).number;

describe('any expression the checker passes', () => {
  it('gives a finite number or nothing, and never throws', () => {
    const value = fc.constantFrom(0, 1, -1, 1e300, NaN);
    fc.assert(
      fc.property(
        numberSource,
        fc.array(value, { minLength: 7, maxLength: 7 }),
        (source, memory) => {
          const result = number(source, memory);
          expect(Number.isFinite(result) || Number.isNaN(result)).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('the table of built-ins', () => {
  it('has a way to run each entry, and says what it is about', () => {
    for (const builtin of BUILTINS) {
      const name = signature(builtin);
      if (builtin.ownWay) expect(builtin.parameters, name).toBeDefined();
      else if (builtin.result === 'flag') expect(builtin.test, name).toBeTypeOf('function');
      else if (builtin.result === 'point')
        expect([typeof builtin.x, typeof builtin.y], name).toEqual(['function', 'function']);
      else expect(builtin.read ?? builtin.fold, name).toBeTypeOf('function');
      expect(builtin.about.length, name).toBeGreaterThan(5);
    }
  });
});
