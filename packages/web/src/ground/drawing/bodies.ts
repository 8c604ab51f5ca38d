import {
  AWAY,
  BODY_STRIDE,
  CROUCHED,
  DEAD,
  LYING,
  type Program,
  type GroundSpace,
} from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import type { Doing } from '../../ledger/use-doing.ts';
import { labelled, placeLabels } from './labels.ts';
import { faded, isInSight, isMap, toX, toY, type Painter, type View } from './view.ts';

/** Bodies are never drawn smaller than this radius, in pixels. */
const SMALLEST = 7;
/** The same on a map, where bodies are many. */
const SMALLEST_ON_MAP = 3.2;
/** Metres around a body within which it is drawn. */
const AROUND_BODY = 2;

/** With more bodies than this, lights, cones and flames of all at once would be one blob. */
const CROWD = 24;

/** Where the posture stands among the numbers of a body. */
const POSTURE = 6;

export interface Scene {
  program: Program;
  /** With gates as they are in the frame. */
  space: GroundSpace;
  frame: Frame;
  /** The agent that is watched; −1 for none. */
  chosen: number;
  doing: Doing;
  /** There are so many that what all of them see and light runs together in one shade. */
  together: boolean;
}

function runsTogether(view: View, { bodies }: Frame): boolean {
  if (isMap(view)) return true;
  let count = 0;
  for (let at = POSTURE; at < bodies.length; at += BODY_STRIDE) if (bodies[at] !== AWAY) count++;
  return count > CROWD;
}

export function sceneOf(view: View, parts: Omit<Scene, 'together'>): Scene {
  return { ...parts, together: runsTogether(view, parts.frame) };
}

export interface BodyPicture {
  x: number;
  y: number;
  heading: number;
  awareness: number;
  posture: number;
  carried: number;
}

export function bodyAt({ bodies }: Frame, index: number): BodyPicture {
  const at = index * BODY_STRIDE;
  return {
    x: bodies[at],
    y: bodies[at + 1],
    heading: bodies[at + 2],
    awareness: bodies[at + 3],
    posture: bodies[at + POSTURE],
    carried: bodies[at + 7],
  };
}

export function tintOf(program: Program, index: number, tints: readonly string[]): string {
  const { side } = program.archetypes[program.agents[index].archetype];
  return tints[Math.max(0, side) % tints.length];
}

/** A drop of radius 1: round behind, its point where the body faces. */
const DROP = new Path2D(
  'M1.9 0C1.1 -0.55 0.6 -1 -0.1 -1C-1.2 -1 -1.2 1 -0.1 1C0.6 1 1.1 0.55 1.9 0Z',
);

function drawWick({ context, tokens }: Painter, x: number, y: number, awareness: number): void {
  const height = 20;
  context.fillStyle = tokens.line2;
  context.beginPath();
  context.roundRect(x - 2, y - height / 2, 4, height, 2);
  context.fill();
  if (awareness <= 0) return;
  context.fillStyle = tokens.lamp;
  context.beginPath();
  context.roundRect(x - 2, y + height / 2 - height * awareness, 4, height * awareness, 2);
  context.fill();
}

function drawSpeech(painter: Painter, x: number, y: number, text: string): void {
  const { context, tokens, width } = painter;
  context.font = `italic 12px 'Atkinson Hyperlegible Next Variable', sans-serif`;
  const half = context.measureText(text).width / 2 + 7;
  const middle = Math.min(width - half - 4, Math.max(half + 4, x));
  context.fillStyle = tokens.raised;
  context.strokeStyle = tokens.line2;
  context.lineWidth = 1;
  context.beginPath();
  context.roundRect(middle - half, y - 22, half * 2, 20, 6);
  context.fill();
  context.stroke();
  context.fillStyle = tokens.bone;
  context.textAlign = 'center';
  context.fillText(text, middle, y - 8);
}

/** Left of the body, or right where there is no room. */
function wickX(x: number, radius: number): number {
  const away = radius * 1.9 + 5;
  return x - away < 4 ? x + away : x - away;
}

/** Where the run has the bodies now, as outlines: for a picture that shows something else. */
export function drawOutlines(painter: Painter, program: Program, frame: Frame): void {
  const { context, view, tokens } = painter;
  program.agents.forEach((agent, index) => {
    if (index * BODY_STRIDE >= frame.bodies.length) return;
    const { x, y, heading, posture } = bodyAt(frame, index);
    if (posture === AWAY) return;
    const radius = Math.max(5, program.archetypes[agent.archetype].radius * view.scale);
    context.save();
    context.translate(toX(view, x), toY(view, y));
    context.rotate(heading);
    context.scale(radius, radius);
    context.strokeStyle = faded(
      tintOf(program, index, tokens.factions),
      posture >= LYING ? 0.5 : 1,
    );
    context.lineWidth = 1.4 / radius;
    context.stroke(DROP);
    context.restore();
  });
}

