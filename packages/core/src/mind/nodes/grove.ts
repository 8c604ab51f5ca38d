import type { CellLayout } from '../cells.ts';
import type { Choice } from './choice.ts';
import type { Leaf } from './leaf.ts';

/** What the leaves of one mind share. */
export interface Grove {
  layout: CellLayout;
  /** First of the cells that say who uses each channel. */
  channels: number;
  /** Cell that says that the next decision is more than a look at guards. */
  restlessAt: number;
  /** Cell that holds which uninterrupted action runs: its place in `locks` from 1, 0 for none. */
  lockAt: number;
  locks: Leaf[];
  /** Actions that last, by the first of their cells. */
  actions: Map<number, string>;
  /** Choices of the activity that is being made, by row. */
  choices: Map<number, Choice>;
  /** The state whose activity is being made. */
  state: number;
}
