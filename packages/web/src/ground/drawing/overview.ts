import { AWAY, SIDE_STRIDE, type GroundProgram, type Program } from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import { bodyAt, tintOf } from './bodies.ts';
import { faded, type Painter } from './view.ts';

/** The whole ground in a corner of a close view: where agents are, and which part of it is shown. */

/** All agents, or only those that the played side knows of. */
export type Overview = 'all' | 'known' | 'off';

/** Pixels of its longer side, and from the edge of the picture. */
const SIDE = 150;
const FROM_EDGE = 10;

/** Pixels it takes from the foot of the picture up. */
export function overviewHeight(
  { width, height }: Pick<GroundProgram, 'width' | 'height'>,
  overview: Overview,
): number {
  if (overview === 'off') return FROM_EDGE;
  return FROM_EDGE + (SIDE * height) / Math.max(width, height);
}

export function drawOverview(
  painter: Painter,
  program: Program,
  frame: Frame,
  overview: Overview,
): void {
  if (overview === 'off') return;
  const { context, view, tokens, width, height } = painter;
  const { ground } = program;
  const scale = SIDE / Math.max(ground.width, ground.height);
  const left = FROM_EDGE;
  const top = height - ground.height * scale - FROM_EDGE;
  const dot = (agent: number, x: number, y: number, isNow: boolean) => {
    context.fillStyle = faded(tintOf(program, agent, tokens.factions), isNow ? 1 : 0.45);
    context.beginPath();
    context.arc(
      left + x * scale,
      top + y * scale,
      agent === frame.played ? 3.2 : 2,
      0,
      2 * Math.PI,
    );
    context.fill();
    if (agent !== frame.played) return;
    context.strokeStyle = tokens.bone;
    context.lineWidth = 1.2;
    context.stroke();
  };
  context.save();
  context.fillStyle = faded(tokens.panel, 0.88);
  context.strokeStyle = tokens.line2;
  context.lineWidth = 1;
  context.fillRect(left, top, ground.width * scale, ground.height * scale);
  context.strokeRect(left, top, ground.width * scale, ground.height * scale);
  context.beginPath();
  context.rect(left, top, ground.width * scale, ground.height * scale);
  context.clip();
  context.fillStyle = tokens.line2;
  for (const wall of ground.walls)
    context.fillRect(
      left + wall.x * scale,
      top + wall.y * scale,
      Math.max(1, wall.width * scale),
      Math.max(1, wall.height * scale),
    );
  if (overview === 'all' || !frame.side) {
    program.agents.forEach((_, agent) => {
      const { x, y, posture } = bodyAt(frame, agent);
      if (posture !== AWAY) dot(agent, x, y, true);
    });
  } else {
    for (let i = 0; i < frame.side.length; i += SIDE_STRIDE)
      dot(frame.side[i], frame.side[i + 1], frame.side[i + 2], frame.side[i + 3] === 1);
  }
  context.strokeStyle = faded(tokens.bone, 0.7);
  context.lineWidth = 1;
  context.strokeRect(
    left + (-view.left / view.scale) * scale,
    top + (-view.top / view.scale) * scale,
    (width / view.scale) * scale,
    (height / view.scale) * scale,
  );
  context.restore();
}
