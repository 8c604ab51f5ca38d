import { FONT_MONO } from '../../theme/tokens.ts';
import { THING_STRIDE, type GroundProgram } from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import { faded, isMap, toX, toY, type Painter } from './view.ts';

/** Radius of the leaves drawn around a trunk, in metres; they hide nothing. */
const CROWN = 0.85;

function drawWall({ context, view, tokens }: Painter, wall: GroundProgram['walls'][number]): void {
  const x = toX(view, wall.x);
  const y = toY(view, wall.y);
  const width = wall.width * view.scale;
  const height = wall.height * view.scale;
  if (wall.kind === 'trunk') {
    context.beginPath();
    context.arc(x + width / 2, y + height / 2, CROWN * view.scale, 0, 2 * Math.PI);
    context.fillStyle = faded(tokens.leaf, 0.35);
    context.fill();
    context.strokeStyle = faded(tokens.leaf, 0.7);
    context.lineWidth = 1;
    context.stroke();
    context.fillStyle = tokens.dim;
    context.fillRect(x, y, width, height);
    return;
  }
  const low = wall.kind === 'low';
  context.beginPath();
  context.roundRect(x, y, width, height, wall.kind === 'hedge' ? Math.min(width, height) / 2 : 1);
  context.fillStyle =
    wall.kind === 'hedge' ? tokens.hedge : low ? faded(tokens.wall, 0.4) : tokens.wall;
  context.fill();
  context.strokeStyle = low ? tokens.dim : tokens.line2;
  context.lineWidth = 1;
  // What one sees over has a broken edge.
  context.setLineDash(low ? [3, 3] : []);
  context.stroke();
  context.setLineDash([]);
}

/** Closed gates are bars across the way, locked ones crossed; open ones leave their posts. */
export function drawGates(
  { context, view, tokens }: Painter,
  { gates }: GroundProgram,
  states: readonly number[],
): void {
  gates.forEach((gate, index) => {
    const x = toX(view, gate.x);
    const y = toY(view, gate.y);
    const width = gate.width * view.scale;
    const height = gate.height * view.scale;
    const [closed, locked] = [states[index] !== 1, states[index] === 2];
    context.strokeStyle = tokens.found;
    context.lineWidth = 1.5;
    context.setLineDash(closed ? [] : [2, 4]);
    context.strokeRect(x, y, width, height);
    context.setLineDash([]);
    if (!closed) return;
    context.fillStyle = faded(tokens.found, 0.35);
    context.fillRect(x, y, width, height);
    if (!locked) return;
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(x + width, y + height);
    context.moveTo(x + width, y);
    context.lineTo(x, y + height);
    context.stroke();
  });
}

/** Plates in the ground, and zones with their names. */
export function drawMarks({ context, view, tokens }: Painter, ground: GroundProgram): void {
  for (const { x, y, width, height } of ground.plates) {
    context.strokeStyle = faded(tokens.found, 0.7);
    context.lineWidth = 1;
    context.setLineDash([1, 3]);
    context.strokeRect(toX(view, x), toY(view, y), width * view.scale, height * view.scale);
    context.setLineDash([]);
  }
  for (const { x, y, width, height, title } of ground.zones) {
    context.strokeStyle = faded(tokens.mute, 0.5);
    context.setLineDash([6, 5]);
    context.strokeRect(toX(view, x), toY(view, y), width * view.scale, height * view.scale);
    context.setLineDash([]);
    if (isMap(view)) continue;
    context.fillStyle = tokens.mute;
    context.font = `10.5px 'Atkinson Hyperlegible Next Variable', sans-serif`;
    context.textAlign = 'left';
    context.fillText(title, toX(view, x) + 4, toY(view, y) + 12);
  }
}

/** Radius of a thing as drawn, in pixels, for one that lies on the ground. */
const THING = 4.5;

/** How large fruit of a weight (kilograms) is against one of 1 kg. */
export function sizeOf(weight: number): number {
  return Math.max(0.6, Math.min(1.6, Math.cbrt(weight)));
}

