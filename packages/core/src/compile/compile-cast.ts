import { usualStance } from '../terms/stances.ts';
import { checkExpression, type CheckResult } from '../expression/check.ts';
import { partsOf, type Ir } from '../expression/ir.ts';
import type { ScopeKey } from '../expression/scope.ts';
import {
  CROUCHED_SEEN,
  CROUCH_SHARE,
  DEFAULT_BODY_HEIGHT,
  DEFAULT_CLEAR_POINTS,
  DEFAULT_STEADY,
  STANCES,
  type ArchetypeDocument,
  type GaitDocument,
  type RoleDocument,
} from '../model/documents.ts';
import { ARCHETYPE_FIELDS, IMPERFECTION_FIELDS } from '../model/documents/cast.ts';
import { numberOf } from '../model/schema/schema.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import { radians } from '../numeric/trigonometry.ts';
import type {
  ArchetypeProgram,
  RoleProgram,
  SightProgram,
  SquadProgram,
} from '../world/program/program.ts';
import type { SharedKeys } from './compile-mind.ts';
import { indexOfName, internText, ticks, type CompileContext } from './context.ts';
import { namesOf } from '../model/names/names.ts';
import { type Kind } from '../model/kinds.ts';
import { compileGuards, compileMoves } from './compile-moves.ts';
import { stackOf, type Stacks } from './stacks.ts';

/** Archetypes, factions and squads. */

function compileSight(
  archetype: ArchetypeDocument,
  path: string,
  context: CompileContext,
): SightProgram | null {
  const { sight } = archetype;
  if (!sight) return null;
  if (sight.curious > sight.certain) {
    context.findings.error(
      'parameter',
      `${path}.sight.curious`,
      `Curious (${sight.curious}) must not lie above certain (${sight.certain}).`,
    );
  }
  return {
    cones: sight.cones.map(({ range, halfAngle, gain }) => ({
      range,
      halfAngle: radians(halfAngle),
      gain,
    })),
    fade: sight.fade,
    graceTicks: ticks(context, sight.grace),
    curious: sight.curious,
    certain: sight.certain,
    forgetTicks: ticks(context, sight.forgetAfter),
    points: sight.points ?? DEFAULT_CLEAR_POINTS,
  };
}

/** What a gait is, whichever way it is written; null where the archetype has none of that name. */
function gaitOf(archetype: ArchetypeDocument, name: string): GaitDocument | null {
  if (!Object.hasOwn(archetype.gaits, name)) return null;
  const gait = archetype.gaits[name];
  return typeof gait === 'number' ? { speed: gait } : gait;
}

/** The factions of a project: those declared and those that archetypes name. */
export function factionsOf({ document, kinds }: CompileContext): string[] {
  const { factions = {} } = document;
  const named = kinds.map(({ archetype }) => archetype.faction);
  return namesOf(Object.fromEntries([...namesOf(factions), ...named].map((name) => [name, 0])));
}

/** How each faction stands to each other, row by row. */
export function compileStances(context: CompileContext, names: readonly string[]): number[] {
  const { factions = {} } = context.document;
  for (const name of namesOf(factions)) {
    for (const other of namesOf(factions[name].toward ?? {}))
      indexOfName(names, other, `factions.${name}.toward.${other}`, 'faction', context);
  }
  return names.flatMap((name) => {
    const toward = Object.hasOwn(factions, name) ? (factions[name].toward ?? {}) : {};
    return names.map((other) => {
      const said = Object.hasOwn(toward, other) ? toward[other] : undefined;
      return STANCES.indexOf(said ?? usualStance(name, other));
    });
  });
}

/** Fields that a sense or a lantern must have as a whole, from the archetype or from the agent. */
const WHOLE = {
  sight: ['cones', 'fade', 'grace', 'curious', 'certain', 'forgetAfter'],
  hearing: ['threshold'],
  lantern: ['reach', 'strength'],
} as const;

/** What an agent makes of its archetype must be whole: what is not is said, and left out. */
function wholeParts({ name, path, archetype }: Kind, context: CompileContext): ArchetypeDocument {
  const whole = { ...archetype };
  for (const part of ['sight', 'hearing', 'lantern'] as const) {
    const fields: object | undefined = archetype[part];
    const missing = fields && WHOLE[part].filter((field) => !Object.hasOwn(fields, field));
    if (!missing || missing.length === 0) continue;
    context.findings.error(
      'structure',
      `${path}.${part}`,
      `“${name}” has no ${part}, so this one needs ${missing.map((field) => `“${field}”`).join(', ')} too.`,
    );
    delete whole[part];
  }
  return whole;
}

