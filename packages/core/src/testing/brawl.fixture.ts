import type { ProjectDocument } from '../model/documents.ts';
import { namesOf } from '../model/names/names.ts';
import { createStream, nextRandom } from '../numeric/random.ts';
import type { Input, Program } from '../world/program/program.ts';
import { compiled, nightWatch } from './demo.fixture.ts';

/** Night Watch with nine gleaners who run about and throw baskets, at wardens who can be hurt and have to react. */
function brawl(): ProjectDocument {
  const document = nightWatch();
  const ground = document.grounds[document.start.ground];
  const gleaner = ground.agents[document.start.play!];
  for (let i = 2; i <= 9; i++)
    ground.agents[`gleaner${i}`] = { ...gleaner, at: [4 + i * 1.1, 28.2] };
  ground.things = Object.fromEntries(
    Array.from({ length: 16 }, (_, i) => [
      `basket${i}`,
      { kind: 'basket', at: [6.2 + i * 0.6, 27.8], damage: 30 },
    ]),
  );
  for (const archetype of Object.values(document.archetypes)) {
    archetype.health = 30;
    archetype.respawnDelay = 4;
  }
  const [first] = Object.values(document.archetypes);
  first.reaction = 0.25;
  // Others come while it goes on, some again and again, and a director counts.
  const [archetype] = namesOf(document.archetypes);
  ground.spawns = { south: { at: [20, 28] }, west: { at: [2, 28.5] } };
  ground.waves = {
    late: { archetype, count: 4, gap: 1, times: 0, delay: 1.5, after: 'each' },
    later: { archetype, count: 2, maxAlive: 1, times: 3, delay: 0.5, starts: 'director' },
  };
  ground.schedule = {
    modes: [
      { mode: 'quiet', for: 3 },
      { mode: 'loud', for: 2 },
    ],
  };
  ground.scores = { dead: {} };
  ground.director = 'referee';
  document.minds.referee = {
    title: 'Referee',
    memory: { patience: { type: 'number', default: 4, rate: -1, min: 0 } },
    machine: {
      initial: 'plays',
      states: [
        {
          id: 'plays',
          transitions: [
            { on: 'died', internal: true, do: [{ do: 'addScore', score: 'dead' }] },
            { to: 'brings', when: 'patience == 0' },
          ],
        },
        {
          id: 'brings',
          entry: [
            { do: 'bring', wave: 'later' },
            { do: 'setMode', mode: 'hasty', seconds: 1.25 },
            { do: 'setLight', to: 0.6, seconds: 5 },
          ],
          transitions: [{ on: 'died', internal: true, do: [{ do: 'addScore', score: 'dead' }] }],
        },
      ],
    },
  };
  return document;
}

export function programOfBrawl(change: (document: ProjectDocument) => void = () => {}): Program {
  const document = brawl();
  change(document);
  return compiled(document);
}

/** What players do: three times a second each goes elsewhere, and picks up, throws at its neighbours, drops or moves a gate. */
export function brawlInputs(program: Program, at: number): Input[] {
  if (at % 20 !== 1) return [];
  const players = program.agents.filter(({ name }) => name.startsWith('gleaner'));
  return players.map(({ name, x, y }): Input => {
    const luck = createStream(at, name);
    const between = (low: number, high: number) => low + nextRandom(luck) * (high - low);
    const act = (['pickUp', 'pickUp', 'throw', 'use', 'drop'] as const)[Math.floor(between(0, 6))];
    return {
      agent: name,
      x: between(-1, 1),
      y: between(-1, 1),
      gait: between(0, 1) < 0.5 ? 'run' : null,
      ...(act ? { act } : {}),
      ...(act === 'throw'
        ? { at: [x + between(-3, 3), y + between(-3, 3)] as [number, number] }
        : {}),
    };
  });
}

/** The brawl with one more before all others in every list, so that everything has another number. */
export function withOthersFirst(document: ProjectDocument): void {
  const ground = document.grounds[document.start.ground];
  for (const { faction } of Object.values(document.archetypes)) {
    document.factions = { ...document.factions };
    const { toward, ...rest } = document.factions[faction] ?? {};
    document.factions[faction] = { ...rest, toward: { ...toward, aaa: 'neutral' } };
  }
  document.factions!.aaa = {
    toward: Object.fromEntries(namesOf(document.factions!).map((name) => [name, 'neutral'])),
  };
  document.minds.aaa = {
    title: 'A',
    memory: { aaa: { type: 'number' } },
    activity: { do: 'say', text: 'aaa' },
  };
  document.archetypes.aaa = {
    title: 'A',
    faction: 'aaa',
    body: { radius: 0.2, acceleration: 1, turnRate: 90 },
    gaits: { aaa: 1 },
    gait: 'aaa',
  };
  // Squads give roles in turns by their place, so one that came first would shift when the others do.
  document.squads = {
    ...document.squads,
    zzz: { title: 'Z', roles: [{ role: 'aaa', score: '1' }] },
  };
  ground.agents.aaa = { archetype: 'aaa', at: [0.4, 0.4], squad: 'zzz' };
  ground.things!.aab = { at: [0.4, 1.2] };
  ground.gates = { aac: { at: [0, 0.7], size: [0.1, 0.1] }, ...ground.gates };
  ground.routes = {
    aaa: {
      points: [
        [0.4, 0.4],
        [0.4, 0.6],
      ],
    },
    ...ground.routes,
  };
}
