import { namesIn, replaceNames } from '../../expression/names-in.ts';
import { CommandError, type MindPart } from '../commands/commands.ts';
import type { MindDocument, Name, ProjectDocument, StateDocument } from '../../model/documents.ts';
import { NAME_ABOUT, NAME_PATTERN } from '../../model/names/names.ts';
import type { BreakpointDocument, BreakpointKind } from '../../model/documents/run.ts';
import { agentNamed } from '../../model/groups.ts';
import { mindsOf } from '../../model/kinds.ts';
import { idsOf } from './change-machine.ts';
import { meansKey, mindsSharingKey, refersTo } from './mentions.ts';
import { mapMind, type Visitor } from '../../model/minds/walk-mind.ts';

/** Another name for what a mind declares, there and wherever it is used. Throws a {@link CommandError} where the name can't be had. */

const SINGULAR: Record<MindPart, string> = {
  states: 'state',
  memory: 'key',
  trees: 'tree',
  rules: 'set of rules',
  choices: 'choice',
};

/** Throws where a text can’t be a name. */
export function expectName(to: Name): void {
  if (!NAME_PATTERN.test(to))
    throw new CommandError(`“${to}” is not a usable name: it takes ${NAME_ABOUT}.`);
}

function declared(mind: MindDocument, part: MindPart): readonly Name[] {
  if (part === 'states') return (mind.machine?.states ?? []).flatMap(idsOf);
  return Object.keys(mind[part] ?? {});
}

/** An expression with another name for what it calls `from`. */
function renamedIn(source: string, from: Name, to: Name): string {
  return replaceNames(source, (used) => (used === from ? to : null));
}

function renameEntry<T>(
  record: Record<Name, T> | undefined,
  from: Name,
  to: Name,
): Record<Name, T> | undefined {
  return (
    record &&
    Object.fromEntries(
      Object.entries(record).map(([name, entry]) => [name === from ? to : name, entry]),
    )
  );
}

function renameStates(states: readonly StateDocument[], from: Name, to: Name): StateDocument[] {
  return states.map((state) => ({
    ...state,
    ...(state.id === from && { id: to }),
    ...(state.states && { states: renameStates(state.states, from, to) }),
  }));
}

/** A visitor that puts `to` wherever `from` is meant. */
function renaming(mind: MindDocument, part: MindPart, from: Name, to: Name): Visitor {
  return {
    name: (kind, name) => (refersTo(part, kind) && name === from ? to : name),
    expression: (source, where) =>
      part === 'memory' && meansKey(mind, from, where) ? renamedIn(source, from, to) : source,
  };
}

function renameIn(
  mind: MindDocument,
  name: Name,
  part: MindPart,
  from: Name,
  to: Name,
): MindDocument {
  const after = mapMind(mind, name, renaming(mind, part, from, to));
  if (part !== 'states') return { ...after, [part]: renameEntry(after[part] as never, from, to) };
  const { machine } = after;
  return { ...after, machine: { ...machine!, states: renameStates(machine!.states, from, to) } };
}

/** A tree's parameter that would hide the key under its new name. */
function hiddenBy(mind: MindDocument, to: Name): Name | undefined {
  const { trees = {} } = mind;
  return Object.keys(trees).find((tree) => Object.hasOwn(trees[tree].parameters ?? {}, to));
}

export function renameInMind(
  document: ProjectDocument,
  { mind, part, name, to }: { mind: Name; part: MindPart; name: Name; to: Name },
): ProjectDocument {
  expectName(to);
  if (!declared(document.minds[mind] ?? {}, part).includes(name))
    throw new CommandError(`“${mind}” has no ${SINGULAR[part]} “${name}”.`);
  const meant = part === 'memory' ? mindsSharingKey(document, mind, name) : [mind];
  const minds = { ...document.minds };
  for (const each of meant) {
    if (declared(minds[each], part).includes(to))
      throw new CommandError(
        `“${minds[each].title}” has a ${SINGULAR[part]} “${to}” already. Choose another name.`,
      );
    const hiding = part === 'memory' ? hiddenBy(minds[each], to) : undefined;
    if (hiding !== undefined)
      throw new CommandError(
        `The tree “${hiding}” has a parameter “${to}”, which would hide the key. Choose another name.`,
      );
    minds[each] = renameIn(minds[each], each, part, name, to);
  }
  if (part === 'memory') document = withBands(document, meant, name, to);
  document = withBreakpoints(document, meant, part, name, to);
  const shared =
    part === 'memory' && (document.minds[mind].memory![name].scope ?? 'self') !== 'self';
  return { ...document, minds, ...(shared && withScores(document, name, to)) };
}

