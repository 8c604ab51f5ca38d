import { describe, expect, it } from 'vitest';
import type { MindDocument, MoveDocument, NodeDocument } from '../model/documents.ts';
import { cornerProject, KEEN_SIGHT } from '../testing/orchard.fixture.ts';
import { checkProject } from './check-project.ts';

const BAT: MoveDocument = { windUp: 0.5, active: 0.1, recovery: 0.3, reach: 1, damage: 10 };

interface Duel {
  /** A mind, or the tree of one. */
  does: NodeDocument | MindDocument;
  moves?: Record<string, MoveDocument>;
  theirs?: Record<string, MoveDocument>;
  health?: number | null;
}

/** What is found where a keeper does something about the gleaner, who is its enemy. */
function found({ does, moves = { bat: BAT }, theirs = {}, health = 100 }: Duel): string[] {
  const document = cornerProject({ sight: KEEN_SIGHT });
  document.minds.keeper =
    'title' in does
      ? (does as MindDocument)
      : { title: 'Keeper', activity: { tree: 'main' }, trees: { main: { root: does } } };
  const { keeper, gleaner } = document.archetypes;
  keeper.moves = moves;
  keeper.guards = { high: { raise: 0.1, maxDuration: 2 } };
  keeper.reaction = 0.2;
  gleaner.moves = theirs;
  if (health !== null) for (const archetype of [keeper, gleaner]) archetype.health = health;
  const codes = ['guardTooShort', 'outOfReach', 'neverReady', 'wideSpread', 'shortBurst', 'noHarm'];
  const { findings, program } = checkProject(document);
  const told = findings.map(({ path, message }) => `${path}: ${message}`);
  expect(program, told.join('\n')).not.toBeNull();
  return findings
    .filter(({ code }) => codes.includes(code))
    .map(({ code, message }) => `${code}: ${message}`);
}

const guard = (when: string, seconds?: number): NodeDocument => ({
  selector: [
    { when, do: 'guard', guard: 'high', ...(seconds === undefined ? {} : { seconds }) },
    { do: 'wait', seconds: 1 },
  ],
});

const strikeAt = (within: number): NodeDocument => ({
  sequence: [
    { do: 'moveTo', to: 'attention.of', within },
    { do: 'strike', move: 'bat', at: 'attention.of' },
  ],
});

describe('a guard', () => {
  it('must still cover when what it answers can land', () => {
    expect(found({ does: guard('impactIn(attention.of) < 0.5', 0.4) })).toEqual([
      'guardTooShort: “high” is over 0.4 s after it is begun, but it is begun when the impact is still 0.5 s away. Hold it longer, or wait for impactIn below 0.4 s.',
    ]);
    expect(found({ does: guard('impactIn(attention.of) < 0.4', 0.4) })).toEqual([]);
    expect(found({ does: guard('impactIn(attention.of) < 0.5') })).toEqual([]);
    expect(found({ does: guard('impactIn(attention.of) < 3') })).toHaveLength(1);
  });

  it('must cover by then', () => {
    expect(found({ does: guard('impactIn(attention.of) < 0.05') })[0]).toMatch(/takes 0.1 s/);
  });

  it('is held against a move that is seen, from the reaction on', () => {
    const slow = { ...BAT, windUp: 1 };
    const answer = (seconds: number) =>
      found({ does: guard("moveOf(attention.of) == 'bat'", seconds), theirs: { bat: slow } });
    // Seen 0.2 s late, so 0.8 s are left.
    expect(answer(0.7)[0]).toMatch(/“bat” can’t land sooner than 0.8 s/);
    expect(answer(0.8)).toEqual([]);
  });

  it('is found by the guard of an option and by the transition into a state too', () => {
    const option: MindDocument = {
      title: 'Braced',
      activity: { choice: 'what' },
      choices: {
        what: {
          options: [
            {
              id: 'brace',
              when: 'impactIn(attention.of) < 0.5',
              does: { do: 'guard', guard: 'high', seconds: 0.3 },
            },
          ],
        },
      },
    };
    expect(found({ does: option })).toHaveLength(1);
    const state: MindDocument = {
      title: 'Braced',
      machine: {
        initial: 'stand',
        states: [
          { id: 'stand', transitions: [{ to: 'brace', when: 'impactIn(attention.of) < 0.5' }] },
          {
            id: 'brace',
            activity: { do: 'guard', guard: 'high', seconds: 0.3 },
            transitions: [{ to: 'stand', on: 'done' }],
          },
        ],
      },
    };
    expect(found({ does: state })).toHaveLength(1);
  });
});

