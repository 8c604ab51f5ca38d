import type { PointDocument, WalkableArea } from '@crooked-lantern/core';
import {
  useEffect,
  useMemo,
  useReducer,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
} from 'react';
import styled from 'styled-components';
import { useDrawing } from '../../engine/use-engine.tsx';
import type { Tokens } from '../../theme/tokens.ts';
import { useTokens } from '../../theme/use-tokens.ts';
import { CanvasStage } from '../../ui/place.ts';
import { sharpCanvas } from '../../ui/canvas.ts';
import { drawOutlines } from '../drawing/bodies.ts';
import { largest } from '../drawing/motion.ts';
import { drawScale } from '../drawing/scene.ts';
import {
  fitView,
  toMetresX,
  toMetresY,
  toX,
  toY,
  type Painter,
  type View,
} from '../drawing/view.ts';
import { drawEditor, HANDLE } from './draw-editor.ts';
import { allParts, keyOf, layerOf, LAYERS, moved, partAt, titleOf, type PartRef } from './parts.ts';
import {
  AT_REST,
  draggedBy,
  ghostOf,
  partAtPoint,
  pointing,
  resizedPart,
  snappedPlace,
} from './gestures.ts';
import { whyNotHere, whyNotMoved } from './placing.ts';
import type { Tool } from './tools.ts';
import type { GroundEditor } from './use-ground-editor.ts';

const Stage = styled(CanvasStage)`
  min-height: 360px;
  touch-action: none;
`;

/** Pixels within which a part that has no breadth is hit. */
const NEAR = 11;

/** Names of the areas that no way leads to from the largest. */
function areasApart({ columns, cell, areas }: WalkableArea) {
  const main = largest(areas);
  const sums = new Map<number, { x: number; y: number; count: number }>();
  areas.forEach((area, index) => {
    if (area < 0 || area === main) return;
    const sum = sums.get(area) ?? { x: 0, y: 0, count: 0 };
    sum.x += ((index % columns) + 0.5) * cell;
    sum.y += (Math.floor(index / columns) + 0.5) * cell;
    sum.count++;
    sums.set(area, sum);
  });
  return [...sums.values()].map(({ x, y, count }, i) => ({
    x: x / count,
    y: y / count,
    name: `cut off ${i + 1}`,
    squareMetres: count * cell * cell,
  }));
}

/** Where bodies of one radius can be on the ground as it is written, and what is cut off from the rest. */
export function useWalkableArea({ space }: GroundEditor, radius: number) {
  return useMemo(() => {
    const area = space.walkable(radius);
    return { area, apart: areasApart(area) };
  }, [space, radius]);
}

