import type { Finding, ProjectDocument, StateDocument } from '@crooked-lantern/core';

/** Id of the innermost state that a path leads into, by the numbers of its states; null where it leads into none. */
function stateOf(path: string, states: readonly StateDocument[]): string | null {
  let inner = states;
  let id: string | null = null;
  for (const [, index] of path.matchAll(/\bstates\[(\d+)\]/g)) {
    const state = inner[Number(index)];
    if (!state) break;
    id = state.id;
    inner = state.states ?? [];
  }
  return id;
}

/** The sheet beside the states on which a part of a mind is edited; null for what states hold. */
function sheetOf(kind: string, named: string): string | null {
  if (kind === 'memory') return 'memory';
  if (kind === 'trees' || kind === 'rules') return `${kind}.${named.replace(/\[.*/, '')}`;
  return kind === '' || kind === 'cadence' || kind.startsWith('channels') ? 'mind' : null;
}

/** Where in a project a finding is seen and mended: the place, what is chosen there, and the agent that is watched. */
export function addressOf(
  { path }: Pick<Finding, 'path'>,
  document: ProjectDocument,
  id: string,
  search = '',
): string {
  const base = `/projects/${id}`;
  const [part, first = '', kind = '', named = '', ...rest] = path.split('.');
  const kept = new URLSearchParams(search);
  const to = (where: string, change: Record<string, string | null> = {}) => {
    for (const [key, value] of Object.entries(change)) {
      if (value === null) kept.delete(key);
      else kept.set(key, value);
    }
    const query = kept.toString();
    return `${base}/${where}${query && `?${query}`}`;
  };
  if (part.startsWith('tiers'))
    return to('weigh', { tiers: 'all', bands: null, option: null, cell: null });
  switch (part) {
    case 'bands':
      return to('weigh', { bands: first, option: null, cell: null });
    case 'minds': {
      if (kind === 'choices') {
        const choice = named.replace(/\[.*/, '');
        const [, at] = /\boptions\[(\d+)\]/.exec(path) ?? [];
        const [, cell] = /\bconsiderations\[(\d+)\]/.exec(path) ?? [];
        const option = document.minds[first]?.choices?.[choice]?.options[Number(at)];
        return to(`weigh/${first}/${choice}`, {
          option: option?.id ?? null,
          cell: cell ?? null,
          bands: null,
          state: null,
          sheet: null,
        });
      }
      const machine = document.minds[first]?.machine;
      return to(`minds/${first}`, {
        state: machine ? stateOf(path, machine.states) : null,
        sheet: sheetOf(kind, named),
      });
    }
    case 'archetypes':
    case 'squads':
    case 'factions':
    case 'setups':
    case 'players':
      return to(`cast/${part}${first && `/${first}`}`);
    case 'grounds': {
      const wall = /^walls\[(\d+)\]/.exec(kind);
      if (wall) return to('ground', { part: `walls:${wall[1]}` });
      if (kind === 'agents' && rest[0] === 'overrides') return to(`cast/agents/${named}`);
      return to('ground', { part: named ? `${kind}:${named.replace(/\[.*/, '')}` : null });
    }
    case 'start':
      return to('cast');
    default:
      return to('minds');
  }
}
