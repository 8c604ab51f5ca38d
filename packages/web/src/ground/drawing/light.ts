import { BODY_STRIDE, LYING, type GroundProgram, type GroundSpace } from '@crooked-lantern/core';
import { bodyAt, type Scene } from './bodies.ts';
import { addOutline, outlineOf, type Fan } from './outlines.ts';
import { drawShade, type Reaches } from './shade.ts';
import { faded, isInSight, isMap, toX, toY, type Painter } from './view.ts';

/** Light drawn as light: bright near its source, ending where walls stop it. */

/** Lamps hang this high, and shine over what is lower. */
const LAMP_OVER = 1.5;
const LANTERN_OVER = 1;

function source(x: number, y: number, reach: number, over: number): Fan {
  return { x, y, heading: 0, reach, halfAngle: Math.PI, over };
}

/** Light around (0, 0) that ends at `reach` metres. */
function glowOf(
  { context, view, tokens }: Painter,
  reach: number,
  strength: number,
): CanvasGradient {
  const glow = context.createRadialGradient(0, 0, 0, 0, 0, reach * view.scale);
  glow.addColorStop(0, faded(tokens.found, 0.3 * strength));
  glow.addColorStop(1, faded(tokens.found, 0));
  return glow;
}

/** Fills the outline of a source at (x, y) with a glow. */
function fillOutline(
  { context, view }: Painter,
  points: Float32Array,
  x: number,
  y: number,
  glow: CanvasGradient,
): void {
  const { scale } = view;
  context.save();
  context.translate(toX(view, x), toY(view, y));
  context.fillStyle = glow;
  context.beginPath();
  for (let i = 0; i < points.length; i += 2)
    context.lineTo(points[i] * scale, points[i + 1] * scale);
  context.fill();
  context.restore();
}

/** What the lamps light. */
export function drawLamps(painter: Painter, space: GroundSpace, ground: GroundProgram): void {
  const { context, view, tokens } = painter;
  for (const { name, x, y, reach, strength } of ground.lamps) {
    if (!isInSight(painter, x, y, reach)) continue;
    const lit = outlineOf(new Map(), name, space, view.scale, source(x, y, reach, LAMP_OVER));
    fillOutline(painter, lit, x, y, glowOf(painter, reach, strength));
    context.fillStyle = tokens.found;
    context.beginPath();
    context.arc(toX(view, x), toY(view, y), isMap(view) ? 1.2 : 2.5, 0, 2 * Math.PI);
    context.fill();
  }
}

/** How strong light is drawn that does not fade toward its rim. */
const FLAT = 0.12;

/** The light of lanterns on the move; that of many runs together in one shade. */
export function drawLanterns(painter: Painter, scene: Scene, kept: Reaches): void {
  const { program, space, frame, together } = scene;
  const glows = program.archetypes.map(
    ({ lantern }) => lantern && !together && glowOf(painter, lantern.reach, lantern.strength),
  );
  const drawAll = (onto: Painter, scale: number) =>
    program.agents.forEach(({ archetype }, index) => {
      const { lantern } = program.archetypes[archetype];
      if (!lantern || index * BODY_STRIDE >= frame.bodies.length) return;
      const { x, y, posture } = bodyAt(frame, index);
      if (posture >= LYING) return;
      const { reach } = lantern;
      if (!isInSight(onto, x, y, reach)) return;
      const lit = outlineOf(kept.outlines, index, space, scale, source(x, y, reach, LANTERN_OVER));
      const glow = glows[archetype];
      if (glow) fillOutline(onto, lit, x, y, glow);
      else addOutline(onto, x, y, lit);
    });
  if (!together) return drawAll(painter, painter.view.scale);
  const look = { color: painter.tokens.found, opacity: FLAT, goesOn: frame.playing };
  drawShade(painter, kept, look, drawAll);
}
