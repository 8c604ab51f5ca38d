import {
  BODY_STRIDE,
  castRay,
  firstMind,
  RAY_STRIDE,
  type Program,
  type Walls,
} from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import { faded, toX, toY, type Painter } from './view.ts';

const WEDGE_STEPS = 28;
/** Bodies are never drawn smaller than this radius, in pixels. */
const SMALLEST = 7;

export interface Scene {
  program: Program;
  walls: Walls;
  frame: Frame;
  /** The agent that is watched; −1 for none. */
  chosen: number;
  played: number;
}

export function bodyAt(
  frame: Frame,
  index: number,
): { x: number; y: number; heading: number; awareness: number; leaf: number } {
  const at = index * BODY_STRIDE;
  const { bodies } = frame;
  return {
    x: bodies[at],
    y: bodies[at + 1],
    heading: bodies[at + 2],
    awareness: bodies[at + 3],
    leaf: bodies[at + 4],
  };
}

function factionsOf(program: Program): string[] {
  return [...new Set(program.archetypes.map(({ faction }) => faction))].sort();
}

export function tintOf(program: Program, index: number, tints: readonly string[]): string {
  const faction = program.archetypes[program.agents[index].archetype].faction;
  return tints[factionsOf(program).indexOf(faction) % tints.length];
}

/** What each cone covers, cut off where walls stand. */
export function drawCones(
  { context, view, tokens }: Painter,
  { program, walls, frame, chosen }: Scene,
): void {
  context.save();
  context.beginPath();
  context.rect(toX(view, 0), toY(view, 0), walls.width * view.scale, walls.height * view.scale);
  context.clip();
  program.agents.forEach((agent, index) => {
    const { sight } = program.archetypes[agent.archetype];
    if (!sight || index * BODY_STRIDE >= frame.bodies.length) return;
    const { x, y, heading } = bodyAt(frame, index);
    for (const cone of sight.cones) {
      context.beginPath();
      context.moveTo(toX(view, x), toY(view, y));
      for (let i = 0; i <= WEDGE_STEPS; i++) {
        const angle = heading + cone.halfAngle * (2 * (i / WEDGE_STEPS) - 1);
        const endX = x + Math.cos(angle) * cone.range;
        const endY = y + Math.sin(angle) * cone.range;
        const t = castRay(walls, x, y, endX, endY);
        context.lineTo(toX(view, x + (endX - x) * t), toY(view, y + (endY - y) * t));
      }
      context.closePath();
      context.fillStyle = faded(tokens.sight, index === chosen ? 0.15 : 0.07);
      context.fill();
    }
  });
  context.restore();
}

/** Lines of sight, ending where they hit: whole where they reach, with a cross where a wall stops them. */
export function drawRays({ context, view, tokens }: Painter, rays: Float32Array): void {
  context.lineWidth = 1.2;
  for (let i = 0; i < rays.length; i += RAY_STRIDE) {
    const x = toX(view, rays[i + 2]);
    const y = toY(view, rays[i + 3]);
    const reaches = rays[i + 4] === 1;
    context.strokeStyle = reaches ? tokens.sight : faded(tokens.refuse, 0.8);
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

export function drawPaths(
  { context, view, tokens }: Painter,
  paths: NonNullable<Frame['paths']>,
): void {
  context.strokeStyle = faded(tokens.done, 0.8);
  context.lineWidth = 1.3;
  for (const { points } of paths) {
    context.beginPath();
    for (let i = 0; i < points.length; i += 2)
      context.lineTo(toX(view, points[i]), toY(view, points[i + 1]));
    context.stroke();
    const x = toX(view, points[points.length - 2]);
    const y = toY(view, points[points.length - 1]);
    context.beginPath();
    context.arc(x, y, 3, 0, 2 * Math.PI);
    context.stroke();
  }
}

/** A drop: round behind, its point where the body faces. */
function dropPath(context: CanvasRenderingContext2D, radius: number): void {
  context.beginPath();
  context.moveTo(radius * 1.9, 0);
  context.bezierCurveTo(
    radius * 1.1,
    -radius * 0.55,
    radius * 0.6,
    -radius,
    -radius * 0.1,
    -radius,
  );
  context.bezierCurveTo(-radius * 1.2, -radius, -radius * 1.2, radius, -radius * 0.1, radius);
  context.bezierCurveTo(radius * 0.6, radius, radius * 1.1, radius * 0.55, radius * 1.9, 0);
}

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

export function drawBodies(painter: Painter, { program, frame, chosen, played }: Scene): void {
  const { context, view, tokens, width } = painter;
  program.agents.forEach((agent, index) => {
    if (index * BODY_STRIDE >= frame.bodies.length) return;
    const body = bodyAt(frame, index);
    const archetype = program.archetypes[agent.archetype];
    const radius = Math.max(SMALLEST, archetype.radius * view.scale);
    const x = toX(view, body.x);
    const y = toY(view, body.y);
    context.save();
    context.translate(x, y);
    context.rotate(body.heading);
    dropPath(context, radius);
    context.fillStyle = tintOf(program, index, tokens.factions);
    context.fill();
    context.strokeStyle = index === chosen ? tokens.bone : faded(tokens.night, 0.7);
    context.lineWidth = index === chosen ? 1.8 : 1;
    context.stroke();
    context.restore();
    if (archetype.sight) drawWick(painter, wickX(x, radius), y, body.awareness);
    const mind = firstMind(program, agent.archetype);
    const state = mind && body.leaf >= 0 ? mind.machine.states[body.leaf]?.title : undefined;
    const label =
      index === played ? `${agent.title} (you)` : state ? `${agent.title} · ${state}` : agent.title;
    context.font = `${index === chosen ? 600 : 400} 11.5px 'Atkinson Hyperlegible Next Variable', sans-serif`;
    context.textAlign = 'center';
    const half = context.measureText(label).width / 2;
    const middle = Math.min(width - half - 4, Math.max(half + 4, x));
    context.lineWidth = 3;
    context.strokeStyle = faded(tokens.night, 0.8);
    // Above for the played one: it is the one that others run into.
    const line = index === played ? y - radius * 1.9 - 5 : y + radius * 1.9 + 11;
    context.strokeText(label, middle, line);
    context.fillStyle = index === chosen ? tokens.bone : tokens.mute;
    context.fillText(label, middle, line);
  });
  for (const { agent, text } of frame.speech) {
    if (agent * BODY_STRIDE >= frame.bodies.length) continue;
    const body = bodyAt(frame, agent);
    drawSpeech(painter, toX(view, body.x), toY(view, body.y) - 14, text);
  }
}
