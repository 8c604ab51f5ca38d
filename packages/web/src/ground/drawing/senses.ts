import { BODY_STRIDE, LYING, RAY_STRIDE } from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import { senseTint } from '../../theme/tokens.ts';
import { bodyAt, type Scene } from './bodies.ts';
import { addOutline, outlineOf, type KeptOutlines } from './outlines.ts';
import { drawShade, type Reaches } from './shade.ts';
import { faded, isInSight, isMap, toX, toY, type Painter } from './view.ts';

/** What the senses reach and what they brought. */

/** Over what is no higher a body that stands is seen. */
const SEEN_OVER = 1;

const reachOf = ({ cones }: { cones: readonly { range: number }[] }) =>
  cones.reduce((most, { range }) => Math.max(most, range), 0);

/** How strong cones are drawn: each by itself, the chosen one’s, and many in one shade. */
const APART = 0.07;
const CHOSEN = 0.15;
const TOGETHER = 0.12;

/** Adds what an agent’s cones cover to the path; `each` comes after every one of them. */
function addCones(
  painter: Painter,
  { program, space, frame }: Scene,
  kept: KeptOutlines,
  index: number,
  scale: number,
  each?: () => void,
): void {
  const { sight } = program.archetypes[program.agents[index].archetype];
  if (!sight || index * BODY_STRIDE >= frame.bodies.length) return;
  const { x, y, heading, posture } = bodyAt(frame, index);
  if (posture >= LYING || !isInSight(painter, x, y, reachOf(sight))) return;
  sight.cones.forEach(({ range: reach, halfAngle }, cone) => {
    const fan = { x, y, heading, reach, halfAngle, over: SEEN_OVER };
    const points = outlineOf(kept, `${index} ${cone}`, space, scale, fan);
    addOutline(painter, x, y, points, true);
    each?.();
  });
}

/** What each cone covers. Those of many run together in one shade, under the chosen one’s. */
export function drawCones(painter: Painter, scene: Scene, kept: Reaches): void {
  const { context, view, tokens } = painter;
  const { program, chosen } = scene;
  const fill = (opacity: number) => {
    context.fillStyle = faded(tokens.sight, opacity);
    context.fill();
    context.beginPath();
  };
  context.beginPath();
  if (!scene.together) {
    program.agents.forEach((_, index) =>
      addCones(painter, scene, kept.outlines, index, view.scale, () =>
        fill(index === chosen ? CHOSEN : APART),
      ),
    );
    return;
  }
  const look = { color: tokens.sight, opacity: TOGETHER, goesOn: scene.frame.playing };
  drawShade(painter, kept, look, (behind, scale) =>
    program.agents.forEach((_, index) => addCones(behind, scene, kept.outlines, index, scale)),
  );
  context.beginPath();
  if (chosen < 0 || isMap(view)) return;
  addCones(painter, scene, kept.outlines, chosen, view.scale);
  fill(CHOSEN);
}

/** Lines of sight, ending where they hit: whole where they reach (the more of the body they show, the stronger), with a cross where a wall stops them. */
export function drawRays({ context, view, tokens }: Painter, rays: Float32Array): void {
  context.lineWidth = 1.2;
  for (let i = 0; i < rays.length; i += RAY_STRIDE) {
    const x = toX(view, rays[i + 2]);
    const y = toY(view, rays[i + 3]);
    const clear = rays[i + 4];
    const reaches = clear > 0;
    context.strokeStyle = reaches
      ? faded(tokens.sight, 0.4 + 0.2 * clear)
      : faded(tokens.refuse, 0.8);
    context.setLineDash(reaches ? [] : [4, 4]);
    context.beginPath();
    context.moveTo(toX(view, rays[i]), toY(view, rays[i + 1]));
    context.lineTo(x, y);
    context.stroke();
    context.setLineDash([]);
    if (reaches) continue;
    context.beginPath();
    context.moveTo(x - 3, y - 3);
    context.lineTo(x + 3, y + 3);
    context.moveTo(x + 3, y - 3);
    context.lineTo(x - 3, y + 3);
    context.stroke();
  }
}

/** Seconds a ring takes to reach its size. */
const RING_SECONDS = 0.35;

/** Noises as rings that grow to where they are heard, and fade. */
export function drawNoises({ context, view, tokens }: Painter, noises: Frame['noises']): void {
  for (const { x, y, reach, age } of noises) {
    const grown = Math.min(1, age / RING_SECONDS);
    context.strokeStyle = faded(tokens.sound, 0.75 * (1 - age / 0.8));
    context.lineWidth = 1.5;
    context.beginPath();
    context.arc(toX(view, x), toY(view, y), reach * view.scale * grown, 0, 2 * Math.PI);
    context.stroke();
  }
}

/** What the watched agent knows against what is true: where it believes others are, tied to where they are. */
export function drawKnown(painter: Painter, { frame }: Scene): void {
  const { context, view, tokens } = painter;
  if (!frame.known) return;
  context.font = `10.5px 'Atkinson Hyperlegible Next Variable', sans-serif`;
  context.textAlign = 'left';
  for (const { agent, x, y, seen } of frame.known.others) {
    const truth = bodyAt(frame, agent);
    context.strokeStyle = tokens.sight;
    context.lineWidth = 1.2;
    context.setLineDash([3, 3]);
    context.beginPath();
    context.arc(toX(view, x), toY(view, y), 11, 0, 2 * Math.PI);
    context.moveTo(toX(view, x), toY(view, y));
    context.lineTo(toX(view, truth.x), toY(view, truth.y));
    context.stroke();
    context.setLineDash([]);
    const off = Math.hypot(truth.x - x, truth.y - y);
    context.fillStyle = tokens.sight;
    const words = seen ? 'seen here' : `believed here, ${off.toFixed(1)} m off`;
    const left = Math.min(toX(view, x) + 14, painter.width - context.measureText(words).width - 4);
    context.fillText(words, left, toY(view, y) - 8);
  }
  for (const { sense, what, x, y, age } of frame.known.percepts) {
    const tint = senseTint(sense, tokens);
    const [left, top] = [toX(view, x), toY(view, y)];
    context.fillStyle = tint;
    context.beginPath();
    context.moveTo(left, top - 5);
    context.lineTo(left + 5, top);
    context.lineTo(left, top + 5);
    context.lineTo(left - 5, top);
    context.fill();
    context.fillText(`${what}, ${age.toFixed(1)} s ago`, left + 8, top + 12);
  }
}

/** Places to search (done ones filled, those that an agent is on the way to ringed), and places taken around a target. */
export function drawPlaces({ context, view, tokens }: Painter, frame: Frame): void {
  if (!frame.places) return;
  const { searched, booked } = frame.places;
  context.lineWidth = 1.4;
  for (let i = 0; i < searched.length; i += 3) {
    const who = searched[i + 2];
    context.beginPath();
    context.arc(toX(view, searched[i]), toY(view, searched[i + 1]), 4, 0, 2 * Math.PI);
    context.strokeStyle = who >= 0 ? tokens.lamp : faded(tokens.told, 0.9);
    context.stroke();
    if (who !== -2) continue;
    context.fillStyle = faded(tokens.told, 0.8);
    context.fill();
  }
  for (let i = 0; i < booked.length; i += 3) {
    const [x, y] = [toX(view, booked[i]), toY(view, booked[i + 1])];
    context.strokeStyle = tokens.lamp;
    context.strokeRect(x - 4, y - 4, 8, 8);
  }
}
