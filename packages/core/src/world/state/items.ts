import type { Program } from '../program/program.ts';
import type { WorldChange } from './world-run.ts';

/** What can be found on a ground, numbered: bodies, things, gates, things in flight, in this order. */

export function itemCount({ agents, ground }: Program): number {
  return agents.length + 2 * ground.things.length + ground.gates.length;
}

/** Items of a program by name, so that they can be found again under another. */
function itemNames({ agents, ground }: Program): string[] {
  const named = (what: string, list: readonly { name: string }[]) =>
    list.map(({ name }) => `${what} ${name}`);
  return [
    ...named('body', agents),
    ...named('thing', ground.things),
    ...named('gate', ground.gates),
    ...named('flight', ground.things),
  ];
}

function finderNames({ squads, agents }: Program): string[] {
  return [
    ...squads.map(({ name }) => `squad ${name}`),
    ...agents.map(({ name }) => `agent ${name}`),
  ];
}

/** What has been found stays found, by the names of who found what. */
export function carryFound(found: Uint8Array[], { from, to }: WorldChange): Uint8Array[] {
  const [before, after] = [from.statics.program, to.statics.program];
  const items = new Map(itemNames(before).map((name, item) => [name, item]));
  const finders = new Map(finderNames(before).map((name, finder) => [name, finder]));
  const now = itemNames(after);
  return finderNames(after).map((finder) => {
    const was = found[finders.get(finder) ?? -1];
    return Uint8Array.from(now, (item) => was?.[items.get(item) ?? -1] ?? 0);
  });
}
