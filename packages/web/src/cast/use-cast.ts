import {
  archetypeOf,
  CAST_PARTS,
  type ArchetypeDocument,
  type CastChange,
  type CastPart,
  type DocumentCommand,
  type PlacedAgentDocument,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { useCallback, useMemo, useState } from 'react';
import { useLocation, useNavigate, useParams } from 'react-router';
import { useAppDispatch, useProject } from '../state/store.ts';
import { perform } from '../state/perform.ts';
import { valueAt, withField, withOverride, type FieldPath } from './kind-values.ts';
import { runInBackground } from '../state/failures.ts';

/** What the page is about: a part of the cast by its name, an agent that is placed, or all factions. */
export interface CastSelection {
  part: CastPart | 'agents';
  name: string;
}

/** Editing what is chosen; `select` keeps it in the address, so that a link opens the same. */
export interface CastEditor {
  document: ProjectDocument;
  selection: CastSelection;
  select: (part: CastSelection['part'], name?: string) => void;
  /** Changes the document; true where it could be done. Why it could not is in `trouble`. */
  change: (command: DocumentCommand) => boolean;
  /** What can't be done, or null where all is well again. */
  tell: (trouble: string | null) => void;
  trouble: string | null;
  agents: Record<string, PlacedAgentDocument>;
}

function isThere(document: ProjectDocument, part: CastSelection['part'], name: string) {
  const record = part === 'agents' ? agentsOf(document) : (document[part] ?? {});
  return Object.hasOwn(record, name);
}

function agentsOf({ grounds, start }: ProjectDocument): Record<string, PlacedAgentDocument> {
  return grounds[start.ground]?.agents ?? {};
}

export function useCast(): CastEditor {
  const { id = '', part: namedPart = 'archetypes', name: named = '' } = useParams();
  const { search } = useLocation();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const document = useProject((project) => project.document);
  const [trouble, setTrouble] = useState<string | null>(null);
  const selection = useMemo((): CastSelection => {
    const known = [...CAST_PARTS, 'agents'] as readonly string[];
    const part = (known.includes(namedPart) ? namedPart : 'archetypes') as CastSelection['part'];
    // The table of factions needs no name; what an undo took away gives way to the first archetype.
    if (part === 'factions' || isThere(document, part, named)) return { part, name: named };
    return { part: 'archetypes', name: Object.keys(document.archetypes).sort()[0] ?? '' };
  }, [document, namedPart, named]);
  const select = useCallback(
    (part: CastSelection['part'], name = '') => {
      setTrouble(null);
      const pathname = `/projects/${id}/cast/${part}${name && `/${name}`}`;
      runInBackground(navigate({ pathname, search }, { replace: true }));
    },
    [id, navigate, search],
  );
  const change = useCallback(
    (command: DocumentCommand) => {
      const message = dispatch(perform(command));
      setTrouble(message);
      return message === null;
    },
    [dispatch],
  );
  return {
    document,
    selection,
    select,
    change,
    tell: setTrouble,
    trouble,
    agents: agentsOf(document),
  };
}

/** An archetype, or a placed agent as it differs from its archetype: the same fields, written where they belong. */
export interface KindEditor {
  /** Title for readers. */
  of: string;
  /** What holds. */
  kind: ArchetypeDocument;
  /** What it would be if the agent did not differ; null for an archetype. */
  base: ArchetypeDocument | null;
  /** Where findings about it stand. */
  path: string;
  put: (path: FieldPath, value: unknown) => void;
  isOwn: (path: FieldPath) => boolean;
}

export function archetypeEditor(
  { document, change }: CastEditor,
  name: string,
): KindEditor | undefined {
  if (!Object.hasOwn(document.archetypes, name)) return undefined;
  const kind = document.archetypes[name];
  return {
    of: kind.title,
    kind,
    base: null,
    path: `archetypes.${name}`,
    put: (path, value) =>
      runInBackground(
        change({
          command: 'setInCast',
          part: 'archetypes',
          name,
          value: withField(kind, path, value),
        } satisfies DocumentCommand & CastChange),
      ),
    isOwn: () => false,
  };
}

export function agentEditor(
  { document, change, agents }: CastEditor,
  name: string,
): KindEditor | undefined {
  if (!Object.hasOwn(agents, name)) return undefined;
  const placed = agents[name];
  const kind = archetypeOf(document, placed);
  if (!kind) return undefined;
  const base = document.archetypes[placed.archetype];
  const of = placed.title ?? name;
  const ground = document.start.ground;
  return {
    of,
    kind,
    base,
    path: `grounds.${ground}.agents.${name}.overrides`,
    put: (path, value) => {
      const { overrides: before, ...rest } = placed;
      const overrides = withOverride(before, base, path, value);
      const next = overrides ? { ...rest, overrides } : rest;
      change({
        command: 'changeParts',
        ground,
        changes: [{ part: 'agents', name, value: next }],
        what: `what differs in ${of}`,
      });
    },
    isOwn: (path) => valueAt(placed.overrides, path) !== undefined,
  };
}
