import type { NumberSpec } from '../../model/schema/schema.ts';
import type {
  MachineDocument,
  MindDocument,
  StateDocument,
  TransitionDocument,
  TreeDocument,
} from '../../model/documents.ts';

/** What patterns are made of: their numbers, and the trees and states that several of them have. */

export interface PatternParameter extends Pick<
  NumberSpec,
  'label' | 'unit' | 'minimum' | 'maximum'
> {
  name: string;
  value: number;
}

/** What a body must have for a pattern to work. */
export type PatternNeed = 'sight' | 'hearing' | 'squad' | 'route' | 'move';

export interface Pattern {
  id: string;
  title: string;
  about: string;
  needs: readonly PatternNeed[];
  parameters: PatternParameter[];
  /** For a pattern that strikes: what it says of the move, which is one of the archetype that gets the mind. */
  strikesWith?: string;
  make(values: Readonly<Record<string, number>>, move: string): MindDocument;
}

export const metres = (name: string, label: string, value: number): PatternParameter => ({
  name,
  label,
  unit: 'm',
  minimum: 0.5,
  maximum: 100,
  value,
});
export const seconds = (name: string, label: string, value: number): PatternParameter => ({
  name,
  label,
  unit: 's',
  minimum: 0.1,
  maximum: 600,
  value,
});

export const quarry = { quarry: { type: 'agent', note: 'its target' } } as const;
export const spot = { spot: { type: 'point', note: 'where it will look' } } as const;

/** A machine that begins in the first of its states. */
export function machineOf(...states: StateDocument[]): MachineDocument {
  return { initial: states[0].id, states };
}

export const rememberWhom = { do: 'remember', key: 'quarry', value: 'attention.of' };

/** Stands at its post until it leaves. */
export const stand = (...transitions: TransitionDocument[]): StateDocument => ({
  id: 'stand',
  title: 'Stand',
  activity: { do: 'returnToPost' },
  transitions,
});

/** From side to side, with a rest at either. */
export const lookAbout = (sweep: number, rest: number): TreeDocument => ({
  title: 'Look about',
  root: {
    sequence: [
      { do: 'turn', by: sweep },
      { do: 'wait', seconds: rest },
      { do: 'turn', by: -sweep },
      { do: 'wait', seconds: rest },
    ] as never,
  },
});

/** Looks from side to side, by the tree `lookAbout`, over and over until it leaves. */
export const watch = (...transitions: TransitionDocument[]): StateDocument => ({
  id: 'watch',
  title: 'Watch',
  activity: { tree: 'lookAbout' },
  transitions: [{ to: 'watch', on: 'done', note: 'once more' }, ...transitions],
});

/** How far it turns to either side. */
export const sweepParameter: PatternParameter = {
  name: 'sweep',
  label: 'Turns by',
  unit: '°',
  minimum: 10,
  maximum: 180,
  value: 60,
};
