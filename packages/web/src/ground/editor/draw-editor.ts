import {
  GATE_FIELDS,
  GROUND_FIELDS,
  numberOf,
  THING_FIELDS,
  USUAL_VIEW,
  WALL_FIELDS,
  type GroundDocument,
  type GroundProgram,
  type PointDocument,
  type ProjectDocument,
  type WalkableArea,
  type WallKind,
} from '@crooked-lantern/core';
import { drawWalkable } from '../drawing/motion.ts';
import { drawGates, drawGround, drawMarks, sizeOf } from '../drawing/scene.ts';
import { faded, toX, toY, type Painter } from '../drawing/view.ts';
import { layerOf, moved, partAt, partsOf, type AnyPart, type PartRef } from './parts.ts';
import { shortWords, spawnsOf } from './game/wave-words.ts';
import { radiusOf } from './placing.ts';
import type { LayerSwitches } from './use-ground-editor.ts';

/** The ground as it is written, with what is chosen and what is being moved or placed. */

export interface EditorScene {
  document: ProjectDocument;
  ground: GroundDocument;
  layers: LayerSwitches;
  chosen: readonly PartRef[];
  area: WalkableArea;
  /** Areas no way leads to from the largest, with what they are called. */
  apart: { x: number; y: number; name: string }[];
  /** Metres that what is chosen is being dragged by, and why it can't be there. */
  drag: { dx: number; dy: number; reason: string | null } | null;
  /** What is being placed, and why it can't be there. */
  ghost: { part: AnyPart; kind: PartRef['kind']; reason: string | null } | null;
}

const SMALL = `10.5px 'Atkinson Hyperlegible Next Variable', sans-serif`;

/** The parts of the running ground's form that the drawings share, made from what is written. */
function asProgram(ground: GroundDocument, hidden: LayerSwitches['hidden']): GroundProgram {
  const shown = (layer: LayerSwitches['hidden'][number]) => !hidden.includes(layer);
  const box = ({ at, size }: { at: PointDocument; size: PointDocument }) => ({
    x: at[0],
    y: at[1],
    width: size[0],
    height: size[1],
  });
  const named = <T extends object, R>(
    record: Record<string, T> | undefined,
    make: (part: T, name: string) => R,
  ): R[] => Object.entries(record ?? {}).map(([name, part]) => make(part, name));
  return {
    name: '',
    title: ground.title,
    view: ground.view ?? USUAL_VIEW,
    width: ground.width,
    height: ground.height,
    light: numberOf(ground, 'light', GROUND_FIELDS.light),
    walls: shown('walls')
      ? ground.walls.map((wall) => {
          const kind: WallKind = wall.kind ?? WALL_FIELDS.kind.usual;
          const top = numberOf(wall, 'height', WALL_FIELDS.height);
          return { kind, ...box(wall), top, muffles: 0 };
        })
      : [],
    lamps: [],
    spawns: [],
    gates: shown('gates')
      ? named(ground.gates, (gate, name) => ({
          name,
          title: gate.title ?? name,
          ...box(gate),
          top: numberOf(gate, 'height', GATE_FIELDS.height),
          muffles: 0,
          state: gate.state ?? 'closed',
        }))
      : [],
    plates: shown('gates')
      ? named(ground.plates, (plate, name) => ({
          name,
          title: plate.title ?? name,
          ...box(plate),
          gate: 0,
        }))
      : [],
    things: [],
    zones: shown('places')
      ? named(ground.zones, (zone, name) => ({ name, title: zone.title ?? name, ...box(zone) }))
      : [],
    routes: [],
  };
}

const GATE_STATES = { closed: 0, open: 1, locked: 2 };