/** What is wrong with an archetype is said there, and not again by each agent that differs in something else. */
function onlyOwnFaults({ path, overrides }: Kind, context: CompileContext): CompileContext {
  if (!overrides) return context;
  const { findings } = context;
  const isOwn = (at: string) =>
    Object.keys(overrides).some((field) => at.slice(path.length + 1).split(/[.[]/)[0] === field);
  return {
    ...context,
    findings: {
      ...findings,
      error: (code, at, ...rest) => void (isOwn(at) && findings.error(code, at, ...rest)),
    },
  };
}

export function compileArchetype(
  kind: Kind,
  stacks: Stacks,
  factions: readonly string[],
  heard: CompileContext,
): ArchetypeProgram {
  const { name, path } = kind;
  const context = onlyOwnFaults(kind, heard);
  const archetype = wholeParts(kind, context);
  const { radius, acceleration, turnRate, height = DEFAULT_BODY_HEIGHT } = archetype.body;
  if (!gaitOf(archetype, archetype.gait)) {
    context.findings.error(
      'unknownName',
      `${path}.gait`,
      `“${name}” has no gait “${archetype.gait}”.${suggestion(archetype.gait, namesOf(archetype.gaits))}`,
    );
  }
  const gaits = context.gaits.map((gait) => gaitOf(archetype, gait));
  const crouched = gaits.map((gait) => gait?.crouched ?? false);
  return {
    name,
    path,
    title: archetype.title,
    faction: archetype.faction,
    side: factions.indexOf(archetype.faction),
    stack: stackOf(archetype, path, stacks, context),
    reactionTicks: ticks(context, archetype.reaction ?? 0),
    aimError: radians(numberOf(archetype, 'aimError', IMPERFECTION_FIELDS.aimError)),
    obedience: numberOf(archetype, 'obedience', IMPERFECTION_FIELDS.obedience),
    radius,
    acceleration,
    turnRate: radians(turnRate),
    height,
    crouchHeight: archetype.body.crouchHeight ?? height * CROUCH_SHARE,
    speeds: gaits.map((gait) => gait?.speed ?? NaN),
    stepNoises: gaits.map((gait) => gait?.noise ?? 0),
    crouched,
    visibility: gaits.map((gait, i) => gait?.visibility ?? (crouched[i] ? CROUCHED_SEEN : 1)),
    gait: context.gaits.indexOf(archetype.gait),
    sight: compileSight(archetype, path, context),
    hearing: archetype.hearing ? { threshold: archetype.hearing.threshold } : null,
    lantern: archetype.lantern ? { ...archetype.lantern } : null,
    sleepDistance: archetype.sleepDistance ?? 0,
    carryingSpeed: numberOf(archetype, 'carryingSpeed', ARCHETYPE_FIELDS.carryingSpeed),
    callReach: numberOf(archetype, 'callReach', ARCHETYPE_FIELDS.callReach),
    health: archetype.health ?? NaN,
    respawnTicks: ticks(context, archetype.respawnDelay ?? 0),
    moves: compileMoves(archetype, path, context),
    guards: compileGuards(archetype, context),
  };
}

/** Whether a part of the expression is the age of a key. */
function asksAge(ir: Ir): boolean {
  return partsOf(ir).some((part) => part.op === 'call' && part.name === 'age(key)');
}

/** The score of a role: a number, from shared memory only, since it is looked at for every member, whatever its mind. */
export function checkScore(
  source: string,
  { squad, world }: SharedKeys,
  context: CompileContext,
): CheckResult {
  const keys = new Map(
    [...squad.keys, ...world.keys].map(({ name, scope, slot, type }): [string, ScopeKey] => [
      name,
      { index: -1, scope, slot, type },
    ]),
  );
  const names = {
    keys,
    onGround: context.onGround,
    view: context.view,
    internText: (text: string) => internText(context, text),
  };
  const result = checkExpression(source, names, { types: ['number'] });
  if (!result.ok || !asksAge(result.expression.ir)) return result;
  const message =
    'A score can’t ask for the age of a key: it is looked at for every member, whatever its mind.';
  return { ok: false, faults: [{ message, at: [0, source.length] }] };
}

function compileRole(
  document: RoleDocument,
  path: string,
  shared: SharedKeys,
  context: CompileContext,
): RoleProgram | null {
  const result = checkScore(document.score, shared, context);
  if (!result.ok) {
    for (const fault of result.faults) context.findings.fault(`${path}.score`, fault);
    return null;
  }
  return {
    role: internText(context, document.role),
    title: document.title ?? document.role,
    slots: document.slots ?? 0,
    score: result.expression,
    commitment: document.commitment ?? DEFAULT_STEADY,
  };
}

export function compileSquads(shared: SharedKeys, context: CompileContext): SquadProgram[] {
  const { squads = {} } = context.document;
  return namesOf(squads).map((name) => {
    const { title, reach, delay, roles = [] } = squads[name];
    return {
      name,
      title,
      reach: reach ?? -1,
      delayTicks: ticks(context, delay ?? 0),
      roles: roles.flatMap(
        (role, i) => compileRole(role, `squads.${name}.roles[${i}]`, shared, context) ?? [],
      ),
    };
  });
}
