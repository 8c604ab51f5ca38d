import type { HitResult } from '../../terms/fighting.ts';
import type { Reason } from '../../terms/reasons.ts';
import type { Ending } from '../../mind/host.ts';
import type { End } from '../../mind/memory.ts';
import type { ResultName, Sense } from '../../model/documents.ts';
import type { SightChange } from '../../senses/sight.ts';
import type { Input } from '../program/program.ts';

/** What the ledger keeps: names instead of indices, so that entries outlive the edit they were made under. */
export type LedgerEntry = {
  tick: number;
  agent: string;
  /** Which of its minds, where it has several and this is not the first. */
  mind?: string;
} & (
  | { kind: 'enter'; state: string }
  | { kind: 'exit'; state: string }
  | {
      kind: 'transition';
      from: string;
      order: number;
      to: string | null;
      on?: string;
      when?: string;
      values?: Reading[];
    }
  /** Without a row: what the state does as a whole. */
  | { kind: 'begin'; state: string; action: string; row?: number }
  | {
      kind: 'end';
      state: string;
      action: string;
      row?: number;
      ending: Ending;
      /** Why it failed, where that is known. */
      reason?: Reason;
    }
  | { kind: 'did'; action: string }
  /** A choice has turned to another option, or to nothing. */
  | {
      kind: 'picked';
      state: string;
      row: number;
      choice: string;
      /** Null where nothing was worth doing. */
      option: string | null;
      /** The option’s candidate, where it has one. */
      of?: string;
      score: number;
      /** The option that came next, and by how much it was behind. */
      next?: string;
      margin?: number;
      /** How many scored the same, where it was a toss. */
      ties?: number;
    }
  | { kind: 'fired'; state: string; row: number }
  /** An action of rules whose channel a row above it uses. */
  | { kind: 'overruled'; state: string; row: number; action: string; by: number }
  /** A decision that was due, and those after it, while an uninterrupted action runs. */
  | { kind: 'skipped'; action: string }
  | {
      kind: 'percept';
      sense: Sense;
      /** A threshold of sight crossed, or what was heard, found or told. */
      how: SightChange | (string & {});
      /** The agent or thing, where the sense tells; else empty. */
      of: string;
      x: number;
      y: number;
      strength: number;
    }
  | { kind: 'awareness'; value: number }
  | { kind: 'memory'; key: string; value: string }
  /** A key was to be written, and what was to be written was nothing: it keeps what it had. */
  | { kind: 'kept'; key: string }
  /** `of`: the squad, or `world`, where it is shared memory. */
  | { kind: 'forgot'; key: string; of?: string }
  /** A number that changes by itself has come to an end of what it can be. */
  | { kind: 'reached'; key: string; end: End; value: number; of?: string }
  /** Another agent had written the same key in the same tick. */
  | { kind: 'overwrote'; key: string; of: string }
  | { kind: 'say'; text: string }
  | {
      kind: 'input';
      x: number;
      y: number;
      gait: string | null;
      act?: Input['act'];
      at?: Input['at'];
      move?: Input['move'];
      place?: Input['place'];
      control?: Input['control'];
      /** Why what was to be done could not be. */
      trouble?: Reason;
    }
  | { kind: 'noise'; what: string; x: number; y: number; reach: number }
  /** Points of health taken, and what is left; `by` is empty where no agent did it. */
  | { kind: 'harm'; amount: number; left: number; by: string }
  | { kind: 'death'; by: string }
  /** A move has begun that lasts so many ticks; `of` is its target. */
  | { kind: 'move'; move: string; lasts: number; of?: string }
  | { kind: 'broken'; move: string; reason: Reason }
  /** A move has met an agent, or none. */
  | {
      kind: 'hit';
      move: string;
      of: string;
      result: HitResult;
      harm: number;
      x: number;
      y: number;
      z: number;
      /** Metres that were missing. */
      missedBy?: number;
    }
  /** A move has knocked a thing away, to there. */
  | { kind: 'knocked'; move: string; thing: string; x: number; y: number }
  /** Every player is beyond its sleep distance: it senses and decides nothing until one is near again. */
  | { kind: 'sleeps' }
  | { kind: 'wakes' }
  /** It respawns. */
  | { kind: 'recycled'; x: number; y: number }
  | { kind: 'role'; role: string }
  | { kind: 'stuck'; x: number; y: number; reason: Reason }
  | { kind: 'cycle'; states: string[] }
  /** Events for which there was no room among those that wait for a mind. */
  | { kind: 'dropped'; events: number }
  | { kind: 'noWay'; x: number; y: number; reason: Reason }
  /** One has come to the ground with a wave, at a spawn place; or is taken off it. */
  | { kind: 'came'; wave: string; at: string; x: number; y: number }
  | { kind: 'left' }
  /** `times` is how often it has come; `reason` why no due agent comes. */
  | { kind: 'wave'; wave: string; how: WaveChange; times: number; reason?: Reason }
  /** A mode begins, for this many seconds if it ends by itself; `laidOver` where it is not the schedule’s. */
  | { kind: 'mode'; mode: string; seconds?: number; laidOver?: true }
  | { kind: 'score'; score: string; by: number; value: number }
  /** An event for all, or for those with a name. */
  | { kind: 'announced'; event: string; to: string }
  /** The run has ended. */
  | { kind: 'result'; how: ResultName; words: string }
  | { kind: 'edit'; edit: number }
  | { kind: 'moved'; from: string; to: string }
);

/** What has become of a wave. */
export type WaveChange = 'comes' | 'held' | 'over' | 'calledOff';

/** The ledger's awareness line moves in steps this large. */
export const AWARENESS_STEP = 1 / 16;

/** One part of a guard and what it was worth. */
export interface Reading {
  part: string;
  value: string;
}

/** Takes in what happens, entry by entry, in the order in which it happens. */
export type Recorder = (entry: LedgerEntry) => void;
