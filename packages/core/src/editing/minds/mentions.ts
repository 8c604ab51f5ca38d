import { namesIn } from '../../expression/names-in.ts';
import type { Span } from '../../expression/ir.ts';
import type { DocumentPath, MindPart } from '../commands/commands.ts';
import type { MindDocument, Name, ProjectDocument } from '../../model/documents.ts';
import { mindsOf } from '../../model/kinds.ts';
import {
  RAISED_BY_ENDS,
  RAISED_BY_SENSES,
  raisedByModes,
  raisedForDirector,
  SAYING_ACTIONS,
} from '../../model/raised-events.ts';
import { SENSE_KINDS, SENSES } from '../../terms/senses.ts';
import { namesOf } from '../../model/names/names.ts';
import { mapMind, type NameKind, type Visitor, type Where } from '../../model/minds/walk-mind.ts';

/** Who uses what a mind declares, and which minds are meant by one name. */

export interface Mention {
  path: DocumentPath;
  how: 'reads' | 'writes' | 'uses';
  /** Where in the text, in characters, for a name within an expression. */
  at?: Span;
}

/** Which names refer to a part. */
const REFERS: Record<MindPart, readonly NameKind[]> = {
  states: ['state'],
  memory: ['key', 'list'],
  trees: ['tree'],
  rules: ['rules'],
  choices: ['choice'],
};

export function refersTo(part: MindPart, kind: NameKind): boolean {
  return REFERS[part].includes(kind);
}

/** Whether a name within an expression there means the mind's key: parameters of the tree, and what an option is weighed for, come first. */
export function meansKey(mind: MindDocument, name: Name, { tree, candidate }: Where): boolean {
  if (candidate === name) return false;
  const parameters = tree === null ? undefined : mind.trees?.[tree]?.parameters;
  return !Object.hasOwn(parameters ?? {}, name);
}

/** Goes through a mind without changing it. */
function look(mind: MindDocument, name: Name, see: Partial<SeeingVisitor>): void {
  const visit: Visitor = {
    expression: (source, where) => {
      see.expression?.(source, where);
      return source;
    },
    name: (kind, called, where) => {
      see.name?.(kind, called, where);
      return called;
    },
  };
  mapMind(mind, name, visit);
}

interface SeeingVisitor {
  expression(source: string, where: Where): void;
  name(kind: NameKind, name: string, where: Where): void;
}

/** Every place in one mind that refers to what it declares as `name`, in document order. */
export function mentionsOf(
  document: ProjectDocument,
  mindName: Name,
  part: MindPart,
  name: Name,
): Mention[] {
  const mind = document.minds[mindName];
  const found: Mention[] = [];
  look(mind, mindName, {
    expression: (source, where) => {
      if (part !== 'memory' || !meansKey(mind, name, where)) return;
      for (const { name: used, at } of namesIn(source))
        if (used === name) found.push({ path: where.path, how: 'reads', at });
    },
    name: (kind, used, where) => {
      if (!refersTo(part, kind) || used !== name) return;
      // Actions write keys by their names; whatever else names one, reads it.
      const how = where.action ? 'writes' : 'reads';
      found.push({ path: where.path, how: part === 'memory' ? how : 'uses' });
    },
  });
  return found;
}

/** An event that a mind may wait for, with who raises it. */
export interface KnownEvent {
  event: string;
  about: string;
}

/** Every event that anything raises for a mind: its own, those of other minds its agents have, what the senses raise, and what others say and do. */
export function eventsFor(document: ProjectDocument, mindName: Name): KnownEvent[] {
  const stacks = Object.values(document.archetypes).map(mindsOf);
  const beside = new Set([mindName, ...stacks.filter((stack) => stack.includes(mindName)).flat()]);
  const raisedBy = new Map<string, Set<string>>();
  const ground = Object.hasOwn(document.grounds, document.start.ground)
    ? document.grounds[document.start.ground]
    : undefined;
  const modes = new Set(ground?.schedule?.modes.map(({ mode }) => mode));
  const note = (event: string, by: string) => {
    if (!raisedBy.has(event)) raisedBy.set(event, new Set());
    raisedBy.get(event)!.add(by);
  };
  for (const name of namesOf(document.minds)) {
    const { title } = document.minds[name];
    look(document.minds[name], name, {
      name: (kind, called, { action }) => {
        const isHeard = beside.has(name) || action?.do === 'announce';
        if (kind === 'event' && action && isHeard) note(called, title);
        if (kind === 'mode') modes.add(called);
        const said = action && kind === 'word' ? SAYING_ACTIONS[action.do] : undefined;
        if (said) note(`${said.sense}.${called}`, title);
      },
    });
  }
  const own = [...raisedBy].map(([event, by]) => ({
    event,
    about: `raised by ${[...by].join(', ')}`,
  }));
  const known = [
    { event: 'done', about: 'what it does here has ended, or a final state inside was entered' },
    ...RAISED_BY_ENDS,
    ...own,
    ...SENSES.map((sense) => ({
      event: sense,
      about: `anything of ${SENSE_KINDS[sense].title.toLowerCase()}`,
    })),
    ...RAISED_BY_SENSES,
    ...raisedByModes([...modes]),
    ...(ground?.director === mindName
      ? raisedForDirector(
          namesOf(document.archetypes),
          namesOf(ground.waves ?? {}),
          namesOf(ground.zones ?? {}),
        )
      : []),
  ];
  return known.filter(({ event }, i) => known.findIndex((other) => other.event === event) === i);
}

/** Archetypes that have a mind, as their first or beside it. */
export function archetypesWithMind(document: ProjectDocument, mind: Name): Name[] {
  return namesOf(document.archetypes).filter((name) =>
    mindsOf(document.archetypes[name]).includes(mind),
  );
}

/**
 * The minds in which a key's name means the same key: those that run beside each other share what is the
 * agent's own, and all that declare a key of a squad or of the world share that.
 */
export function mindsSharingKey(document: ProjectDocument, mind: Name, key: Name): Name[] {
  const scopeIn = (name: Name) => {
    const declared = document.minds[name]?.memory?.[key];
    return declared && (declared.scope ?? 'self');
  };
  const scope = scopeIn(mind);
  const having = namesOf(document.minds).filter((name) => scopeIn(name) === scope);
  if (scope !== 'self') return having;
  const stacks = Object.values(document.archetypes).map(mindsOf);
  const shared = new Set([mind]);
  // What shares with one of them shares with all: repeats until none is added.
  for (let before = 0; before < shared.size;) {
    before = shared.size;
    for (const stack of stacks)
      if (stack.some((name) => shared.has(name)))
        for (const name of stack) if (having.includes(name)) shared.add(name);
  }
  return having.filter((name) => shared.has(name));
}
