import { createWalkable, islandsOf, type PointDocument } from '@crooked-lantern/core';
import {
  useEffect,
  useMemo,
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
import {
  allParts,
  keyOf,
  layerOf,
  LAYERS,
  moved,
  partAt,
  snapped,
  titleOf,
  type AnyPart,
  type PartRef,
} from './parts.ts';
import { whyNotHere, whyNotMoved } from './placing.ts';
import type { Tool } from './tools.ts';
import type { GroundEditor } from './use-ground-editor.ts';

const Stage = styled(CanvasStage)`
  min-height: 360px;
  touch-action: none;
`;

/** Pixels within which a part that has no breadth is hit. */
const NEAR = 11;

/** Names of the areas that no way leads to: island 1 is where most of the ground is. */
function areasApart(area: { walkable: ReturnType<typeof createWalkable>; islands: Int32Array }) {
  const { columns, cell } = area.walkable;
  const main = largest(area.islands);
  const sums = new Map<number, { x: number; y: number; count: number }>();
  area.islands.forEach((island, index) => {
    if (island < 0 || island === main) return;
    const sum = sums.get(island) ?? { x: 0, y: 0, count: 0 };
    sum.x += ((index % columns) + 0.5) * cell;
    sum.y += (Math.floor(index / columns) + 0.5) * cell;
    sum.count++;
    sums.set(island, sum);
  });
  return [...sums.values()].map(({ x, y, count }, i) => ({
    x: x / count,
    y: y / count,
    name: `cut off ${i + 1}`,
    squareMetres: count * cell * cell,
  }));
}

/** Where bodies of one radius can be on the ground as it is written, and what is cut off from the rest. */
export function useWalkableArea({ walls }: GroundEditor, radius: number) {
  return useMemo(() => {
    const walkable = createWalkable(walls, radius);
    const area = { walkable, islands: islandsOf(walkable) };
    return { area, apart: areasApart(area) };
  }, [walls, radius]);
}

interface Gesture {
  kind: 'move' | 'draw' | 'resize';
  fromX: number;
  fromY: number;
  x: number;
  y: number;
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
  const [gesture, setGesture] = useState<Gesture | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const [points, setPoints] = useState<PointDocument[]>([]);
  const [size, setSize] = useState(0);

  useEffect(() => {
    const watcher = new ResizeObserver(() => setSize((before) => before + 1));
    if (stage.current) watcher.observe(stage.current);
    return () => watcher.disconnect();
  }, []);
  useEffect(() => setPoints([]), [tool]);

  const snapAt = (value: number) => snapped(value, snap);

  const partAtPoint = (x: number, y: number): AnyPart | null => {
    const at: PointDocument = [snapAt(x), snapAt(y)];
    if (tool.kind === 'agents') return { archetype: agentKind, at };
    return tool.make?.(document, at, [0, 0]) ?? null;
  };

  /** The part the tool would place at the pointer, or along the gesture. */
  const ghostPart = (): AnyPart | null => {
    if (tool.how === 'points') {
      const next: PointDocument[] = pointer ? [[snapAt(pointer.x), snapAt(pointer.y)]] : [];
      return points.length + next.length > 0 ? { points: [...points, ...next] } : null;
    }
    if (tool.how === 'point') return pointer && partAtPoint(pointer.x, pointer.y);
    if (tool.how !== 'box' || gesture?.kind !== 'draw') return null;
    const [left, right] = [gesture.fromX, gesture.x].map(snapAt).sort((a, b) => a - b);
    const [top, bottom] = [gesture.fromY, gesture.y].map(snapAt).sort((a, b) => a - b);
    const least = snap || 0.1;
    const extent: PointDocument = [Math.max(least, right - left), Math.max(least, bottom - top)];
    return (
      tool.make?.(
        document,
        [left, top],
        extent.map((value) => snapped(value, 0.001)) as PointDocument,
      ) ?? null
    );
  };
  const ghost = ghostPart();
  const ghostReason =
    ghost && tool.kind ? whyNotHere(editor.here, { kind: tool.kind, name: '' }, ghost) : null;

  const dragged = () => {
    if (gesture?.kind !== 'move') return null;
    const dx = snapAt(gesture.x - gesture.fromX);
    const dy = snapAt(gesture.y - gesture.fromY);
    const reason = whyNotMoved(editor.here, chosen, (part) => moved(part, dx, dy));
    return { dx, dy, reason };
  };
  const drag = dragged();

  const resized = (): AnyPart | null => {
    const part = chosen.length === 1 ? partAt(ground, chosen[0]) : undefined;
    if (gesture?.kind !== 'resize' || !part?.at) return null;
    const least = snap || 0.1;
    const extent: PointDocument = [
      Math.max(least, snapAt(gesture.x) - part.at[0]),
      Math.max(least, snapAt(gesture.y) - part.at[1]),
    ];
    return { ...part, size: extent.map((value) => snapped(value, 0.001)) as PointDocument };
  };
  const larger = resized();

  useEffect(() => {
    const surface = sharpCanvas(canvas.current);
    if (!surface) return;
    const { context, width, height } = surface;
    view.current = fitView(ground.width, ground.height, width, height, 0);
    const painter = { context, view: view.current, tokens, width, height };
    const placed = larger
      ? { part: larger, kind: chosen[0].kind, reason: whyNotHere(editor.here, chosen[0], larger) }
      : ghost && tool.kind && { part: ghost, kind: tool.kind, reason: ghostReason };
    drawEditor(painter, {
      document,
      ground,
      layers: editor.layers,
      chosen,
      area,
      apart,
      drag,
      ghost: placed || null,
    });
    drawScale(painter);
  }, [
    size,
    document,
    ground,
    editor,
    chosen,
    area,
    apart,
    drag,
    ghost,
    larger,
    ghostReason,
    tool,
    tokens,
  ]);

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
    if (points.length >= 2 && editor.add('routes', tool.stem, { points })) onToolDone();
    setPoints([]);
  };

  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    stage.current?.focus();
    const { left, top, x, y } = placeOf(event);
    event.currentTarget.setPointerCapture(event.pointerId);
    const begin = (kind: Gesture['kind']) => setGesture({ kind, fromX: x, fromY: y, x, y });
    if (tool.how === 'points') return setPoints([...points, [snapAt(x), snapAt(y)]]);
    if (tool.how === 'box') return begin('draw');
    if (tool.how === 'point') {
      setPointer(null);
      const part = partAtPoint(x, y);
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
    setPointer({ x, y });
    if (gesture) setGesture({ ...gesture, x, y });
  };

  const onPointerUp = () => {
    setGesture(null);
    if (gesture?.kind === 'draw' && ghost && tool.kind) {
      editor.add(tool.kind, tool.stem, ghost);
    } else if (gesture?.kind === 'resize' && larger) editor.put(chosen[0], larger);
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
      if (points.length > 0) setPoints([]);
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
      onPointerLeave={() => setPointer(null)}
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