/** What is written beside a body, best first: who it is and all that it does, the innermost of that, or only who. */
function labelTexts({ program, frame, doing }: Scene, index: number, body: BodyPicture): string[] {
  const { name, title } = program.agents[index];
  if (index === frame.played) return [`${title} (you)`];
  if (body.posture === DEAD) return [`${title} · dead`, title];
  if (body.posture >= LYING) return [`${title} · asleep`, title];
  const does = doing(name, frame.tick);
  const texts = does.length > 0 ? [does.join(' › '), does[does.length - 1]] : [];
  return [...new Set(texts)].map((text) => `${title} · ${text}`).concat(title);
}

/** Names, the chosen one’s and the played one’s before others’. */
function drawLabels(painter: Painter, scene: Scene): void {
  const { context, view, tokens, width, height } = painter;
  const { program, frame, chosen } = scene;
  const smallest = isMap(view) ? SMALLEST_ON_MAP : SMALLEST;
  const inSight = program.agents.flatMap((_, index) => {
    if (index * BODY_STRIDE >= frame.bodies.length) return [];
    const body = bodyAt(frame, index);
    const [x, y] = [toX(view, body.x), toY(view, body.y)];
    if (body.posture === AWAY || x < 0 || x > width || y < 0 || y > height) return [];
    return [{ index, body, x, y }];
  });
  const wishes = labelled(inSight, scene).map(({ index, body, x, y }) => {
    const { radius } = program.archetypes[program.agents[index].archetype];
    const away = Math.max(smallest, radius * view.scale) * 1.9;
    const [above, below] = [y - away - 5, y + away + 11];
    // Above for the played one: it is the one that others run into.
    const lines = index === frame.played ? [above, below] : [below, above];
    return { index, middle: x, lines, texts: labelTexts(scene, index, body) };
  });
  const setFont = (weight: number) => {
    context.font = `${weight} 11.5px 'Atkinson Hyperlegible Next Variable', sans-serif`;
  };
  setFont(400);
  const placed = placeLabels(wishes, width, (text) => context.measureText(text).width);
  context.textAlign = 'center';
  context.lineWidth = 3;
  context.strokeStyle = faded(tokens.night, 0.8);
  placed.forEach((label, i) => {
    if (!label) return;
    const isChosen = wishes[i].index === chosen;
    setFont(isChosen ? 600 : 400);
    context.strokeText(label.text, label.middle, label.line);
    context.fillStyle = isChosen ? tokens.bone : tokens.mute;
    context.fillText(label.text, label.middle, label.line);
  });
}

export function drawBodies(painter: Painter, scene: Scene, wicks: boolean): void {
  const { program, frame, chosen, together } = scene;
  const { context, view, tokens } = painter;
  const smallest = isMap(view) ? SMALLEST_ON_MAP : SMALLEST;
  const edge = faded(tokens.night, 0.7);
  const burning: [x: number, y: number, awareness: number][] = [];
  // One transform for each body takes less than to save, move, turn, scale and restore.
  const { a: scale, e: left, f: top } = context.getTransform();
  program.agents.forEach((agent, index) => {
    if (index * BODY_STRIDE >= frame.bodies.length) return;
    const body = bodyAt(frame, index);
    if (body.posture === AWAY || !isInSight(painter, body.x, body.y, AROUND_BODY)) return;
    const archetype = program.archetypes[agent.archetype];
    const radius = Math.max(smallest, archetype.radius * view.scale);
    const x = toX(view, body.x);
    const y = toY(view, body.y);
    const tint = tintOf(program, index, tokens.factions);
    const lying = body.posture >= LYING;
    // Crouched it is smaller, and a lying body is only an outline.
    const size = body.posture === CROUCHED ? radius * 0.75 : radius;
    const [dx, dy] = [scale * size * Math.cos(body.heading), scale * size * Math.sin(body.heading)];
    context.setTransform(dx, dy, -dy, dx, scale * x + left, scale * y + top);
    context.fillStyle = lying ? faded(tint, 0.25) : tint;
    context.fill(DROP);
    context.strokeStyle = index === chosen ? tokens.bone : lying ? tint : edge;
    context.lineWidth = (index === chosen ? 1.8 : 1) / size;
    context.stroke(DROP);
    // On a map only a wick that burns is drawn; among many that of the chosen one and of those who are noticing.
    const changes = body.awareness > 0 && body.awareness < 1;
    const burns = isMap(view) ? body.awareness > 0 : !together || index === chosen || changes;
    if (wicks && archetype.sight && !lying && burns)
      burning.push([wickX(x, radius), y, body.awareness]);
  });
  context.setTransform(scale, 0, 0, scale, left, top);
  for (const [x, y, awareness] of burning) drawWick(painter, x, y, awareness);
  drawLabels(painter, scene);
  for (const { agent, text } of frame.speech) {
    if (agent * BODY_STRIDE >= frame.bodies.length) continue;
    const body = bodyAt(frame, agent);
    // What a director says stands above the ground.
    if (body.posture === AWAY) continue;
    drawSpeech(painter, toX(view, body.x), toY(view, body.y) - 14, text);
  }
}
