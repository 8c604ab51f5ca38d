import { AWAY, type FighterPicture, type Program } from '@crooked-lantern/core';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useDoing } from '../ledger/use-doing.ts';
import { bodyAt } from './drawing/bodies.ts';

const PHASE_WORDS = { windUp: 'winds up', active: 'strikes with', recovery: 'recovers from' };

/** What an agent does in a fight: “winds up Sweep, health 0.62”. */
function fightWords(program: Program, { agent, move, guard, health, staggered }: FighterPicture) {
  const { moves, guards } = program.archetypes[program.agents[agent].archetype];
  const title = moves.find(({ name }) => name === move?.name)?.title;
  return [
    ...(move ? [`${PHASE_WORDS[move.phase]} ${title ?? move.name}`] : []),
    ...(guard >= 0 ? [`holds ${guards[guard].title}`] : []),
    ...(staggered ? ['staggered'] : []),
    ...(health === null ? [] : [`health ${health.toFixed(2)}`]),
  ]
    .map((words) => `, ${words}`)
    .join('');
}

/** The ground's contents as a list, for users who can't see the drawing: as they are, once a second while time runs. */
export function AgentList() {
  const engine = useEngine();
  useEngineValue(({ frame, program }) =>
    frame?.playing && program
      ? `second ${Math.floor(frame.tick / program.ticksPerSecond)}`
      : `tick ${frame?.tick}`,
  );
  const { frame, program } = engine;
  const doing = useDoing(program);
  if (!frame || !program) return null;
  return (
    <ul className="visually-hidden" aria-label="On the ground">
      {program.agents.map((placed, index) => {
        const { x, y, awareness, posture } = bodyAt(frame, index);
        if (posture === AWAY) return null;
        const does = doing(placed.name, frame.tick).join(', ');
        const fighter = frame.fights?.fighters.find(({ agent }) => agent === index);
        return (
          <li key={placed.name}>
            {placed.title} at {x.toFixed(1)}, {y.toFixed(1)} m{does ? `, ${does}` : ''}
            {awareness > 0 ? `, awareness ${awareness.toFixed(2)}` : ''}
            {fighter ? fightWords(program, fighter) : ''}
          </li>
        );
      })}
    </ul>
  );
}
