import { mindsOf } from '../model/kinds.ts';
import type { ScopeKey } from '../expression/scope.ts';
import type {
  CadenceProgram,
  KeyProgram,
  MachineProgram,
  MindProgram,
  SharedKeysProgram,
  StackProgram,
} from '../mind/program.ts';
import type { MindDocument } from '../model/documents.ts';
import type { MindScope } from './compile-actions.ts';
import { compileActivity } from './compile-activity.ts';
import { compileMachine } from './compile-machine.ts';
import { candidateKeys, withCandidates } from './candidate-keys.ts';
import { compileKeys, memoryOf } from './compile-memory.ts';
import { checkUncalledChoice, checkUncalledTree } from './compile-tree.ts';
import { internText, ticks, type CompileContext } from './context.ts';
import { namesOf } from '../model/names/names.ts';

/** The keys that squads and the world hold, for all minds of the project. */
export interface SharedKeys {
  squad: SharedKeysProgram;
  world: SharedKeysProgram;
}

export function compileSharedKeys(context: CompileContext): SharedKeys {
  const minds = namesOf(context.document.minds);
  return {
    squad: compileKeys(minds, 'squad', context),
    world: compileKeys(minds, 'world', context),
  };
}

function stackKeys(
  minds: readonly string[],
  shared: SharedKeys,
  context: CompileContext,
): { keys: KeyProgram[]; slots: number } {
  const own = compileKeys(minds, 'self', context);
  const declared = new Set(minds.flatMap((mind) => namesOf(memoryOf(context.document, mind))));
  const others = [...shared.squad.keys, ...shared.world.keys];
  const ownNames = new Set(own.keys.map(({ name }) => name));
  for (const { name, scope } of others) {
    if (!ownNames.has(name) || !declared.has(name)) continue;
    context.findings.error(
      'conflict',
      `minds.${minds[minds.length - 1]}.memory.${name}`,
      `“${name}” is the agent’s own in one mind and the ${scope}’s in another. Give one of them another name.`,
    );
  }
  const used = others.filter(({ name }) => declared.has(name) && !ownNames.has(name));
  return { keys: [...own.keys, ...used], slots: own.slots };
}

function scopeOf(mind: string, keys: readonly KeyProgram[], context: CompileContext): MindScope {
  const memory = memoryOf(context.document, mind);
  return {
    context,
    mind,
    document: context.document.minds[mind],
    keys: new Map(
      keys.flatMap((key, index): [string, ScopeKey][] => {
        if (!Object.hasOwn(memory, key.name)) return [];
        const { scope, slot, type } = key;
        return [[key.name, { index, scope, slot, type, unit: memory[key.name].unit }]];
      }),
    ),
    onGround: context.onGround,
    inTexts: context.inTexts,
    view: context.view,
    isDirector: context.directing.has(mind),
    bands: context.document.bands ?? {},
    called: new Set(),
    candidates: candidateKeys(mind, keys),
    internText: (text) => internText(context, text),
    bodies: context.kinds
      .filter(({ archetype }) => mindsOf(archetype).includes(mind))
      .map(({ name, agent, archetype }) => ({
        archetype: agent ?? name,
        gaits: namesOf(archetype.gaits),
        moves: namesOf(archetype.moves ?? {}),
        guards: namesOf(archetype.guards ?? {}),
      })),
  };
}

/** The names that the expressions and actions of a mind may use, in agents that have `minds`. */
export function mindScope(
  mind: string,
  context: CompileContext,
  minds: readonly string[] = [mind],
): MindScope {
  const declared = stackKeys(minds, compileSharedKeys(context), context);
  return scopeOf(mind, withCandidates(minds, declared, context).keys, context);
}

function compileCadence({ cadence }: MindDocument, context: CompileContext): CadenceProgram {
  if (!cadence) return { kind: 'tick' };
  if ('on' in cadence) return { kind: 'event' };
  return { kind: 'interval', ticks: Math.max(1, ticks(context, cadence.every)) };
}

/** A mind that is one activity, as a machine of one state. */
function machineOfActivity(mind: MindDocument, path: string, scope: MindScope): MachineProgram {
  const activity = compileActivity(scope, mind.activity!, `${path}.activity`, true);
  return {
    states: [
      {
        id: 'always',
        title: mind.title,
        kind: 'atomic',
        parent: -1,
        children: [],
        initial: -1,
        entry: [],
        exit: [],
        activity,
        transitions: [],
        attention: null,
      },
    ],
    transitions: [],
    initial: 0,
  };
}

function compileMind(
  name: string,
  keys: readonly KeyProgram[],
  context: CompileContext,
): MindProgram {
  const mind = context.document.minds[name];
  const path = `minds.${name}`;
  const scope = scopeOf(name, keys, context);
  const machine = mind.machine
    ? compileMachine(mind.machine, `${path}.machine`, scope)
    : machineOfActivity(mind, path, scope);
  for (const tree of namesOf(mind.trees ?? {}))
    if (!scope.called.has(tree)) checkUncalledTree(scope, tree);
  for (const choice of namesOf(mind.choices ?? {}))
    if (!scope.called.has(`?${choice}`)) checkUncalledChoice(scope, choice);
  return { name, title: mind.title, cadence: compileCadence(mind, context), machine };
}

/** Compiles the minds that run beside each other in one kind of agent, over the memory they share. */
export function compileStack(
  minds: readonly string[],
  shared: SharedKeys,
  context: CompileContext,
): StackProgram {
  const declared = stackKeys(minds, shared, context);
  const { keys, slots } = withCandidates(minds, declared, context);
  return { minds: minds.map((mind) => compileMind(mind, keys, context)), keys, slots };
}
