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
import { fitView, toMetresX, toMetresY, toX, toY, type View } from '../drawing/view.ts';
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
  /** What the body in hand can walk; worked out once for the page. */
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

  useEffect(() => {
    const watcher = new ResizeObserver(() => setSize((before) => before + 1));
    if (stage.current) watcher.observe(stage.current);
    return () => watcher.disconnect();
  }, []);
  useEffect(() => tell({ kind: 'dropped' }), [tool]);

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
  }, [size, document, ground, layers, chosen, area, apart, drag, placed, tokens]);

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

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    stage.current?.focus();
    const { left, top, x, y } = placeOf(event);
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = snappedPlace(x, y, snap);
    const begin = (gesture: 'move' | 'draw' | 'resize') => tell({ kind: 'begun', gesture, at });
    if (tool.how === 'points') return tell({ kind: 'pointed', at });
    if (tool.how === 'box') return begin('draw');
    if (tool.how === 'point') {
      tell({ kind: 'placed' });
      const part = partAtPoint(hand, at);
      const stem = tool.kind === 'agents' ? agentKind : tool.stem;
      if (part && tool.kind) editor.add(tool.kind, stem, part);
      return;
    }
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
    const { x, y } = placeOf(event);
    const shows = tool.how === 'point' || tool.how === 'points';
    tell({ kind: 'moved', at: snappedPlace(x, y, snap), shows });
  };

  const onPointerUp = () => {
    tell({ kind: 'ended' });
    if (state.gesture?.kind === 'draw' && ghost && tool.kind) {
      editor.add(tool.kind, tool.stem, ghost);
    } else if (larger) editor.put(chosen[0], larger);
    else if (drag && (drag.dx !== 0 || drag.dy !== 0)) editor.moveBy(chosen, drag.dx, drag.dy);
  };

  const nudge = (event: KeyboardEvent, dx: number, dy: number) => {
    event.preventDefault();
    const step = (snap || 0.1) * (event.shiftKey ? 10 : 1);
    if (chosen.length > 0) editor.moveBy(chosen, dx * step, dy * step);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowLeft') nudge(event, -1, 0);
    else if (event.key === 'ArrowRight') nudge(event, 1, 0);
    else if (event.key === 'ArrowUp') nudge(event, 0, -1);
    else if (event.key === 'ArrowDown') nudge(event, 0, 1);
    else if (event.key === 'Enter' && tool.how === 'points') finishRoute();
    else if (event.key === 'Escape') {
      if (state.points.length > 0) tell({ kind: 'dropped' });
      else if (tool.how !== 'choose') onToolDone();
      else editor.choose([]);
    }
  };

  const names = chosen.map((ref) => titleOf(ground, ref)).join(', ');
  return (
    <Stage
      ref={stage}
      tabIndex={0}
      role="application"
      aria-label={`Ground to edit. ${names ? `Chosen: ${names}. Arrow keys move it, Delete removes it.` : 'Choose a part here or in the list.'}`}
      data-testid="editor"
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerLeave={() => tell({ kind: 'left' })}
      onDoubleClick={() => tool.how === 'points' && finishRoute()}
      onKeyDown={onKeyDown}
    >
      <canvas ref={canvas} aria-hidden />
      {showsRun && <RunningBodies view={view} tokens={tokens} />}
    </Stage>
  );
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
