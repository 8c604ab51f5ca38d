import type { FightPicture, FighterPicture, HitResult } from '@crooked-lantern/core';
import type { Frame } from '../../engine/protocol.ts';
import { healthTint, hitTint } from '../../ledger/mark-words.ts';
import { FONT_MONO } from '../../theme/tokens.ts';
import { bodyAt, type Scene } from './bodies.ts';
import { faded, toX, toY, type Painter } from './view.ts';

/** Moves, guards, what flies, and where hits landed, from above. */

/** A sector in front of a body: what a move or a guard covers. */
function sector(
  { context, view }: Painter,
  x: number,
  y: number,
  heading: number,
  halfArc: number,
  from: number,
  to: number,
): void {
  const [px, py] = [toX(view, x), toY(view, y)];
  context.beginPath();
  context.arc(px, py, to * view.scale, heading - halfArc, heading + halfArc);
  context.arc(px, py, from * view.scale, heading + halfArc, heading - halfArc, true);
  context.closePath();
}

function drawMove(
  painter: Painter,
  { program, frame }: Scene,
  { agent, move }: FighterPicture,
  inFull: boolean,
): void {
  const { context, tokens } = painter;
  const archetype = program.archetypes[program.agents[agent].archetype];
  const made = archetype.moves.find(({ name }) => name === move?.name);
  if (!move || !made || made.kind === 'dodge') return;
  // Among many only what can still hit an agent is shown.
  if (!inFull && move.phase === 'recovery') return;
  const { x, y } = bodyAt(frame, agent);
  const reach = archetype.radius + made.reach;
  const halfArc = made.kind === 'strike' ? made.halfArc : Math.max(0.02, made.spread);
  sector(painter, x, y, move.heading, halfArc, archetype.radius, reach);
  context.lineWidth = 1;
  if (move.phase === 'active') {
    context.fillStyle = faded(tokens.lamp, 0.55);
    context.fill();
  } else {
    context.setLineDash([3, 3]);
    context.strokeStyle = faded(tokens.harm, move.phase === 'windUp' ? 0.9 : 0.3);
    context.stroke();
    context.setLineDash([]);
  }
  if (move.phase !== 'windUp') return;
  // It fills up until it strikes, so that one sees when.
  const filled = archetype.radius + (reach - archetype.radius) * move.share;
  sector(painter, x, y, move.heading, halfArc, archetype.radius, filled);
  context.fillStyle = faded(tokens.harm, 0.25);
  context.fill();
}

function drawGuard(painter: Painter, { program, frame }: Scene, fighter: FighterPicture): void {
  const { context, tokens, view } = painter;
  const archetype = program.archetypes[program.agents[fighter.agent].archetype];
  const guard = archetype.guards[fighter.guard];
  if (!guard) return;
  const { x, y, heading } = bodyAt(frame, fighter.agent);
  context.beginPath();
  context.arc(
    toX(view, x),
    toY(view, y),
    (archetype.radius + 0.15) * view.scale,
    heading - guard.halfArc,
    heading + guard.halfArc,
  );
  context.strokeStyle = tokens.done;
  context.lineWidth = 3;
  context.stroke();
}

/** Pixels that the bar of full health is wide; in a crowd bars would cover each other. */
const BAR = 28;
const BAR_IN_CROWD = 14;

/** A short bar over a body: how much of its health is left. In a crowd only over agents that have lost some. */
function drawHealth(painter: Painter, scene: Scene, fighter: FighterPicture): void {
  const { program, frame, together, chosen } = scene;
  if (fighter.health === null) return;
  if (together && fighter.health >= 1 && fighter.agent !== chosen) return;
  const bar = together && fighter.agent !== chosen ? BAR_IN_CROWD : BAR;
  const { context, tokens, view } = painter;
  const { radius } = program.archetypes[program.agents[fighter.agent].archetype];
  const body = bodyAt(frame, fighter.agent);
  const [x, y] = [toX(view, body.x) - bar / 2, toY(view, body.y) - radius * view.scale - 8];
  context.fillStyle = faded(tokens.night, 0.8);
  context.fillRect(x - 1, y - 1, bar + 2, 5);
  context.fillStyle = healthTint(fighter.health, tokens);
  context.fillRect(x, y, bar * fighter.health, 3);
}

function drawHit(painter: Painter, hit: Frame['hits'][number], inFull: boolean): void {
  const { context, tokens, view } = painter;
  const [x, y] = [toX(view, hit.x), toY(view, hit.y)];
  const opacity = Math.max(0, 1 - hit.age);
  context.strokeStyle = faded(hitTint(hit.result as HitResult, tokens), opacity);
  context.fillStyle = context.strokeStyle;
  context.lineWidth = 2;
  const size = 4 + 5 * hit.age;
  context.beginPath();
  for (let i = 0; i < 4; i++) {
    const angle = (i * Math.PI) / 2 + Math.PI / 4;
    context.moveTo(x + Math.cos(angle) * size * 0.4, y + Math.sin(angle) * size * 0.4);
    context.lineTo(x + Math.cos(angle) * size, y + Math.sin(angle) * size);
  }
  context.stroke();
  if (!inFull) return;
  context.font = `600 11px ${FONT_MONO}`;
  context.textAlign = 'center';
  const words = hit.result === 'landed' ? `−${Number(hit.harm.toFixed(1))}` : hit.result;
  context.fillText(words, x, y - 8 - 10 * hit.age);
}

export function drawFights(painter: Painter, scene: Scene, fights: FightPicture | null): void {
  const { context, tokens, view } = painter;
  // Words of many would cover each other.
  const inFull = !scene.together;
  for (const fighter of fights?.fighters ?? []) {
    if (fighter.agent >= scene.program.agents.length) continue;
    drawMove(painter, scene, fighter, inFull);
    drawGuard(painter, scene, fighter);
    drawHealth(painter, scene, fighter);
    if (!fighter.staggered || !inFull) continue;
    const body = bodyAt(scene.frame, fighter.agent);
    context.fillStyle = tokens.refuse;
    context.font = `600 11px ${FONT_MONO}`;
    context.textAlign = 'center';
    const { radius } = scene.program.archetypes[scene.program.agents[fighter.agent].archetype];
    const above = radius * view.scale + 30;
    context.fillText('staggered', toX(view, body.x), toY(view, body.y) - above);
  }
  context.fillStyle = tokens.harm;
  for (const [x, y, , radius] of fights?.shots ?? []) {
    context.beginPath();
    context.arc(toX(view, x), toY(view, y), Math.max(2.5, radius * view.scale), 0, Math.PI * 2);
    context.fill();
  }
  for (const hit of scene.frame.hits) drawHit(painter, hit, inFull);
}
