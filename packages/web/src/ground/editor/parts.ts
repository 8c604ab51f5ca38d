import {
  GROUND_PARTS,
  type GroundDocument,
  type GroundPart,
  type PartChange,
  type PointDocument,
  namesOf,
  freshName,
  titleOfCopy,
} from '@crooked-lantern/core';

/** What stands on a ground, as the editor sees it: every part has a place, some a size, routes several places. */

export type PartKind = 'walls' | GroundPart;

/** A part by its kind and name; walls by their index. */
export interface PartRef {
  kind: PartKind;
  name: string;
}

/** The fields of any part that the editor reads. */
export interface AnyPart {
  title?: string;
  kind?: string;
  at?: PointDocument;
  size?: PointDocument;
  points?: PointDocument[];
  heading?: number;
  archetype?: string;
  [field: string]: unknown;
}

export const LAYERS = [
  { id: 'agents', title: 'Agents', kinds: ['agents'] },
  { id: 'things', title: 'Things', kinds: ['things'] },
  { id: 'places', title: 'Posts, spawns and zones', kinds: ['posts', 'spawns', 'zones'] },
  { id: 'routes', title: 'Routes', kinds: ['routes'] },
  { id: 'gates', title: 'Gates and plates', kinds: ['gates', 'plates'] },
  { id: 'lights', title: 'Lamps', kinds: ['lamps'] },
  { id: 'walls', title: 'Walls, hedges and cover', kinds: ['walls'] },
] as const satisfies { id: string; title: string; kinds: PartKind[] }[];

export type LayerId = (typeof LAYERS)[number]['id'];

/** Layers from the top down: parts above are hit first, so light never takes a click from what it shines on. */
export function layerOf(kind: PartKind): LayerId {
  return LAYERS.find(({ kinds }) => (kinds as readonly PartKind[]).includes(kind))!.id;
}

export const SINGULAR: Record<PartKind, string> = {
  walls: 'wall',
  lamps: 'lamp',
  gates: 'gate',
  plates: 'plate',
  things: 'thing',
  posts: 'post',
  spawns: 'spawn place',
  zones: 'zone',
  routes: 'route',
  agents: 'agent',
};

export function keyOf({ kind, name }: PartRef): string {
  return `${kind} ${name}`;
}

export function partsOf(ground: GroundDocument, kind: PartKind): [string, AnyPart][] {
  if (kind === 'walls') return ground.walls.map((wall, i) => [String(i), wall as AnyPart]);
  const record = (ground[kind] ?? {}) as Record<string, AnyPart>;
  return namesOf(record).map((name) => [name, record[name]]);
}

export function allParts(ground: GroundDocument): PartRef[] {
  return (['walls', ...GROUND_PARTS] as PartKind[]).flatMap((kind) =>
    partsOf(ground, kind).map(([name]) => ({ kind, name })),
  );
}

export function partAt(ground: GroundDocument, { kind, name }: PartRef): AnyPart | undefined {
  if (kind === 'walls') return ground.walls[Number(name)] as AnyPart | undefined;
  return (ground[kind] as Record<string, AnyPart> | undefined)?.[name];
}

/** What a part is called in lists. */
export function titleOf(ground: GroundDocument, ref: PartRef): string {
  const part = partAt(ground, ref);
  if (ref.kind === 'walls') {
    const what = part?.kind === 'low' ? 'low cover' : (part?.kind ?? 'wall');
    return `${what} ${Number(ref.name) + 1}`;
  }
  return part?.title ?? ref.name;
}

/** A change that puts `value` (null for nothing) in a part's place. */
export function changeOf({ kind, name }: PartRef, value: AnyPart | null): PartChange {
  if (kind === 'walls') return { part: 'walls', index: Number(name), value } as PartChange;
  return { part: kind, name, value } as PartChange;
}

const round = (value: number) => Math.round(value * 1000) / 1000;

export function moved(part: AnyPart, dx: number, dy: number): AnyPart {
  const shift = ([x, y]: PointDocument): PointDocument => [round(x + dx), round(y + dy)];
  return {
    ...part,
    ...(part.at ? { at: shift(part.at) } : {}),
    ...(part.points ? { points: part.points.map(shift) } : {}),
  };
}

/** A free name: `lamp`, then `lamp2` and so on. */
export function freshPartName(ground: GroundDocument, kind: PartKind, stem: string): string {
  if (kind === 'walls') return String(ground.walls.length);
  // Some kinds share their names with others in expressions, so none is used twice.
  const taken = new Set(allParts(ground).map(({ name }) => name));
  return freshName(stem, (name) => taken.has(name));
}

/** A copy of a part, moved by so many metres to the right and down, with a free name and title. */
export function copyOf(
  ground: GroundDocument,
  { kind, name }: PartRef,
  by: number,
): { ref: PartRef; part: AnyPart } {
  const part = moved(partAt(ground, { kind, name })!, by, by);
  const titles = partsOf(ground, kind).flatMap(([, { title }]) => title ?? []);
  return {
    ref: { kind, name: freshPartName(ground, kind, name) },
    part: part.title === undefined ? part : { ...part, title: titleOfCopy(part.title, titles) },
  };
}

export function snapped(value: number, step: number): number {
  return step === 0 ? round(value) : round(Math.round(value / step) * step);
}
