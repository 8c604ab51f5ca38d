import { BODY_STRIDE, castRay, type GroundProgram, type Walls } from '@crooked-lantern/core';
import { bodyAt, type Scene } from './bodies.ts';
import { faded, toX, toY, type Painter, type View } from './view.ts';

/** Light drawn as light: bright near its source, ending where walls stop it. */

const STEPS = 72;
/** Lamps hang this high, and shine over what is lower. */
const LAMP_OVER = 1.5;
const LANTERN_OVER = 1;

/** Outlines of what each lamp lights, kept while gates stay as they are. */
export interface LitAreas {
  lamps: GroundProgram['lamps'];
  gates: string;
  outlines: Float32Array[];
}

function outline(walls: Walls, x: number, y: number, reach: number, over: number): Float32Array {
  const points = new Float32Array(2 * STEPS);
  for (let i = 0; i < STEPS; i++) {
    const angle = (2 * Math.PI * i) / STEPS;
    const endX = Math.min(walls.width, Math.max(0, x + Math.cos(angle) * reach));
    const endY = Math.min(walls.height, Math.max(0, y + Math.sin(angle) * reach));
    const t = castRay(walls, x, y, endX, endY, 0, over);
    points[2 * i] = x + (endX - x) * t;
    points[2 * i + 1] = y + (endY - y) * t;
  }
  return points;
}

function fillOutline(
  context: CanvasRenderingContext2D,
  view: View,
  points: Float32Array,
  x: number,
  y: number,
  reach: number,
  color: string,
  strength: number,
): void {
  const [left, top] = [toX(view, x), toY(view, y)];
  const glow = context.createRadialGradient(left, top, 0, left, top, reach * view.scale);
  glow.addColorStop(0, faded(color, 0.3 * strength));
  glow.addColorStop(1, faded(color, 0));
  context.fillStyle = glow;
  context.beginPath();
  for (let i = 0; i < points.length; i += 2)
    context.lineTo(toX(view, points[i]), toY(view, points[i + 1]));
  context.closePath();
  context.fill();
}

/** The lamps' light and that of lanterns on the move. `kept` is what was worked out for the frame before. */
export function drawLight(painter: Painter, scene: Scene, kept: LitAreas): void {
  const { context, view, tokens } = painter;
  const { program, walls, frame } = scene;
  const { lamps } = program.ground;
  const gates = frame.gates.join('');
  if (kept.lamps !== lamps || kept.gates !== gates) {
    kept.lamps = lamps;
    kept.gates = gates;
    kept.outlines = lamps.map(({ x, y, reach }) => outline(walls, x, y, reach, LAMP_OVER));
  }
  lamps.forEach(({ x, y, reach, strength }, i) => {
    fillOutline(context, view, kept.outlines[i], x, y, reach, tokens.found, strength);
    context.fillStyle = tokens.found;
    context.beginPath();
    context.arc(toX(view, x), toY(view, y), 2.5, 0, 2 * Math.PI);
    context.fill();
  });
  program.agents.forEach(({ archetype }, index) => {
    const { lantern } = program.archetypes[archetype];
    if (!lantern || index * BODY_STRIDE >= frame.bodies.length) return;
    const { x, y } = bodyAt(frame, index);
    const { reach, strength } = lantern;
    const lit = outline(walls, x, y, reach, LANTERN_OVER);
    fillOutline(context, view, lit, x, y, reach, tokens.found, strength);
  });
}
