import type { GroundProgram } from '@crooked-lantern/core';
import { faded, toX, toY, type Painter } from './view.ts';

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
  context.beginPath();
  context.roundRect(x, y, width, height, wall.kind === 'hedge' ? Math.min(width, height) / 2 : 1);
  context.fillStyle = wall.kind === 'hedge' ? tokens.hedge : tokens.wall;
  context.fill();
  context.strokeStyle = tokens.line2;
  context.lineWidth = 1;
  context.stroke();
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
    context.fillStyle = tokens.mute;
    context.font = `${10}px 'Atkinson Hyperlegible Mono Variable', monospace`;
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
