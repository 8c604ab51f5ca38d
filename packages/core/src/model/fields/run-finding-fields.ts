import type { RunFindingLimits, RunFindingsDocument } from '../run-finding-documents.ts';
import type { NumberSpec } from './field-spec.ts';

/** From when on what happens in a run is a finding. */

/** A limit, with what is usual. */
type Limit = NumberSpec & { usual: number };

function times(label: string, usual: number, about: string): Limit {
  return { kind: 'number', label, unit: '', minimum: 2, maximum: 1000, whole: true, usual, about };
}

function seconds(label: string, usual: number, about: string): Limit {
  return { kind: 'number', label, unit: 's', minimum: 0.1, maximum: 25, usual, about };
}

export const RUN_FINDING_FIELDS = {
  flickers: times('Flickers', 4, 'this many times it goes from one state to another and back'),
  flickerWithin: seconds('Flickers within', 3, 'in this many seconds'),
  crowds: times('Crowds', 3, 'this many bodies stand so close that they touch'),
  crowdsFor: seconds('Crowds for', 2, 'for this many seconds'),
  jitters: times('Jitters', 6, 'this many times a body turns back on its way'),
  jittersWithin: seconds('Jitters within', 2, 'in this many seconds'),
  ties: times('Ties', 3, 'this many times two options of a choice score the same'),
  tiesWithin: seconds('Ties within', 10, 'in this many seconds'),
  taken: times(
    'Commands taken over',
    4,
    'this many times something else takes the channel of an action',
  ),
  takenWithin: seconds('Commands taken over within', 5, 'in this many seconds'),
  starvedFor: seconds(
    'Starved for',
    3,
    'for this many seconds no decision is made, while one is due',
  ),
  goneFor: seconds('Target gone for', 2, 'memory holds a dead agent for this many seconds'),
  fires: times('Fires', 5, 'this many consecutive decisions do the same'),
  waitsFor: seconds(
    'Waits for',
    20,
    'for this many seconds a state waits for an event that never came',
  ),
  oldFor: seconds(
    'Old goal for',
    2,
    'for this many seconds a body walks to a remembered place of that age, while its attention is on another',
  ),
} as const satisfies Record<keyof RunFindingLimits, Limit>;

/** The limits of a project: what it says, else what is usual. */
export function limitsOf(document: RunFindingsDocument = {}): RunFindingLimits {
  const usual = Object.fromEntries(
    Object.entries(RUN_FINDING_FIELDS).map(([name, spec]) => [name, spec.usual]),
  );
  return { ...usual, ...document } as RunFindingLimits;
}