/** Bands read keys of whichever mind asks: they follow where no other mind has a key of the old name. */
function withBands(
  document: ProjectDocument,
  renamed: readonly Name[],
  from: Name,
  to: Name,
): ProjectDocument {
  const { bands, minds } = document;
  const others = Object.keys(minds).filter((mind) => !renamed.includes(mind));
  if (!bands || others.some((mind) => Object.hasOwn(minds[mind].memory ?? {}, from)))
    return document;
  return {
    ...document,
    bands: eachValue(bands, (set) => ({
      ...set,
      input: renamedIn(set.input, from, to),
    })),
  };
}

/** Which kinds of breakpoints name a part of a mind first. */
const NAMED_FIRST: Partial<Record<MindPart, readonly BreakpointKind[]>> = {
  states: ['enter', 'exit', 'transition', 'ended'],
  choices: ['picked'],
  memory: ['memory'],
};

/** Breakpoints follow where they are of agents with a renamed mind; those of all agents where no other mind has that name. */
function withBreakpoints(
  document: ProjectDocument,
  renamed: readonly Name[],
  part: MindPart,
  from: Name,
  to: Name,
): ProjectDocument {
  const { breakpoints, minds, archetypes } = document;
  if (!breakpoints) return document;
  const isShared = Object.keys(minds).some(
    (mind) => !renamed.includes(mind) && declared(minds[mind], part).includes(from),
  );
  const isMeant = ({ agent, archetype }: BreakpointDocument): boolean => {
    const of = agent === undefined ? archetype : agentNamed(document, agent)?.archetype;
    const body = of === undefined || of === null ? undefined : archetypes[of];
    return body === undefined ? !isShared : mindsOf(body).some((mind) => renamed.includes(mind));
  };
  const after = eachValue(breakpoints, (breakpoint): BreakpointDocument => {
    if (!isMeant(breakpoint)) return breakpoint;
    const { on, of, when } = breakpoint;
    if (part === 'memory' && on === 'condition' && when !== undefined)
      return { ...breakpoint, when: renamedIn(when, from, to) };
    const [first, ...rest] = of?.split(':') ?? [];
    if (first !== from || !NAMED_FIRST[part]?.includes(on)) return breakpoint;
    return { ...breakpoint, of: [to, ...rest].join(':') };
  });
  return { ...document, breakpoints: after };
}

/** Scores of squads’ roles read what minds share. */
function withScores({ squads }: ProjectDocument, from: Name, to: Name): Partial<ProjectDocument> {
  if (!squads) return {};
  const entries = Object.entries(squads).map(([name, squad]) => {
    const roles = squad.roles?.map((role) => ({
      ...role,
      score: renamedIn(role.score, from, to),
    }));
    return [name, roles ? { ...squad, roles } : squad];
  });
  return { squads: Object.fromEntries(entries) };
}

function eachValue<T>(record: Record<Name, T>, change: (value: T) => T): Record<Name, T> {
  return Object.fromEntries(Object.entries(record).map(([name, value]) => [name, change(value)]));
}

/** A parameter of a tree, in the tree and at its calls. */
export function renameParameter(
  document: ProjectDocument,
  { mind: name, tree, name: from, to }: { mind: Name; tree: Name; name: Name; to: Name },
): ProjectDocument {
  expectName(to);
  const mind = document.minds[name];
  const parameters = mind?.trees?.[tree]?.parameters ?? {};
  if (!Object.hasOwn(parameters, from))
    throw new CommandError(`The tree “${tree}” has no parameter “${from}”.`);
  if (Object.hasOwn(parameters, to))
    throw new CommandError(`The tree “${tree}” has a parameter “${to}” already.`);
  let hidden = false;
  const after = mapMind(mind, name, {
    name: (kind, used, { called }) =>
      kind === 'parameter' && called === tree && used === from ? to : used,
    expression: (source, where) => {
      if (where.tree !== tree) return source;
      hidden ||= namesIn(source).some(({ name: used }) => used === to);
      return renamedIn(source, from, to);
    },
  });
  if (hidden)
    throw new CommandError(
      `The tree “${tree}” reads “${to}” already, which the parameter would hide. Choose another name.`,
    );
  const trees = {
    ...after.trees,
    [tree]: { ...after.trees![tree], parameters: renameEntry(parameters, from, to) },
  };
  return { ...document, minds: { ...document.minds, [name]: { ...after, trees } } };
}
