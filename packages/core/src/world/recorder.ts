import type { Ending } from '../mind/host.ts';
import type { SightChange } from '../senses/sight.ts';

/** What the ledger keeps: names instead of indices, so that entries outlive the edit they were made under. */
export type LedgerEntry = { tick: number; agent: string } & (
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
  | { kind: 'begin'; state: string; action: string }
  | { kind: 'end'; state: string; action: string; ending: Ending }
  | {
      kind: 'percept';
      sense: 'sight';
      how: SightChange;
      of: string;
      x: number;
      y: number;
      strength: number;
    }
  | { kind: 'awareness'; value: number }
  | { kind: 'memory'; key: string; value: string }
  | { kind: 'forgot'; key: string }
  | { kind: 'say'; text: string }
  | { kind: 'input'; x: number; y: number; gait: string | null }
  | { kind: 'cycle'; states: string[] }
  | { kind: 'noWay'; x: number; y: number }
  | { kind: 'edit'; edit: number }
  | { kind: 'moved'; from: string; to: string }
);

/** One part of a guard and what it was worth. */
export interface Reading {
  part: string;
  value: string;
}

export type Recorder = (entry: LedgerEntry) => void;
