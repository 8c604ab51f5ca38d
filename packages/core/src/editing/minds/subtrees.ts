import { nameFromWords } from '../../model/names/fresh-name.ts';
import { namesIn, replaceNames } from '../../expression/names-in.ts';
import type { Name, NodeDocument, ProjectDocument } from '../../model/documents.ts';
import { CommandError, type DocumentPath } from '../commands/commands.ts';
import { partAt } from '../commands/put.ts';
import { fieldsOfNode } from './row-kinds.ts';
import { formOf, type RowEdit } from './row-places.ts';
import { mapNode } from '../../model/minds/walk-mind.ts';

/** Rows made into a tree of their own, and a tree put in the place where it is called. */

/** Makes a row, with all inside it, a tree of its own, which is called in its place. Parameters of the tree around that it uses become its own. */
export function extractTree(
  document: ProjectDocument,
  path: DocumentPath,
  title: string,
): RowEdit & { tree: Name } {
  const [, mindName, part, treeName] = path as [string, Name, string, Name];
  if (part !== 'trees' || formOf(path) !== 'node')
    throw new CommandError('Only rows of a tree can become a tree.');
  const mind = document.minds[mindName];
  const node = partAt(document, path) as NodeDocument;
  if ('tree' in node && path.length > 5)
    throw new CommandError('This row is a tree of its own already.');
  const around = mind.trees![treeName].parameters ?? {};
  const used = new Set<Name>();
  mapNode(
    node,
    { path, tree: treeName },
    {
      name: (_, name) => name,
      expression: (source) => {
        for (const { name } of namesIn(source)) if (Object.hasOwn(around, name)) used.add(name);
        return source;
      },
    },
  );
  const { title: _, off, preempts, weight, ...root } = node;
  // What places a row among its siblings stays with it; the guard goes along, unless it is for taking over.
  const { when, holds, conduct, ...plain } = root;
  const kept = {
    ...(preempts && {
      when,
      preempts,
      ...(holds && { holds }),
      ...(conduct && { conduct }),
    }),
    ...(weight !== undefined && { weight }),
    ...(off && { off }),
  };
  const names = [...used].sort();
  const parameters = Object.fromEntries(names.map((name) => [name, around[name]]));
  const tree = nameFromWords(title, mind.trees, 'part');
  const made = {
    title,
    ...(names.length > 0 && { parameters }),
    root: preempts ? plain : root,
  };
  const call = {
    tree,
    ...(names.length > 0 && { with: Object.fromEntries(names.map((name) => [name, name])) }),
    ...kept,
  };
  return {
    tree,
    focus: path,
    command: {
      command: 'several',
      what: `new tree ${title}`,
      commands: [
        { command: 'put', how: 'set', path, value: call },
        { command: 'put', how: 'set', path: ['minds', mindName, 'trees', tree], value: made },
      ],
    },
  };
}

/** An expression that can stand anywhere within another. */
function enclosed(source: string | number): string {
  const text = String(source);
  return /^[\w.]+$/.test(text) ? text : `(${text})`;
}

/** Puts what a called tree holds in the place of the call, what it was called with in place of its parameters. */
export function inlineTree(document: ProjectDocument, path: DocumentPath): RowEdit {
  const [, mindName] = path as [string, Name];
  const call = partAt(document, path) as NodeDocument & {
    tree?: Name;
    with?: Record<Name, string | number>;
  };
  const tree = call?.tree === undefined ? undefined : document.minds[mindName]?.trees?.[call.tree];
  if (!tree) throw new CommandError('This row calls no tree.');
  const given = call.with ?? {};
  const root = mapNode(
    tree.root,
    { path, tree: call.tree! },
    {
      name: (_, name) => name,
      expression: (source) => {
        // An expression that is nothing but the parameter needs no parentheses.
        const alone = source.trim();
        if (Object.hasOwn(given, alone)) return String(given[alone]);
        return replaceNames(source, (name) =>
          Object.hasOwn(given, name) ? enclosed(given[name]) : null,
        );
      },
    },
  );
  const kept = fieldsOfNode(call);
  const clash = Object.keys(kept).some((field) => field in root);
  const value = clash ? { sequence: [root], ...kept } : { ...root, ...kept };
  return {
    command: {
      command: 'several',
      what: `${tree.title ?? call.tree} put in place`,
      commands: [{ command: 'put', how: 'set', path, value }],
    },
    focus: path,
  };
}
