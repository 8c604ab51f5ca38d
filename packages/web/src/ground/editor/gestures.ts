import type { GroundDocument, PointDocument, ProjectDocument } from '@crooked-lantern/core';
import { snapped, type AnyPart } from './parts.ts';
import type { Tool } from './tools.ts';

/**
 * What the pointer is doing on the ground. Places are snapped as they come in, so that a pointer that moves
 * within one step of the snap changes nothing, and nothing is drawn again.
 */

interface Gesture {
  kind: 'move' | 'draw' | 'resize';
  from: PointDocument;
  to: PointDocument;
}

export interface Pointing {
  gesture: Gesture | null;
  /** Where the selected tool would place something; null where the pointer is elsewhere. */
  pointer: PointDocument | null;
  /** Points of a route that is being drawn. */
  points: PointDocument[];
}

export const AT_REST: Pointing = { gesture: null, pointer: null, points: [] };

export type PointerNews =
  | { kind: 'begun'; gesture: Gesture['kind']; at: PointDocument }
  /** `shows`: the selected tool shows what it would place. */
  | { kind: 'moved'; at: PointDocument; shows: boolean }
  | { kind: 'pointed'; at: PointDocument }
  | { kind: 'placed' | 'left' | 'ended' | 'dropped' };

function same(a: PointDocument | null, b: PointDocument): boolean {
  return a !== null && a[0] === b[0] && a[1] === b[1];
}

/** The same object where nothing has changed. */
export function pointing(before: Pointing, news: PointerNews): Pointing {
  switch (news.kind) {
    case 'begun':
      return { ...before, gesture: { kind: news.gesture, from: news.at, to: news.at } };
    case 'moved': {
      const { gesture } = before;
      if (gesture)
        return same(gesture.to, news.at)
          ? before
          : { ...before, gesture: { ...gesture, to: news.at } };
      return !news.shows || same(before.pointer, news.at)
        ? before
        : { ...before, pointer: news.at };
    }
    case 'pointed':
      return { ...before, points: [...before.points, news.at] };
    case 'placed':
    case 'left':
      return before.pointer === null ? before : { ...before, pointer: null };
    case 'ended':
      return before.gesture === null ? before : { ...before, gesture: null };
    case 'dropped':
      return before.points.length === 0 ? before : { ...before, points: [] };
  }
}

export function snappedPlace(x: number, y: number, snap: number): PointDocument {
  return [snapped(x, snap), snapped(y, snap)];
}

/** Metres: what is drawn is no smaller than a step of the snap. */
function leastSize(snap: number): number {
  return snap || 0.1;
}

/** How thick a wall is that is drawn as a line: as the last one on the ground. */
function wallThickness({ walls }: GroundDocument): number {
  const last = walls.at(-1);
  return last ? Math.min(...last.size) : 0.4;
}

/** Metres to which sizes are rounded, against the tails of binary fractions. */
const EXACT = 0.001;

export interface Hand {
  document: ProjectDocument;
  ground: GroundDocument;
  tool: Tool;
  snap: number;
  /** The archetype that the agent tool places. */
  agentKind: string;
}

export function partAtPoint({ document, tool, agentKind }: Hand, at: PointDocument) {
  if (tool.kind === 'agents') return { archetype: agentKind, at };
  return tool.make?.(document, at, [0, 0]) ?? null;
}

/** One side of a box between two places; as thick as `thin` around them where they are one. */
function side(a: number, b: number, thin: number, least: number): [from: number, length: number] {
  const length = Math.abs(b - a);
  if (length >= least) return [Math.min(a, b), length];
  return [snapped(a - thin / 2, EXACT), thin];
}

/** The part the tool would place at the pointer, or along the gesture; null where there is none. */
export function ghostOf({ gesture, pointer, points }: Pointing, hand: Hand): AnyPart | null {
  const { tool, document, ground, snap } = hand;
  if (tool.how === 'points') {
    const all = pointer ? [...points, pointer] : points;
    return all.length > 0 ? { points: all } : null;
  }
  if (tool.how === 'point') return pointer && partAtPoint(hand, pointer);
  if (tool.how !== 'box' || gesture?.kind !== 'draw') return null;
  const { from, to } = gesture;
  const least = leastSize(snap);
  const isLine = Math.abs(to[0] - from[0]) < least !== Math.abs(to[1] - from[1]) < least;
  const thin = tool.kind === 'walls' && isLine ? wallThickness(ground) : 0;
  const [left, width] = side(from[0], to[0], thin, least);
  const [top, height] = side(from[1], to[1], thin, least);
  const size = [width, height].map((value) => snapped(Math.max(least, value), EXACT));
  return tool.make?.(document, [left, top], size as PointDocument) ?? null;
}

/** How far what is chosen has been dragged; null while nothing is. */
export function draggedBy({ gesture }: Pointing): { dx: number; dy: number } | null {
  if (gesture?.kind !== 'move') return null;
  const [[x0, y0], [x1, y1]] = [gesture.from, gesture.to];
  return { dx: snapped(x1 - x0, EXACT), dy: snapped(y1 - y0, EXACT) };
}

/** A part whose corner is dragged; null while none is. */
export function resizedPart(
  { gesture }: Pointing,
  part: AnyPart | undefined,
  snap: number,
): AnyPart | null {
  if (gesture?.kind !== 'resize' || !part?.at) return null;
  const size = part.at.map((start, i) =>
    snapped(Math.max(leastSize(snap), gesture.to[i] - start), EXACT),
  );
  return { ...part, size: size as PointDocument };
}
