import {
  AGENT_FIELDS,
  GATE_FIELDS,
  LAMP_FIELDS,
  namesOf,
  POST_FIELDS,
  ROUTE_FIELDS,
  THING_FIELDS,
  usualNumber,
  WALL_FIELDS,
  type FieldSpecs,
  type GroundDocument,
  type NumberSpec,
  type ProjectDocument,
} from '@crooked-lantern/core';
import type { AnyPart, PartKind } from './parts.ts';

/** The fields of each kind of part that can be edited, beside its place and size. */

interface PartOption {
  id: string;
  title: string;
}

export type PartField =
  | { kind: 'number'; id: string; spec: NumberSpec }
  | {
      kind: 'choice';
      id: string;
      label: string;
      options: (document: ProjectDocument, ground: GroundDocument) => readonly PartOption[];
      /** What the field is where it is left out. */
      usual?: string;
      /** It may be left out, under this name. */
      none?: string;
    }
  | { kind: 'flag'; id: string; label: string };

/** The fields of a part as the model says them. */
function fromModel(specs: FieldSpecs): PartField[] {
  return Object.entries(specs).map(([id, spec]): PartField => {
    if (spec.kind === 'number') return { kind: 'number', id, spec };
    if (spec.kind === 'flag') return { kind: 'flag', id, label: spec.label };
    const { label, options, usual } = spec;
    return {
      kind: 'choice',
      id,
      label,
      options: () => options.map((word) => ({ id: word, title: word })),
      usual,
    };
  });
}

const names = (
  id: string,
  label: string,
  of: (
    document: ProjectDocument,
    ground: GroundDocument,
  ) => Readonly<Record<string, { title?: string }>> | undefined,
  none?: string,
): PartField => ({
  kind: 'choice',
  id,
  label,
  options: (document, ground) => {
    const parts = of(document, ground) ?? {};
    return namesOf(parts).map((name) => ({ id: name, title: parts[name].title ?? name }));
  },
  none,
});

export const FIELDS: Record<PartKind, readonly PartField[]> = {
  walls: fromModel(WALL_FIELDS),
  lamps: fromModel(LAMP_FIELDS),
  gates: fromModel(GATE_FIELDS),
  plates: [names('opens', 'Opens', (_, { gates }) => gates)],
  things: fromModel(THING_FIELDS),
  posts: fromModel(POST_FIELDS),
  spawns: fromModel(POST_FIELDS),
  zones: [],
  routes: fromModel(ROUTE_FIELDS),
  agents: [
    names('archetype', 'Archetype', ({ archetypes }) => archetypes),
    names('route', 'Route', (_, { routes }) => routes, 'no route'),
    names('post', 'Post', (_, { posts }) => posts, 'where it stands'),
    names('squad', 'Squad', ({ squads }) => squads, 'its archetype’s'),
    names('home', 'Home', (_, { zones }) => zones, 'no home'),
    ...fromModel(AGENT_FIELDS),
  ],
};

/** What a field is where it is left out; undefined where nothing is said. */
function usualOf(part: AnyPart, field: PartField): unknown {
  if (field.kind === 'flag') return false;
  if (field.kind === 'choice') return field.usual;
  const usual = usualNumber(field.spec, part);
  return Number.isNaN(usual) ? undefined : usual;
}

/** A part with a field set; undefined, and what holds anyway, is left out. */
export function withField(part: AnyPart, field: PartField, value: unknown): AnyPart {
  const next = { ...part, [field.id]: value };
  if (value === undefined || value === usualOf(part, field)) delete next[field.id];
  return next;
}