/** The ground to work on: pointer and keys choose, place, move and resize. */
export function EditorStage({
  editor,
  tool,
  snap,
  area: { area, apart },
  agentKind,
  showsRun,
  onToolDone,
}: {
  editor: GroundEditor;
  tool: Tool;
  /** Metres; 0 for none. */
  snap: number;
  /** What the selected body can walk; worked out once for the page. */
  area: ReturnType<typeof useWalkableArea>;
  /** The archetype that the agent tool places. */
  agentKind: string;
  /** Whether the bodies of the run are drawn over it. */
  showsRun: boolean;
  onToolDone: () => void;
}) {
  const { document, ground, chosen } = editor;
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<HTMLDivElement>(null);
  const view = useRef<View>({ scale: 1, left: 0, top: 0 });
  const tokens = useTokens();
  const [state, tell] = useReducer(pointing, AT_REST);
  const [size, setSize] = useState(0);
  /** Where the keys have taken the selected tool, in metres; null while the pointer does. */
  const [cursor, setCursor] = useState<PointDocument | null>(null);

  useEffect(() => {
    const watcher = new ResizeObserver(() => setSize((before) => before + 1));
    if (stage.current) watcher.observe(stage.current);
    return () => watcher.disconnect();
  }, []);
  useEffect(() => {
    tell({ kind: 'dropped' });
    setCursor(null);
  }, [tool]);

  const { here, layers } = editor;
  const hand = useMemo(
    () => ({ document, ground, tool, snap, agentKind }),
    [document, ground, tool, snap, agentKind],
  );
  const ghost = useMemo(() => ghostOf(state, hand), [state, hand]);
  const drag = useMemo(() => {
    const by = draggedBy(state);
    return by && { ...by, reason: whyNotMoved(here, chosen, (part) => moved(part, by.dx, by.dy)) };
  }, [state, here, chosen]);
  const larger = useMemo(
    () => (chosen.length === 1 ? resizedPart(state, partAt(ground, chosen[0]), snap) : null),
    [state, ground, chosen, snap],
  );
  /** What is drawn as it would be placed, and why it can't be. */
  const placed = useMemo(() => {
    if (larger)
      return {
        part: larger,
        kind: chosen[0].kind,
        reason: whyNotHere(here, chosen[0], larger),
      };
    if (!ghost || !tool.kind) return null;
    const reason = whyNotHere(here, { kind: tool.kind, name: '' }, ghost);
    return { part: ghost, kind: tool.kind, reason };
  }, [larger, ghost, tool, here, chosen]);

  useEffect(() => {
    const surface = sharpCanvas(canvas.current);
    if (!surface) return;
    const { context, width, height } = surface;
    view.current = fitView(ground.width, ground.height, width, height, 0);
    const painter = { context, view: view.current, tokens, width, height };
    drawEditor(painter, {
      document,
      ground,
      layers,
      chosen,
      area,
      apart,
      drag,
      ghost: placed,
    });
    drawScale(painter);
    if (cursor) drawCursor(painter, cursor);
  }, [cursor, size, document, ground, layers, chosen, area, apart, drag, placed, tokens]);

  const placeOf = (event: PointerEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    const [left, top] = [event.clientX - box.left, event.clientY - box.top];
    return { left, top, x: toMetresX(view.current, left), y: toMetresY(view.current, top) };
  };

  const hits = (ref: PartRef, left: number, top: number): boolean => {
    const part = partAt(ground, ref);
    if (!part) return false;
    const near = ([x, y]: PointDocument) =>
      Math.hypot(toX(view.current, x) - left, toY(view.current, y) - top) <= NEAR;
    if (part.points) return part.points.some(near);
    if (!part.at) return false;
    if (!part.size) return near(part.at);
    const [x, y] = [toX(view.current, part.at[0]), toY(view.current, part.at[1])];
    const [width, height] = part.size.map((length) => length * view.current.scale);
    const inside = left >= x - 3 && top >= y - 3 && left <= x + width + 3 && top <= y + height + 3;
    if (ref.kind !== 'zones') return inside;
    // A zone is taken by its edge, so that what lies in it stays in reach.
    const within = left > x + 6 && top > y + 6 && left < x + width - 6 && top < y + height - 6;
    return inside && !within;
  };

  const under = (left: number, top: number): PartRef | null => {
    const parts = allParts(ground).filter(editor.isFree);
    for (const { id } of LAYERS) {
      const hit = parts.findLast((ref) => layerOf(ref.kind) === id && hits(ref, left, top));
      if (hit) return hit;
    }
    return null;
  };

  const onHandle = (left: number, top: number): boolean => {
    const part = chosen.length === 1 ? partAt(ground, chosen[0]) : undefined;
    if (!part?.at || !part.size) return false;
    const x = toX(view.current, part.at[0] + part.size[0]);
    const y = toY(view.current, part.at[1] + part.size[1]);
    return Math.abs(left - x) <= HANDLE + 3 && Math.abs(top - y) <= HANDLE + 3;
  };

  const finishRoute = () => {
    const { points } = state;
    if (points.length >= 2 && editor.add('routes', tool.stem, { points })) onToolDone();
    tell({ kind: 'dropped' });
  };

  /** The tool in hand places something, begins a box or sets a waypoint; false for the one that only chooses. */
  const use = (at: PointDocument): boolean => {
    if (tool.how === 'choose') return false;
    if (tool.how === 'points') tell({ kind: 'pointed', at });
    else if (tool.how === 'box') tell({ kind: 'begun', gesture: 'draw', at });
    else {
      tell({ kind: 'placed' });
      const part = partAtPoint(hand, at);
      const stem = tool.kind === 'agents' ? agentKind : tool.stem;
      if (part && tool.kind) editor.add(tool.kind, stem, part);
    }
    return true;
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    stage.current?.focus();
    setCursor(null);
    const { left, top, x, y } = placeOf(event);
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = snappedPlace(x, y, snap);
    const begin = (gesture: 'move' | 'resize') => tell({ kind: 'begun', gesture, at });
    if (use(at)) return;
    if (onHandle(left, top)) return begin('resize');
    const hit = under(left, top);
    if (!hit) return event.shiftKey ? undefined : editor.choose([]);
    const has = editor.chosenSet.has(keyOf(hit));
    if (event.shiftKey) {
      return editor.choose(
        has ? chosen.filter((ref) => keyOf(ref) !== keyOf(hit)) : [...chosen, hit],
      );
    }
    if (!has) editor.choose([hit]);
    begin('move');
  };

  const onPointerMove = (event: PointerEvent<HTMLDivElement>) => {
    setCursor(null);
    const { x, y } = placeOf(event);
    const shows = tool.how === 'point' || tool.how === 'points';
    tell({ kind: 'moved', at: snappedPlace(x, y, snap), shows });
  };

  const finish = () => {
    tell({ kind: 'ended' });
    if (state.gesture?.kind === 'draw' && ghost && tool.kind) {
      editor.add(tool.kind, tool.stem, ghost);
    } else if (larger) editor.put(chosen[0], larger);
    else if (drag && (drag.dx !== 0 || drag.dy !== 0)) editor.moveBy(chosen, drag.dx, drag.dy);
  };

  /** Moves the selected tool, from the middle of the ground where the keys have not moved it yet. */
  const moveCursor = (dx: number, dy: number) => {
    const [x, y] = cursor ?? [ground.width / 2, ground.height / 2];
    const within = (value: number, most: number) => Math.min(most, Math.max(0, value));
    const at = snappedPlace(within(x + dx, ground.width), within(y + dy, ground.height), snap);
    setCursor(at);
    tell({ kind: 'moved', at, shows: tool.how !== 'box' });
  };

  /** Uses the tool where the keys have taken it: a second time ends a box. */
  const useHere = (event: KeyboardEvent) => {
    event.preventDefault();
    if (!cursor) return moveCursor(0, 0);
    if (state.gesture?.kind === 'draw') finish();
    else use(cursor);
  };

  const nudge = (event: KeyboardEvent, dx: number, dy: number) => {
    event.preventDefault();
    const step = (snap || 0.1) * (event.shiftKey ? 10 : 1);
    if (tool.how !== 'choose') return moveCursor(dx * step, dy * step);
    if (chosen.length > 0) editor.moveBy(chosen, dx * step, dy * step);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowLeft') nudge(event, -1, 0);
    else if (event.key === 'ArrowRight') nudge(event, 1, 0);
    else if (event.key === 'ArrowUp') nudge(event, 0, -1);
    else if (event.key === 'ArrowDown') nudge(event, 0, 1);
    else if (event.key === 'Enter' && tool.how === 'points' && state.points.length > 0)
      finishRoute();
    else if ((event.key === ' ' || event.key === 'Enter') && tool.how !== 'choose') useHere(event);
    else if (event.key === 'Escape') {
      if (state.gesture) tell({ kind: 'ended' });
      else if (state.points.length > 0) tell({ kind: 'dropped' });
      else if (tool.how !== 'choose') onToolDone();
      else editor.choose([]);
    }
  };

  const names = chosen.map((ref) => titleOf(ground, ref)).join(', ');
  const help =
    tool.how === 'choose'
      ? names
        ? `Chosen: ${names}. Arrow keys move it, Delete removes it.`
        : 'Choose a part here or in the list.'
      : `${tool.title}: arrow keys lead it, Space ${HOW_WORDS[tool.how]}.`;
  return (
    <Stage
      ref={stage}
      tabIndex={0}
      role="application"
      aria-label={`Ground to edit. ${help}`}
      data-testid="editor"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={finish}
      onPointerLeave={() => tell({ kind: 'left' })}
      onDoubleClick={() => tool.how === 'points' && finishRoute()}
      onKeyDown={onKeyDown}
    >
      <canvas ref={canvas} aria-hidden />
      <span className="visually-hidden" role="status">
        {cursor && `${cursor[0]}, ${cursor[1]} m${placed?.reason ? `: ${placed.reason}` : ''}`}
      </span>
      {showsRun && <RunningBodies view={view} tokens={tokens} />}
    </Stage>
  );
}

const HOW_WORDS = {
  box: 'begins it and ends it',
  point: 'places it',
  points: 'sets a waypoint, Enter ends the route',
} as const;

/** A cross where the keys have taken the selected tool. */
function drawCursor({ context, view, tokens }: Painter, [x, y]: PointDocument): void {
  const [left, top] = [toX(view, x), toY(view, y)];
  context.strokeStyle = tokens.sight;
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(left - 8, top);
  context.lineTo(left + 8, top);
  context.moveTo(left, top - 8);
  context.lineTo(left, top + 8);
  context.stroke();
}

/** Outlines of the bodies where they are in the run, over the ground that is edited. */
function RunningBodies({ view, tokens }: { view: RefObject<View>; tokens: Tokens }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useDrawing(({ frame, program }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface) return;
    const { context, width, height } = surface;
    context.clearRect(0, 0, width, height);
    if (frame && program)
      drawOutlines({ context, view: view.current, tokens, width, height }, program, frame);
  });
  return <canvas ref={canvas} aria-hidden style={{ pointerEvents: 'none' }} />;
}
