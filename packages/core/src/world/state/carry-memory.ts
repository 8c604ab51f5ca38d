import { addToKey, entryWidth, keyWidth, resetKey, writeKey } from '../../mind/memory.ts';
import type { KeyProgram } from '../../mind/program.ts';
import type { Renaming } from './renaming.ts';

/** Memory carried over to an edited program: by the names and types of keys. */

/** Cells of a memory and its keys, under one program. */
export interface Memory {
  keys: readonly KeyProgram[];
  cells: Float64Array;
}

/** What an entry of this type is under the edited program. */
function renamed(type: KeyProgram['type'], value: number, names: Renaming): number {
  if (type.endsWith('agent')) return names.agent(value);
  if (type === 'thing') return names.thing(value);
  return type.endsWith('text') ? names.text(value) : value;
}

/** An entry whose agent, thing or text is gone is left out. */
export function carryKeys(old: Memory, now: Memory, names: Renaming): void {
  for (const was of old.keys) {
    const key = now.keys.find(({ name, type }) => name === was.name && type === was.type);
    if (!key) continue;
    if (old.cells[was.stamp] < 0) {
      // What has changed by itself has no write, and is no less what it has come to.
      if (was.rate !== 0) {
        writeKey(now.cells, key, old.cells[was.slot], 0, 0);
        now.cells[key.stamp] = -1;
      }
      continue;
    }
    // Cells that no entry stands in are taken over too, so that an edit that changes nothing changes nothing.
    if (key.capacity === was.capacity) {
      const width = keyWidth(was.type, was.capacity);
      now.cells.set(old.cells.subarray(was.slot, was.slot + width), key.slot);
    }
    const written =
      was.capacity > 0
        ? carryList(was, old.cells, key, now.cells, names)
        : writeKey(
            now.cells,
            key,
            renamed(was.type, old.cells[was.slot], names),
            old.cells[was.slot + 1],
            0,
          );
    if (written) now.cells[key.stamp] = old.cells[was.stamp];
    else resetKey(now.cells, key);
  }
}

function carryList(
  was: KeyProgram,
  from: Float64Array,
  key: KeyProgram,
  to: Float64Array,
  names: Renaming,
): boolean {
  const width = entryWidth(was.type);
  to[key.slot] = 0;
  for (let i = 0; i < from[was.slot]; i++) {
    const at = was.slot + 1 + i * width;
    addToKey(to, key, renamed(was.type, from[at], names), from[at + 1], 0);
  }
  return true;
}
