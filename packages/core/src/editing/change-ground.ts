import type { GroundDocument, Name, ProjectDocument, WallDocument } from '../model/documents.ts';
import { withoutUndefined } from '../terms/without-undefined.ts';
import { CommandError, type GroundChange, type PartChange } from './commands/commands.ts';

/** Changes of a ground and of what stands on it. What refers to a part that is taken away goes with it. */

function groundOf(document: ProjectDocument, name: Name): GroundDocument {
  if (!Object.hasOwn(document.grounds, name))
    throw new CommandError(`There is no ground “${name}”.`);
  return document.grounds[name];
}

function withGround(
  document: ProjectDocument,
  name: Name,
  ground: GroundDocument,
): ProjectDocument {
  return { ...document, grounds: { ...document.grounds, [name]: ground } };
}

export function changeGround(
  document: ProjectDocument,
  name: Name,
  change: GroundChange,
): ProjectDocument {
  const ground = { ...groundOf(document, name), ...change };
  if (ground.light === undefined) delete ground.light;
  return withGround(document, name, ground);
}

/** Several parts at once, so that moving many is one step. */
export function changeParts(
  document: ProjectDocument,
  name: Name,
  changes: readonly PartChange[],
): ProjectDocument {
  const ground = JSON.parse(JSON.stringify(groundOf(document, name))) as GroundDocument;
  const walls: (WallDocument | null)[] = ground.walls;
  const gone = new Map<string, Set<Name>>();
  for (const change of changes) {
    if (change.part === 'walls') {
      const { index, value } = change;
      if (!Number.isInteger(index) || index < 0 || index > walls.length)
        throw new CommandError(`There is no wall ${index + 1}; there are ${walls.length}.`);
      walls[index] = value;
      continue;
    }
    const parts: Record<Name, unknown> = (ground[change.part] as Record<Name, unknown>) ?? {};
    if (change.value === null) {
      if (!Object.hasOwn(parts, change.name))
        throw new CommandError(`There is no “${change.name}” among the ${change.part}.`);
      delete parts[change.name];
      gone.set(change.part, (gone.get(change.part) ?? new Set()).add(change.name));
    } else parts[change.name] = change.value;
    Object.assign(ground, { [change.part]: parts });
  }
  ground.walls = walls.filter((wall) => wall !== null);
  dropReferences(ground, gone);
  dropEmpty(ground);
  const after = withGround(document, name, ground);
  const agents = gone.get('agents');
  return agents && document.start.ground === name ? withoutAgents(after, agents) : after;
}

/** Removes players and other starts of agents that the ground no longer has. */
function withoutAgents(document: ProjectDocument, gone: ReadonlySet<Name>): ProjectDocument {
  const start = { ...document.start };
  if (start.play !== undefined && gone.has(start.play)) delete start.play;
  if (!document.setups) return { ...document, start };
  const setups = Object.fromEntries(
    Object.entries(document.setups).map(([name, setup]) => {
      const { play, agents = {} } = setup;
      const left = Object.entries(agents).filter(([agent]) => !gone.has(agent));
      return [
        name,
        withoutUndefined({
          ...setup,
          play: play !== undefined && gone.has(play) ? undefined : play,
          agents: left.length > 0 ? Object.fromEntries(left) : undefined,
        }),
      ];
    }),
  );
  return { ...document, start, setups };
}

function dropReferences(ground: GroundDocument, gone: ReadonlyMap<string, Set<Name>>): void {
  for (const agent of Object.values(ground.agents)) {
    if (agent.route !== undefined && gone.get('routes')?.has(agent.route)) delete agent.route;
    if (agent.post !== undefined && gone.get('posts')?.has(agent.post)) delete agent.post;
  }
  for (const [plate, { opens }] of Object.entries(ground.plates ?? {}))
    if (gone.get('gates')?.has(opens)) delete ground.plates![plate];
}

/** Records that may be left out are, when nothing is in them. */
function dropEmpty(ground: GroundDocument): void {
  const optional = ['lamps', 'gates', 'plates', 'things', 'posts', 'spawns', 'zones'] as const;
  for (const part of optional)
    if (ground[part] && Object.keys(ground[part]).length === 0) delete ground[part];
}
