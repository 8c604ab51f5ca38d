import { BUILTINS, builtinsNamed } from '../expression/builtins.ts';
import { keyWidth } from '../mind/memory.ts';
import type { KeyProgram, SharedKeysProgram } from '../mind/program.ts';
import {
  DEFAULT_LIST_LENGTH,
  type MemoryKeyDocument,
  type MemoryScope,
  type ProjectDocument,
} from '../model/documents.ts';
import { internText, ticks, type CompileContext } from './context.ts';
import { namesOf } from '../model/names/names.ts';

/** Memory keys: each gets its place among the cells of the agent, its squad or the world. */

const BUILTIN_ROOTS = new Set(BUILTINS.map((builtin) => builtin.name.split('.')[0]));

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
    return ['agent', 'thing', 'text'].includes(type) ? -1 : NaN;
  }
  if (type === 'number') return typeof given === 'number' ? given : wrong('must be a number');
  if (type === 'flag')
    return typeof given === 'boolean' ? Number(given) : wrong('must be true or false');
  if (type === 'text')
    return typeof given === 'string' ? internText(context, given) : wrong('must be a text');
  return wrong('can’t be given: it starts as nothing');
}

function checkKey(
  name: string,
  document: MemoryKeyDocument,
  path: string,
  context: CompileContext,
): void {
  const { findings } = context;
  if (builtinsNamed(name).length > 0 || BUILTIN_ROOTS.has(name)) {
    findings.error(
      'taken',
      path,
      `“${name}” is a name of the expression language. Give the key another.`,
    );
  }
  if (document.unit !== undefined && !document.type.endsWith('number')) {
    findings.error(
      'parameter',
      `${path}.unit`,
      `Only numbers have a unit; this key is of type ${document.type}.`,
    );
  }
  checkNumbers(name, document, path, context);
  if (document.capacity !== undefined && !document.type.startsWith('list')) {
    findings.error(
      'parameter',
      `${path}.capacity`,
      `Only lists have “capacity”; this key is of type ${document.type}.`,
    );
  }
}

/** The fields that only numbers have. */
const OF_NUMBERS = ['rate', 'min', 'max'] as const;

/** A number that changes by itself has somewhere to begin, and bounds in their order. */
function checkNumbers(
  name: string,
  document: MemoryKeyDocument,
  path: string,
  { findings }: CompileContext,
): void {
  const { type, rate, min = -Infinity, max = Infinity, default: initial } = document;
  const wrong = (field: string, message: string) =>
    findings.error('parameter', `${path}.${field}`, message);
  if (type !== 'number') {
    for (const field of OF_NUMBERS)
      if (document[field] !== undefined)
        wrong(field, `Only a number has “${field}”; this key is of type ${type}.`);
    return;
  }
  if (min > max)
    return wrong(
      'min',
      `The minimum of “${name}” (${min}) is above its maximum (${max}). Swap the two.`,
    );
  if (rate !== undefined && initial === undefined)
    wrong(
      'rate',
      `“${name}” changes by itself, but begins as nothing. Say what it holds at first.`,
    );
  if (typeof initial === 'number' && (initial < min || initial > max))
    wrong(
      'default',
      `“${name}” begins with ${initial}, which is not between its minimum and its maximum.`,
    );
}

function scopeOf(document: MemoryKeyDocument): MemoryScope {
  return document.scope ?? 'self';
}

/** What of a declaration must be the same wherever the key is shared. */
function meaning(document: MemoryKeyDocument): string {
  const fields = Object.entries(document).filter(([field]) => field !== 'note');
  return JSON.stringify(fields.sort());
}

/**
 * The keys of one scope that these minds declare, each name once, beginning at cell 0 of the scope. A
 * name must mean the same in all of them.
 */
export function compileKeys(
  minds: readonly string[],
  scope: MemoryScope,
  context: CompileContext,
): SharedKeysProgram {
  const { document, findings } = context;
  const first = new Map<string, { mind: string; document: MemoryKeyDocument }>();
  const keys: KeyProgram[] = [];
  let slots = 0;
  for (const mind of minds) {
    const memory = memoryOf(document, mind);
    for (const name of namesOf(memory)) {
      const declared = memory[name];
      if (scopeOf(declared) !== scope) continue;
      const path = `minds.${mind}.memory.${name}`;
      const other = first.get(name);
      if (other) {
        if (meaning(other.document) !== meaning(declared)) {
          findings.error(
            'conflict',
            path,
            `“${name}” is shared with “${document.minds[other.mind].title}”, which declares it otherwise. Make the two the same, or give one another name.`,
          );
        }
        continue;
      }
      first.set(name, { mind, document: declared });
      checkKey(name, declared, path, context);
      const key = compileKey(name, declared, path, slots, context);
      slots = key.stamp + 1;
      keys.push(key);
    }
  }
  return { keys, slots };
}

function compileKey(
  name: string,
  document: MemoryKeyDocument,
  path: string,
  slot: number,
  context: CompileContext,
): KeyProgram {
  const { type, forgetAfter, rate = 0, min = -Infinity, max = Infinity } = document;
  const capacity = type.startsWith('list') ? (document.capacity ?? DEFAULT_LIST_LENGTH) : 0;
  return {
    name,
    type,
    scope: scopeOf(document),
    slot,
    stamp: slot + keyWidth(type, capacity),
    initial: defaultOf(document, path, context),
    forgetAfter: forgetAfter === undefined ? 0 : Math.max(1, ticks(context, forgetAfter)),
    capacity,
    rate: rate / context.ticksPerSecond,
    min,
    max,
  };
}

export function memoryOf(
  document: ProjectDocument,
  mind: string,
): Record<string, MemoryKeyDocument> {
  return document.minds[mind].memory ?? {};
}