function drawLamps({ context, view, tokens }: Painter, ground: GroundDocument): void {
  for (const [, { at, reach, strength }] of partsOf(ground, 'lamps')) {
    const [x, y] = [toX(view, at![0]), toY(view, at![1])];
    const r = Number(reach) * view.scale;
    const glow = context.createRadialGradient(x, y, 0, x, y, r);
    glow.addColorStop(0, faded(tokens.found, 0.25 * Number(strength)));
    glow.addColorStop(1, faded(tokens.found, 0));
    context.fillStyle = glow;
    context.beginPath();
    context.arc(x, y, r, 0, 2 * Math.PI);
    context.fill();
    context.fillStyle = tokens.found;
    context.beginPath();
    context.arc(x, y, 4, 0, 2 * Math.PI);
    context.fill();
  }
}

function drawRoute(
  { context, view, tokens }: Painter,
  { points = [], end }: AnyPart,
  color: string,
): void {
  context.strokeStyle = color;
  context.setLineDash([2, 5]);
  context.lineWidth = 1.5;
  context.beginPath();
  for (const [x, y] of points) context.lineTo(toX(view, x), toY(view, y));
  if (end === undefined || end === 'loop') context.closePath();
  context.stroke();
  context.setLineDash([]);
  context.font = SMALL;
  context.textAlign = 'left';
  points.forEach(([x, y], i) => {
    context.beginPath();
    context.arc(toX(view, x), toY(view, y), 3.5, 0, 2 * Math.PI);
    context.fillStyle = color;
    context.fill();
    context.fillStyle = tokens.mute;
    context.fillText(String(i + 1), toX(view, x) + 5, toY(view, y) - 4);
  });
}

/** A place with a direction: a drop for agents, a flag for posts, a ring for spawn places. */
function drawPlace(painter: Painter, kind: PartRef['kind'], part: AnyPart, radius: number): void {
  const { context, view, tokens } = painter;
  const [x, y] = [toX(view, part.at![0]), toY(view, part.at![1])];
  const heading = ((part.heading ?? 0) * Math.PI) / 180;
  context.lineWidth = 1.5;
  if (kind === 'things') {
    context.fillStyle = tokens.found;
    context.beginPath();
    const weight = numberOf(part, 'weight', THING_FIELDS.weight);
    if (part.kind === 'fruit') context.arc(x, y, 4.5 * sizeOf(weight), 0, 2 * Math.PI);
    else context.rect(x - 4.5, y - 4, 9, 8);
    context.fill();
    return;
  }
  const size = kind === 'agents' ? Math.max(6, radius * view.scale) : 6;
  context.strokeStyle = kind === 'agents' ? tokens.bone : tokens.mute;
  context.beginPath();
  context.arc(x, y, size, 0, 2 * Math.PI);
  if (kind === 'agents') {
    context.fillStyle = faded(tokens.bone, part.asleep ? 0.15 : 0.75);
    context.fill();
  }
  context.stroke();
  if (kind === 'spawns') return;
  context.beginPath();
  context.moveTo(x, y);
  context.lineTo(x + Math.cos(heading) * size * 1.9, y + Math.sin(heading) * size * 1.9);
  context.stroke();
}

function label({ context, view, tokens }: Painter, text: string, [x, y]: PointDocument): void {
  context.font = SMALL;
  context.textAlign = 'center';
  context.lineWidth = 3;
  context.strokeStyle = faded(tokens.night, 0.8);
  context.strokeText(text, toX(view, x), toY(view, y) + 18);
  context.fillStyle = tokens.mute;
  context.fillText(text, toX(view, x), toY(view, y) + 18);
}

function outline(painter: Painter, part: AnyPart, color: string): void {
  const { context, view } = painter;
  context.strokeStyle = color;
  context.lineWidth = 2;
  if (part.points) return drawRoute(painter, part, color);
  if (!part.at) return;
  const [x, y] = [toX(view, part.at[0]), toY(view, part.at[1])];
  if (part.size) {
    context.strokeRect(x - 2, y - 2, part.size[0] * view.scale + 4, part.size[1] * view.scale + 4);
    return;
  }
  context.beginPath();
  context.arc(x, y, 12, 0, 2 * Math.PI);
  context.stroke();
}

/** The corner by which a chosen box is drawn larger, in pixels from it. */
export const HANDLE = 5;

