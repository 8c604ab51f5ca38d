import { describe, expect, it } from 'vitest';
import { checkDocument } from '../../findings/check-project.ts';
import type { MindDocument, ProjectDocument } from '../../model/documents.ts';
import { readProject } from '../../model/file/read-project.ts';
import { compiled } from '../../testing/demo.fixture.ts';
import { cornerProject, KEEN_SIGHT } from '../../testing/orchard.fixture.ts';
import { readMind } from '../../world/readout/readout.ts';
import { tick } from '../../world/phases/tick.ts';
import type { LedgerEntry } from '../../world/state/recorder.ts';
import { createWorld, setRecorder } from '../../world/world.ts';
import type { Pattern } from './pattern-parts.ts';
import { contentsOf, PATTERNS } from './patterns.ts';

const made = (
  { parameters, make }: Pattern,
  change: (value: number) => number = (value) => value,
) =>
  make(
    Object.fromEntries(
      parameters.map(({ name, value, maximum }) => [name, Math.min(maximum, change(value))]),
    ),
    'jab',
  );

/** A keeper with this mind, whose gleaner stands in its sight. */
function withMind(mind: MindDocument): ProjectDocument {
  const document = cornerProject({
    sight: KEEN_SIGHT,
    ground: {
      routes: {
        round: {
          points: [
            [2, 5],
            [4, 5],
          ],
        },
      },
    },
  });
  document.minds.keeper = mind;
  const { agents } = document.grounds[document.start.ground];
  agents.keeper.route = 'round';
  agents.keeper.squad = 'night';
  document.squads = { night: { title: 'Night' } };
  const jab = { windUp: 0.3, active: 0.1, recovery: 0.3, reach: 3, arc: 60, damage: 5 };
  for (const kind of Object.values(document.archetypes))
    Object.assign(kind, { health: 100, moves: { jab } });
  return document;
}

describe('a pattern', () => {
  it.each(PATTERNS.map((pattern) => [pattern.title, pattern] as const))(
    '%s is made of parts that the checker passes, whatever its numbers',
    (_, pattern) => {
      for (const change of [(value: number) => value, (value: number) => value * 2]) {
        const document = withMind(made(pattern, change));
        const form = readProject(document);
        expect(form.ok ? [] : form.faults).toEqual([]);
        const errors = checkDocument(document).findings.filter(
          ({ severity, path }) => severity === 'error' || path.startsWith('minds.'),
        );
        expect(errors.map(({ path, message }) => `${path}: ${message}`)).toEqual([]);
      }
    },
  );

  it.each([
    ['patrol', 'chase'],
    ['curious', 'look'],
    ['flee', 'wait'],
    ['follow', 'follow'],
    ['turn', 'stare'],
    ['call', 'call'],
    ['hesitate', 'backOff'],
    ['turret', 'shoot'],
  ])('%s comes to what it is for, when somebody is seen: %s', (id, state) => {
    const pattern = PATTERNS.find((each) => each.id === id)!;
    const document = withMind(made(pattern, (value) => value));
    // Near enough for all of them.
    const { agents } = document.grounds[document.start.ground];
    agents.gleaner.at = [5, 5];
    const world = createWorld(compiled(document), 1);
    const entered = new Set<string>();
    for (let i = 0; i < 900; i++) {
      tick(world, []);
      for (const active of readMind(world, 'keeper', null)!.active) entered.add(active);
    }
    expect([...entered]).toContain(state);
  });

  it('that circles strikes once and backs off, now and then and not in each round', () => {
    const pattern = PATTERNS.find(({ id }) => id === 'hesitate')!;
    const document = withMind(made(pattern));
    document.grounds[document.start.ground].agents.gleaner.at = [5, 5];
    const world = createWorld(compiled(document), 1);
    const entries: LedgerEntry[] = [];
    setRecorder(world, (entry) => entries.push(entry));
    for (let i = 0; i < 3600; i++) tick(world, []);
    const entered = entries.flatMap((entry) => (entry.kind === 'enter' ? [entry.state] : []));
    const moves = entries.filter(({ kind }) => kind === 'move');
    const strikes = entered.filter((state) => state === 'strike');
    expect(moves.length).toBeGreaterThan(3);
    expect(strikes.length).toBeLessThan(30);
    // One move each time it goes for them, and each time it backs off.
    expect(moves.length).toBe(strikes.length - (entered.at(-1) === 'strike' ? 1 : 0));
    expect(entered.filter((state) => state === 'backOff').length).toBe(moves.length);
  });

  it('that stands and shoots stays where it is, and pauses between bursts', () => {
    const pattern = PATTERNS.find(({ id }) => id === 'turret')!;
    const document = withMind(made(pattern));
    const { agents } = document.grounds[document.start.ground];
    agents.gleaner.at = [5, 5];
    const world = createWorld(compiled(document), 1);
    const shots: number[] = [];
    setRecorder(world, (entry) => {
      if (entry.kind === 'move') shots.push(entry.tick);
    });
    for (let i = 0; i < 1200; i++) tick(world, []);
    const keeper = world.agents.find(({ name }) => name === 'keeper')!;
    expect([keeper.x, keeper.y]).toEqual(agents.keeper.at);
    expect(shots.length).toBeGreaterThan(4);
    const gaps = shots.slice(1).map((at, i) => at - shots[i]);
    // Its move takes 0.7 s, and then it pauses for 1.5 s.
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual((0.7 + 1.5) * 60);
  });

  it('says what it would add before it does', () => {
    const [patrol] = PATTERNS;
    expect(contentsOf(made(patrol))).toEqual(['states: Rounds, Chase, Comb', 'keys: quarry, spot']);
  });
});
