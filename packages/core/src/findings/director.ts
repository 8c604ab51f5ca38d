import type { Findings } from '../compile/finding.ts';
import type { GroundSpace } from '../ground/ground.ts';
import { startingSpace } from '../world/program/space.ts';
import type { ProjectDocument } from '../model/documents.ts';
import { directingMinds } from '../model/groups.ts';
import { kindsOf, mindsOf } from '../model/kinds.ts';
import type { WaveProgram } from '../world/program/director-program.ts';
import type { Program } from '../world/program/program.ts';
import { allActions } from './walk.ts';

/** Checks of a ground's game: waves that can't come or come at once, minds that can't direct. */

/** A wave must have room for its bodies where it comes in. */
function checkRoom(
  wave: WaveProgram,
  program: Program,
  space: GroundSpace,
  findings: Findings,
): void {
  const { archetypes, agents, ground } = program;
  const archetype = archetypes[agents[wave.pool[0]]?.archetype];
  if (!archetype) return;
  for (const { title, x, y } of wave.spawns) {
    if (!space.isBlocked(x, y, archetype.radius)) continue;
    findings.warning(
      'place',
      `grounds.${ground.name}.waves.${wave.name}`,
      `There is no room for a “${archetype.title}” (radius ${archetype.radius} m) at “${title}”: it lies in a wall or a closed gate, or off the ground. Move it, or take it out of this wave.`,
    );
  }
}

/** An agent that comes again in the tick of its death leaves no time to see that it died. */
function checkDelay(wave: WaveProgram, { ground }: Program, findings: Findings): void {
  if (wave.times === 1 || wave.delayTicks > 0) return;
  findings.warning(
    'returnsAtOnce',
    `grounds.${ground.name}.waves.${wave.name}.delay`,
    `“${wave.title}” comes again without a delay: a killed agent is replaced in the same tick. Give it some seconds.`,
  );
}

/** A wave that waits for the director is brought by some action of its mind. */
function checkBrought(wave: WaveProgram, program: Program, findings: Findings): void {
  if (wave.starts !== 'director') return;
  const { director, agents, archetypes, stacks, ground } = program;
  const stack = stacks[archetypes[agents[director.agent]?.archetype]?.stack];
  const isBrought = stack?.minds
    .flatMap(allActions)
    .some(({ action, args }) => action === 'bring' && args.wave === wave.word);
  if (isBrought) return;
  findings.warning(
    'unused',
    `grounds.${ground.name}.waves.${wave.name}.starts`,
    stack
      ? `“${wave.title}” waits for the director, which never brings it. Add “bring” to its mind, or let it start with the run.`
      : `“${wave.title}” waits for a director, and the ground has none. Choose one, or let it start with the run.`,
  );
}

function checkWaves(program: Program, findings: Findings): void {
  const { waves } = program.director;
  if (waves.length === 0) return;
  const space = startingSpace(program.ground);
  for (const wave of waves) {
    checkRoom(wave, program, space, findings);
    checkDelay(wave, program, findings);
    checkBrought(wave, program, findings);
  }
}

export function checkDirector(
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  checkWaves(program, findings);
  const directing = directingMinds(document);
  for (const { path, archetype } of kindsOf(document)) {
    const mind = mindsOf(archetype).find((each) => directing.has(each));
    if (mind === undefined) continue;
    findings.warning(
      'conflict',
      path,
      `“${archetype.title}” has the mind “${document.minds[mind]?.title ?? mind}”, which directs a ground: a director has no body, and no body can do what it does. Give it another.`,
    );
  }
}
