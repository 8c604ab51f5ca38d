import { builtinsNamed } from '../expression/builtins.ts';
import { replaceWords, type WordIn } from '../expression/names-in.ts';
import type { Name, ProjectDocument } from '../model/documents.ts';
import {
  NAMED_PARTS,
  NAMED_ON_GROUND,
  PARTS_CALLED,
  type NamedPart,
} from '../model/names/named-parts.ts';
import type { DocumentPath } from '../model/names/path-text.ts';
import { NAMED_IN_EVENTS } from '../model/raised-events.ts';
import { mapNames, type NamesVisitor } from '../model/references.ts';
import { CommandError, type Renaming } from './commands/commands.ts';
import { partAt } from './commands/put.ts';
import { meansKey } from './minds/mentions.ts';
import { expectName } from './minds/rename.ts';

/**
 * Another name for a part of the document, there and wherever it is used. Parts of one kind that have the same name
 * are renamed together, on all grounds and in all archetypes: minds name them without saying whose they are.
 */

/** The parts that a word of an expression can be the name of. */
function partsOf({ isText, use }: WordIn): readonly NamedPart[] {
  const builtins = use ? builtinsNamed(use.of) : [];
  const argument = use?.argument ?? null;
  const parameters =
    argument === null ? [] : builtins.flatMap(({ parameters: all }) => all?.[argument] ?? []);
  if (!isText)
    return parameters.some(({ type }) => type === 'bands') ? ['bandSets'] : NAMED_ON_GROUND;
  const called =
    argument === null ? builtins[0]?.gives : parameters.find(({ names }) => names)?.names;
  return called ? PARTS_CALLED[called] : [];
}

/** Whether something nearer hides a name from an expression: a key, a parameter, what an option is weighed for, or an input. */
function isHidden(document: ProjectDocument, path: DocumentPath, name: Name): boolean {
  const [place, of, part, entry, , option] = path as Name[];
  if (place !== 'minds')
    return Object.values(document.minds).some(({ memory = {} }) => Object.hasOwn(memory, name));
  const mind = document.minds[of];
  const choice = part === 'choices' ? mind.choices![entry] : undefined;
  const candidate = choice?.options[Number(option)]?.each?.as;
  return (
    Object.hasOwn(mind.memory ?? {}, name) ||
    (path[path.length - 1] === 'input' && Object.hasOwn(choice?.inputs ?? {}, name)) ||
    !meansKey(mind, name, { path, tree: part === 'trees' ? entry : null, candidate })
  );
}

/** Names of the parts of one kind that stand in a list, where each must be another. */
function listed(document: ProjectDocument, { part, of }: Renaming): Name[][] {
  switch (part) {
    case 'tiers':
      return [(document.tiers ?? []).map(({ name }) => name)];
    case 'modes':
      return Object.values(document.grounds).map(({ schedule }) => [
        ...new Set(schedule?.modes.map(({ mode }) => mode)),
      ]);
    case 'roles':
      return Object.values(document.squads ?? {}).map(({ roles = [] }) =>
        roles.map(({ role }) => role),
      );
    case 'bands':
      return [(document.bands?.[of ?? '']?.bands ?? []).map(({ name }) => name)];
    default:
      return [];
  }
}

class Renamer implements NamesVisitor {
  found = false;
  /** The names of each kind of part, once they were asked for. */
  private readonly known = new Map<NamedPart, ReadonlySet<Name>>();

  private readonly document: ProjectDocument;
  private readonly renaming: Renaming;

  constructor(document: ProjectDocument, renaming: Renaming) {
    this.document = document;
    this.renaming = renaming;
  }

  /** The names that can be of several kinds follow where no other part has the old one. */
  private means(name: Name, parts: readonly NamedPart[]): boolean {
    const { part, name: from } = this.renaming;
    if (name !== from || !parts.includes(part)) return false;
    return parts.length === 1 || parts.every((other) => other === part || !this.has(other, from));
  }

  private has(part: NamedPart, name: Name): boolean {
    const known = this.known.get(part) ?? namesOfPart(this.document, part);
    this.known.set(part, known);
    return known.has(name);
  }

  private refuseTaken(path: DocumentPath): void {
    const { part, to } = this.renaming;
    const beside = partAt(this.document, path.slice(0, -1));
    if (typeof beside === 'object' && beside !== null && Object.hasOwn(beside, to))
      throw new CommandError(
        `There is a ${NAMED_PARTS[part]} “${to}” already. Choose another name.`,
      );
  }

  /** Names of single bands mean those of one set. */
  private isOfSet(set: Name | null): boolean {
    return this.renaming.part !== 'bands' || set === this.renaming.of;
  }

  name(name: Name, parts: readonly NamedPart[], path: DocumentPath, isKey: boolean): Name {
    if (!this.means(name, parts)) return name;
    const set = path[0] === 'bands' ? path[1] : path[path.length - 1];
    if (!this.isOfSet(String(set))) return name;
    if (isKey) this.refuseTaken(path);
    this.found = true;
    return this.renaming.to;
  }

  expression(source: string, path: DocumentPath): string {
    const { name: from, to } = this.renaming;
    return replaceWords(source, (word) => {
      if (!this.means(word.name, partsOf(word)) || !this.isOfSet(word.use?.first ?? null))
        return null;
      if (word.isText) return to;
      if (isHidden(this.document, path, from)) return null;
      if (isHidden(this.document, path, to))
        throw new CommandError(
          `“${source}” uses “${from}”, and something else is called “${to}” there. Choose another name.`,
        );
      return to;
    });
  }

  event(event: string): string {
    const [first, ...words] = event.split('.');
    const parts = Object.hasOwn(NAMED_IN_EVENTS, first) ? NAMED_IN_EVENTS[first] : [];
    const after = words.map((word, i) =>
      parts[i] && this.means(word, [parts[i]]) ? this.renaming.to : word,
    );
    return [first, ...after].join('.');
  }
}

/** All names that the parts of a kind have in a document. */
function namesOfPart(document: ProjectDocument, part: NamedPart): Set<Name> {
  const found = new Set<Name>();
  mapNames(document, {
    name: (name, parts) => {
      if (parts.length === 1 && parts[0] === part) found.add(name);
      return name;
    },
    expression: (source) => source,
    event: (event) => event,
  });
  return found;
}

/** Names that expressions could not tell from that of a part on the ground. */
function refuseAmbiguous(document: ProjectDocument, { part, to }: Renaming): void {
  if (!NAMED_ON_GROUND.includes(part)) return;
  const other = NAMED_ON_GROUND.find(
    (each) => each !== part && namesOfPart(document, each).has(to),
  );
  if (other)
    throw new CommandError(
      `“${to}” is a ${NAMED_PARTS[other]}, and expressions could not tell the two apart. Choose another name.`,
    );
}

/** Throws a {@link CommandError} where there is no such part, or the name can’t be had. */
export function renamePart(document: ProjectDocument, renaming: Renaming): ProjectDocument {
  const { part, name, to } = renaming;
  expectName(to);
  refuseAmbiguous(document, renaming);
  if (listed(document, renaming).some((names) => names.includes(name) && names.includes(to)))
    throw new CommandError(`There is a ${NAMED_PARTS[part]} “${to}” already. Choose another name.`);
  const renamer = new Renamer(document, renaming);
  const after = mapNames(document, renamer);
  if (!renamer.found) throw new CommandError(`There is no ${NAMED_PARTS[part]} “${name}”.`);
  return after;
}
