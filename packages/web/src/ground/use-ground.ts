import { spaceOf, type GroundSpace, type Program, type WalkableArea } from '@crooked-lantern/core';
import { useMemo } from 'react';
import { useEngineValue } from '../engine/use-engine.tsx';

/** What follows from the running ground, worked out once for as long as it stays as it is. */

/** What is solid on it, with its gates as the frame has them. */
export function useSpace(program: Program | null): GroundSpace | null {
  const ground = program?.ground;
  const gates = useEngineValue(({ frame }) => frame?.gates.join('') ?? '');
  return useMemo(
    () => (ground ? spaceOf(ground, (gate) => gates[gate] !== '1') : null),
    [ground, gates],
  );
}

/** Where an agent’s body can be; null while it is not shown. */
export function useWalkable(
  program: Program | null,
  space: GroundSpace | null,
  agent: number,
  shown: boolean,
): WalkableArea | null {
  return useMemo(() => {
    const placed = program?.agents[agent];
    if (!shown || !space || !placed) return null;
    return space.walkable(program!.archetypes[placed.archetype].radius);
  }, [program, space, agent, shown]);
}