describe('a mind that fights', () => {
  it('must come as near as its longest move reaches', () => {
    // 0.3 m each and a reach of 1 m.
    expect(found({ does: strikeAt(2) })).toEqual([
      'outOfReach: “Keeper” comes no nearer than 2 m, but its moves reach 1.6 m at most, from middle to middle. Go nearer, or give a move more reach.',
    ]);
    expect(found({ does: strikeAt(1.6) })).toEqual([]);
    expect(found({ does: strikeAt(2), moves: { bat: { ...BAT, advance: 0.5 } } })).toEqual([]);
  });

  it('must leave a move the time to be ready again', () => {
    const twice = (seconds: number): NodeDocument => ({
      sequence: [
        { do: 'strike', move: 'bat' },
        { do: 'wait', seconds },
        { do: 'strike', move: 'bat' },
      ],
    });
    const moves = { bat: { ...BAT, cooldown: 2 } };
    expect(found({ does: twice(1), moves })).toEqual([
      'neverReady: “bat” comes 1 s after it was made, but it can be made again only after 2 s: the row fails each time. Wait longer between the two, or shorten the cooldown.',
    ]);
    expect(found({ does: twice(2), moves })).toEqual([]);
  });
});

describe('bodies that fight', () => {
  const idle: NodeDocument = { do: 'wait', seconds: 1 };

  it('must have shots that meet an agent', () => {
    const thrown = (spread: number) => ({
      spit: {
        kind: 'thrown',
        active: 0.1,
        reach: 20,
        damage: 5,
        speed: 10,
        spread,
      } as MoveDocument,
    });
    expect(found({ does: idle, moves: thrown(3) })).toEqual([]);
    expect(found({ does: idle, moves: thrown(30) })[0]).toMatch(
      /^wideSpread: At 10 m, half of its reach, \d of 100 shots of “spit” hit an agent\./,
    );
  });

  it('must not strike over the heads of all', () => {
    const high = (from: number) => ({ bat: { ...BAT, from, to: 3 } });
    expect(found({ does: idle, moves: high(1.6) })).toEqual([]);
    expect(found({ does: idle, moves: high(2) })).toContainEqual(
      expect.stringMatching(
        /^outOfReach: “bat” goes from 2 m up, and none of its enemies is higher/,
      ),
    );
  });

  it('must be active for as long as a burst takes', () => {
    const burst = (active: number) => ({
      spit: { kind: 'thrown', active, damage: 5, shots: 3, gap: 0.2 } as MoveDocument,
    });
    expect(found({ does: idle, moves: burst(0.42) })).toEqual([]);
    expect(found({ does: idle, moves: burst(0.4) })).toEqual([
      'shortBurst: “spit” is active for 0.4 s, in which 2 of its 3 shots leave. Make it active for more than 0.42 s, or shorten the gap.',
    ]);
  });

  it('must be able to hurt one of two enemies that fight', () => {
    const theirs = { pat: { ...BAT, damage: 0 } };
    expect(found({ does: idle })).toEqual([]);
    expect(found({ does: idle, theirs, health: null })).toEqual([
      'noHarm: “Gleaner” and “Keeper” are enemies and neither can hurt the other. Give one a move that damages at the height of the other, or give the other health.',
    ]);
    expect(
      found({ does: idle, theirs, moves: { bat: { ...BAT, from: 2, to: 2.4 } } }),
    ).toContainEqual(expect.stringMatching(/^noHarm: /));
    expect(found({ does: idle, health: null })).toEqual([]);
    expect(
      found({ does: idle, moves: { bat: { ...BAT, damage: 0 } }, theirs: { bat: BAT } }),
    ).toEqual([]);
  });
});
