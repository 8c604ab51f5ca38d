import { builtinsNamed, BUILTINS } from '../expression/builtins.ts';
import type { ScopeKey } from '../expression/scope.ts';
import type { KeyProgram, MindProgram } from '../mind/program.ts';
import type { MemoryKeyDocument, MindDocument } from '../model/documents.ts';
import type { MindScope } from './compile-actions.ts';
import { compileMachine } from './compile-machine.ts';
import { internText, namesOf, ticks, type CompileContext } from './context.ts';

function defaultOf(document: MemoryKeyDocument, path: string, context: CompileContext): number {
  const { type, default: given } = document;
  const wrong = (what: string) => {
    context.findings.error(
      'parameter',
      `${path}.default`,
      `The default of a key of type ${type} ${what}.`,
    );
    return 0;
  };
  if (given === undefined) {
    if (type === 'flag') return 0;
    return type === 'number' || type === 'point' ? NaN : -1;
  }
  if (type === 'number') return typeof given === 'number' ? given : wrong('must be a number');
  if (type === 'flag')
    return typeof given === 'boolean' ? Number(given) : wrong('must be true or false');
  if (type === 'text')
    return typeof given === 'string' ? internText(context, given) : wrong('must be a text');
  return wrong('can’t be given: it starts as nothing');
}

function compileKeys(
  mind: MindDocument,
  path: string,
  context: CompileContext,
): { keys: KeyProgram[]; slots: number } {
  let slots = 0;
  const keys = namesOf(mind.memory ?? {}).map((name): KeyProgram => {
    const document = mind.memory![name];
    const at = `${path}.memory.${name}`;
    const roots = BUILTINS.map((builtin) => builtin.name.split('.')[0]);
    if (builtinsNamed(name).length > 0 || roots.includes(name)) {
      context.findings.error(
        'taken',
        at,
        `“${name}” is a name of the expression language. Give the key another.`,
      );
    }
    if (document.unit !== undefined && document.type !== 'number') {
      context.findings.error(
        'parameter',
        `${at}.unit`,
        `Only numbers have a unit; this key is of type ${document.type}.`,
      );
    }
    const slot = slots;
    slots += document.type === 'point' ? 2 : 1;
    const forgetAfter =
      document.forgetAfter === undefined ? 0 : Math.max(1, ticks(context, document.forgetAfter));
    return {
      name,
      type: document.type,
      slot,
      initial: defaultOf(document, at, context),
      forgetAfter,
    };
  });
  return { keys, slots };
}

function scopeOf(name: string, keys: readonly KeyProgram[], context: CompileContext): MindScope {
  const { archetypes, minds } = context.document;
  const memory = minds[name].memory ?? {};
  return {
    context,
    keys: new Map(
      keys.map((key, index): [string, ScopeKey] => [
        key.name,
        { index, slot: key.slot, type: key.type, unit: memory[key.name].unit },
      ]),
    ),
    routes: context.routes,
    internText: (text) => internText(context, text),
    bodies: namesOf(archetypes)
      .filter((archetype) => archetypes[archetype].mind === name)
      .map((archetype) => ({ archetype, gaits: namesOf(archetypes[archetype].gaits) })),
  };
}

/** The names that the expressions and actions of a mind may use. */
export function mindScope(name: string, context: CompileContext): MindScope {
  return scopeOf(
    name,
    compileKeys(context.document.minds[name], `minds.${name}`, context).keys,
    context,
  );
}

export function compileMind(name: string, context: CompileContext): MindProgram {
  const mind = context.document.minds[name];
  const path = `minds.${name}`;
  const { keys, slots } = compileKeys(mind, path, context);
  const machine = compileMachine(mind.machine, `${path}.machine`, scopeOf(name, keys, context));
  return { name, title: mind.title, keys, slots, machine };
}
