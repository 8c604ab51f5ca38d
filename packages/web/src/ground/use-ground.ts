import {
  createWalkable,
  createWalls,
  islandsOf,
  wallBoxes,
  type Program,
  type Walkable,
  type Walls,
} from '@crooked-lantern/core';
import { useMemo } from 'react';
import { useEngineValue } from '../engine/use-engine.tsx';

/** What follows from the running ground, worked out once for as long as it stays as it is. */

/** Its walls, with its gates as the frame has them. */
export function useWalls(program: Program | null): Walls | null {
  const ground = program?.ground;
  const walls = useMemo(
    () => (ground ? createWalls(ground.width, ground.height, wallBoxes(ground)) : null),
    [ground],
  );
  const gates = useEngineValue(({ frame }) => frame?.gates.join('') ?? '');
  return useMemo(() => {
    if (!walls || !ground) return null;
    const standing = walls.standing.slice();
    [...gates].forEach((status, gate) => {
      standing[ground.walls.length + gate] = status === '1' ? 0 : 1;
    });
    return { ...walls, standing };
  }, [walls, ground, gates]);
}

/** Where an agent's body can be; null while it is not shown. */
export function useWalkable(
  program: Program | null,
  walls: Walls | null,
  agent: number,
  shown: boolean,
): { walkable: Walkable; islands: Int32Array } | null {
  return useMemo(() => {
    const placed = program?.agents[agent];
    if (!shown || !walls || !placed) return null;
    const walkable = createWalkable(walls, program!.archetypes[placed.archetype].radius);
    return { walkable, islands: islandsOf(walkable) };
  }, [program, walls, agent, shown]);
}
