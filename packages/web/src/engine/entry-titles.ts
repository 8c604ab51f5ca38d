import {
  agentNamed,
  archetypeOf,
  type LedgerEntry,
  type Name,
  type ProjectDocument,
  type StateDocument,
} from '@crooked-lantern/core';

/** What people call the things that an entry of the ledger names; the name itself where it has no title, or is gone. */
export interface EntryTitles {
  agent(name: string): string;
  state(entry: LedgerEntry, id: string): string;
  choice(entry: LedgerEntry, name: string): string;
  option(entry: LedgerEntry, choice: string, id: string): string;
  move(entry: LedgerEntry, name: string): string;
  wave(name: string): string;
  score(name: string): string;
  thing(name: string): string;
  squad(name: string): string;
}

/** Where no document is at hand: agents by what `titles` calls them, all else by its name. */
export function onlyAgentTitles(titles: ReadonlyMap<string, string> = new Map()): EntryTitles {
  const byName = (name: string) => name;
  return {
    agent: (name) => titles.get(name) ?? name,
    state: (_, id) => id,
    choice: (_, name) => name,
    option: (_entry, _choice, id) => id,
    move: (_, name) => name,
    wave: byName,
    score: byName,
    thing: byName,
    squad: byName,
  };
}

const found = new WeakMap<ProjectDocument, EntryTitles>();

/** The titles of a document. Documents are never changed, so what was looked up in one is kept. */
export function entryTitles(document: ProjectDocument): EntryTitles {
  let titles = found.get(document);
  if (!titles) found.set(document, (titles = lookUp(document)));
  return titles;
}

/** By key; what `make` gave is kept. */
function keeping<V>(make: (key: string) => V): (key: string) => V {
  const kept = new Map<string, V>();
  return (key) => {
    if (!kept.has(key)) kept.set(key, make(key));
    return kept.get(key)!;
  };
}

function lookUp(document: ProjectDocument): EntryTitles {
  const { grounds, start, minds, archetypes, squads = {} } = document;
  const ground = grounds[start.ground];
  const titleIn = (record: Record<Name, { title?: string }> | undefined, name: string) =>
    (record && Object.hasOwn(record, name) ? record[name].title : undefined) ?? name;
  const agent = keeping((name) => agentNamed(document, name));
  const states = keeping((mind) => {
    const all = (of: readonly StateDocument[] = []): StateDocument[] =>
      of.flatMap((state) => [state, ...all(state.states)]);
    const machine = Object.hasOwn(minds, mind) ? minds[mind].machine : undefined;
    return new Map(all(machine?.states).map(({ id, title }) => [id, title ?? id]));
  });
  const moves = keeping((name) => {
    const placed = ground?.agents[name];
    const { archetype } = agent(name) ?? {};
    const body = placed ? archetypeOf(document, placed) : archetype && archetypes[archetype];
    return (body || undefined)?.moves;
  });
  const mindOf = (entry: LedgerEntry) => entry.mind ?? agent(entry.agent)?.minds[0] ?? '';
  const choicesOf = (entry: LedgerEntry) => {
    const mind = mindOf(entry);
    return Object.hasOwn(minds, mind) ? minds[mind].choices : undefined;
  };
  return {
    agent: (name) => agent(name)?.title ?? name,
    state: (entry, id) => states(mindOf(entry)).get(id) ?? id,
    choice: (entry, name) => titleIn(choicesOf(entry), name),
    option: (entry, choice, id) => {
      const options = choicesOf(entry)?.[choice]?.options ?? [];
      return options.find((option) => option.id === id)?.title ?? id;
    },
    move: (entry, name) => titleIn(moves(entry.agent), name),
    wave: (name) => titleIn(ground?.waves, name),
    score: (name) => titleIn(ground?.scores, name),
    thing: (name) => titleIn(ground?.things, name),
    squad: (name) => titleIn(squads, name),
  };
}