/** Baskets are square, fruit round, stones pointed; in the air they are larger, over a shadow. */
export function drawThings(painter: Painter, ground: GroundProgram, { things }: Frame): void {
  const { context, view, tokens } = painter;
  ground.things.forEach(({ kind, weight }, index) => {
    const at = index * THING_STRIDE;
    if (at >= things.length) return;
    const [x, y] = [toX(view, things[at]), toY(view, things[at + 1])];
    const z = things[at + 2];
    const carried = things[at + 3] >= 0;
    const whole = isMap(view) ? THING * 0.45 : THING;
    const size = carried ? whole * 0.8 : whole * (1 + 0.4 * z);
    const top = carried ? y - 9 : y - z * 8;
    if (z > 0) {
      context.fillStyle = faded(tokens.dim, 0.4);
      context.beginPath();
      context.arc(x, y, THING, 0, 2 * Math.PI);
      context.fill();
    }
    context.beginPath();
    if (kind === 'fruit') context.arc(x, top, size * 0.8 * sizeOf(weight), 0, 2 * Math.PI);
    else if (kind === 'stone') {
      context.moveTo(x, top - size);
      context.lineTo(x + size, top + size * 0.7);
      context.lineTo(x - size, top + size * 0.7);
      context.closePath();
    } else context.rect(x - size, top - size * 0.8, 2 * size, 1.6 * size);
    context.fillStyle = tokens.found;
    context.fill();
    context.strokeStyle = faded(tokens.night, 0.8);
    context.lineWidth = 1;
    context.stroke();
  });
}

/** The ground and what stands on it. */
export function drawGround(painter: Painter, ground: GroundProgram): void {
  const { context, view, tokens, width, height } = painter;
  context.fillStyle = tokens.night;
  context.fillRect(0, 0, width, height);
  context.strokeStyle = tokens.line;
  context.lineWidth = 1;
  context.strokeRect(
    toX(view, 0),
    toY(view, 0),
    ground.width * view.scale,
    ground.height * view.scale,
  );
  for (const wall of ground.walls) drawWall(painter, wall);
}

/** Dotted routes with their waypoints in visiting order. */
export function drawRoutes({ context, view, tokens }: Painter, ground: GroundProgram): void {
  for (const { points, end } of ground.routes) {
    context.strokeStyle = faded(tokens.mute, 0.55);
    context.setLineDash([2, 5]);
    context.lineWidth = 1.5;
    context.beginPath();
    for (let i = 0; i < points.length; i += 2)
      context.lineTo(toX(view, points[i]), toY(view, points[i + 1]));
    if (end === 'loop') context.closePath();
    context.stroke();
    context.setLineDash([]);
    if (isMap(view)) continue;
    context.fillStyle = tokens.mute;
    context.font = `11px ${FONT_MONO}`;
    context.textAlign = 'left';
    for (let i = 0; i < points.length; i += 2) {
      const x = toX(view, points[i]);
      const y = toY(view, points[i + 1]);
      context.beginPath();
      context.arc(x, y, 2.2, 0, 2 * Math.PI);
      context.fill();
      context.fillText(String(i / 2 + 1), x + 4, y - 4);
    }
  }
}

/** A bar of a round length and the axes' names, in the ground's corner. */
export function drawScale({ context, view, tokens, width, height }: Painter): void {
  const metres = [1, 2, 5, 10, 20].find((length) => length * view.scale >= 36) ?? 20;
  const right = width - 10;
  const bottom = height - 8;
  context.strokeStyle = tokens.mute;
  context.lineWidth = 1;
  context.beginPath();
  context.moveTo(right - metres * view.scale, bottom - 4);
  context.lineTo(right - metres * view.scale, bottom);
  context.lineTo(right, bottom);
  context.lineTo(right, bottom - 4);
  context.stroke();
  context.fillStyle = tokens.mute;
  context.font = `10.5px 'Atkinson Hyperlegible Next Variable', sans-serif`;
  context.textAlign = 'right';
  context.fillText(`${metres} m · x →  y ↓`, right, bottom - 6);
}
