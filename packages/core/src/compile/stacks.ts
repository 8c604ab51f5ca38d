import type { StackProgram } from '../mind/program.ts';
import { mindsOf } from '../model/kinds.ts';
import type { ArchetypeDocument } from '../model/documents.ts';
import { compileStack, type SharedKeys } from './compile-mind.ts';
import { indexOfName, type CompileContext } from './context.ts';
import { namesOf } from '../model/names/names.ts';

/** The stacks of minds that agents may have, and those no archetype has, so that they are checked too. */
export interface Stacks {
  list: StackProgram[];
  of(minds: readonly string[]): number;
}

export function createStacks(shared: SharedKeys, context: CompileContext): Stacks {
  const list: StackProgram[] = [];
  const known = new Map<string, number>();
  return {
    list,
    of(minds) {
      const key = minds.join(' ');
      let index = known.get(key);
      if (index === undefined) {
        index = list.push(compileStack(minds, shared, context)) - 1;
        known.set(key, index);
      }
      return index;
    },
  };
}

/** An agent decides once with each of its minds. */
function checkTwice(
  { mind, minds = [] }: ArchetypeDocument,
  path: string,
  { document, findings }: CompileContext,
): void {
  for (const [i, name] of minds.entries()) {
    if (name !== mind && minds.indexOf(name) === i) continue;
    const title = Object.hasOwn(document.minds, name) ? document.minds[name].title : name;
    findings.error(
      'taken',
      `${path}.minds[${i}]`,
      `It has the mind “${title}” already. A mind decides once for each agent: remove it here, or name another.`,
    );
  }
}

export function stackOf(
  archetype: ArchetypeDocument,
  path: string,
  stacks: Stacks,
  context: CompileContext,
): number {
  const known = namesOf(context.document.minds);
  const minds = mindsOf(archetype).filter((mind) => {
    const at = mind === archetype.mind ? 'mind' : `minds[${archetype.minds!.indexOf(mind)}]`;
    return indexOfName(known, mind, `${path}.${at}`, 'mind', context) >= 0;
  });
  checkTwice(archetype, path, context);
  return minds.length === 0 ? -1 : stacks.of(minds);
}
