import type {
  ActionDocument,
  GuardDocument,
  MindDocument,
  MoveDocument,
  NodeDocument,
  ProjectDocument,
} from '../../../model/documents.ts';
import { cornerProject, KEEN_SIGHT, watch } from '../../../testing/orchard.fixture.ts';
import type { LedgerEntry } from '../../state/recorder.ts';

/** Half a second of wind-up, a tenth active. */
export const SWEEP: MoveDocument = {
  windUp: 0.5,
  active: 0.1,
  recovery: 0.4,
  reach: 1,
  damage: 10,
};

export interface Duel {
  moves?: Record<string, MoveDocument>;
  guards?: Record<string, GuardDocument>;
  /** What the keeper and the warden do, each in a tree of its own. */
  keeper?: NodeDocument;
  warden?: NodeDocument;
  /** Metres from the keeper at (5, 5). */
  away?: number;
  change?: (document: ProjectDocument) => void;
}

/** A keeper and a warden, enemies, face to face; both see each other at once. */
export function duel({ moves, guards, keeper, warden, away = 1.4, change }: Duel): ProjectDocument {
  const document = cornerProject({
    sight: { ...KEEN_SIGHT, cones: [{ range: 12, halfAngle: 60, gain: 60 }] },
  });
  const waits: NodeDocument = { do: 'wait', seconds: 600 };
  const mindOf = (root: NodeDocument): MindDocument => ({
    title: 'Fighter',
    activity: { tree: 'main' },
    trees: {
      main: {
        root: {
          sequence: [{ do: 'wait', seconds: 0.1 }, { succeed: root }, { do: 'wait', seconds: 600 }],
        },
      },
    },
  });
  document.minds = { keeper: mindOf(keeper ?? waits), warden: mindOf(warden ?? waits) };
  const fighter = { ...document.archetypes.keeper, health: 100, moves, guards };
  document.archetypes.keeper = { ...fighter, mind: 'keeper' };
  document.archetypes.warden = { ...fighter, title: 'Warden', faction: 'wardens', mind: 'warden' };
  document.grounds.corner.agents = {
    keeper: { archetype: 'keeper', at: [5, 5], heading: 0 },
    warden: { archetype: 'warden', at: [5 + away, 5], heading: 180 },
  };
  delete document.start.play;
  change?.(document);
  return document;
}

export const strike = (move: string): ActionDocument => ({
  do: 'strike',
  move,
  at: 'attention.of',
});
const hits = (entries: readonly LedgerEntry[]) =>
  entries.filter((entry) => entry.kind === 'hit') as Extract<LedgerEntry, { kind: 'hit' }>[];

/** Both wait a tenth of a second, six ticks, so that what they begin, they begin in tick 7. */
export const BEGUN = 7;
export const FIRST_ACTIVE = BEGUN + 30;

export function fought(options: Duel, ticks = 120) {
  const watched = watch(duel(options));
  watched.run(ticks);
  const agent = (name: string) => watched.world.agents.find((each) => each.name === name)!;
  return {
    ...watched,
    hits: hits(watched.entries),
    keeper: agent('keeper'),
    warden: agent('warden'),
  };
}