function drawHandle({ context, view, tokens }: Painter, { at, size }: AnyPart): void {
  if (!at || !size) return;
  const [x, y] = [toX(view, at[0] + size[0]), toY(view, at[1] + size[1])];
  context.fillStyle = tokens.bone;
  context.fillRect(x - HANDLE, y - HANDLE, 2 * HANDLE, 2 * HANDLE);
}

function say({ context, tokens, width }: Painter, text: string, x: number, y: number): void {
  context.font = `12px 'Atkinson Hyperlegible Next Variable', sans-serif`;
  const half = context.measureText(text).width / 2 + 6;
  const middle = Math.min(width - half - 4, Math.max(half + 4, x));
  context.fillStyle = tokens.raised;
  context.beginPath();
  context.roundRect(middle - half, y - 30, half * 2, 20, 6);
  context.fill();
  context.fillStyle = tokens.harm;
  context.textAlign = 'center';
  context.fillText(text, middle, y - 16);
}

/** With more spawn places than this, only a chosen one says what comes there. */
const MOST_LABELLED = 6;

/** A spawn place, with the waves that come there: “East gap: Beetles 3”. */
function spawnLabel(ground: GroundDocument, spawn: string): string {
  const { waves = {}, spawns = {} } = ground;
  const title = spawns[spawn].title ?? spawn;
  const here = Object.keys(waves).filter((wave) => spawnsOf(waves[wave], ground).includes(spawn));
  if (here.length === 0) return title;
  return `${title}: ${here.map((wave) => shortWords(wave, waves[wave])).join(', ')}`;
}

export function drawEditor(painter: Painter, scene: EditorScene): void {
  const { document, ground, layers, chosen, area, apart, drag, ghost } = scene;
  const { context, view, tokens } = painter;
  const program = asProgram(ground, layers.hidden);
  drawGround(painter, program);
  drawWalkable(painter, area);
  if (!layers.hidden.includes('lights')) drawLamps(painter, ground);
  drawMarks(painter, program);
  drawGates(
    painter,
    program,
    program.gates.map(({ state }) => GATE_STATES[state]),
  );
  if (!layers.hidden.includes('routes'))
    for (const [, route] of partsOf(ground, 'routes')) drawRoute(painter, route, tokens.mute);
  const isFew = partsOf(ground, 'spawns').length <= MOST_LABELLED;
  for (const kind of ['posts', 'spawns', 'things', 'agents'] as const) {
    if (layers.hidden.includes(layerOf(kind))) continue;
    for (const [name, part] of partsOf(ground, kind)) {
      drawPlace(painter, kind, part, radiusOf(document, part));
      if (kind === 'spawns') {
        // Where there are many, what comes there is said of the chosen one.
        if (isFew || chosen.some((ref) => ref.kind === kind && ref.name === name))
          label(painter, spawnLabel(ground, name), part.at!);
      } else if (kind !== 'things') label(painter, part.title ?? name, part.at!);
    }
  }
  for (const { x, y, name } of apart) {
    context.font = SMALL;
    context.textAlign = 'center';
    context.fillStyle = tokens.harm;
    context.fillText(name, toX(view, x), toY(view, y));
  }
  for (const ref of chosen) {
    const part = partAt(ground, ref);
    if (!part) continue;
    const shown = drag ? moved(part, drag.dx, drag.dy) : part;
    outline(painter, shown, drag?.reason ? tokens.harm : tokens.sight);
    if (chosen.length === 1 && !drag) drawHandle(painter, part);
  }
  const at = drag && chosen.length > 0 ? partAt(ground, chosen[0]) : undefined;
  if (drag?.reason && at) {
    const [x, y] = at.at ?? at.points![0];
    say(painter, drag.reason, toX(view, x + drag.dx), toY(view, y + drag.dy));
  }
  if (!ghost) return;
  outline(painter, ghost.part, ghost.reason ? tokens.harm : tokens.done);
  if (!ghost.reason) return;
  const [x, y] = ghost.part.at ?? ghost.part.points!.at(-1)!;
  say(painter, ghost.reason, toX(view, x), toY(view, y));
}
