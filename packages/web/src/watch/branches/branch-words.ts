import type { PartedBy } from '@crooked-lantern/core';
import type { BranchPicture } from '../../engine/protocol.ts';
import { clockText } from '../../ui/words/time.ts';

/** What branches are called, and how they came to be. */

const BY: Record<PartedBy, string> = {
  input: 'by other keys',
  edit: 'by an edit',
  restart: 'started again',
  seed: 'with another seed',
  setup: 'from another start',
  replay: 'the keys given again',
  tried: 'by a change that was tried',
};

export function branchTitle({ id, name }: Pick<BranchPicture, 'id' | 'name'>): string {
  return name ?? `Branch ${id}`;
}

/** “parted from Branch 1 at 0:12.50, by other keys”. */
export function originWords(
  { parted }: BranchPicture,
  all: readonly BranchPicture[],
  perSecond: number,
): string {
  if (!parted) return 'the first run';
  const { from, tick, by } = parted;
  const other = branchTitle(all.find(({ id }) => id === from) ?? { id: from, name: null });
  if (tick === 0) return `after ${other}, ${BY[by]}`;
  return `parted from ${other} at ${clockText(tick, perSecond, 2)}, ${BY[by]}`;
}
