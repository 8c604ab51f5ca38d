import { idsOf, type StateDocument } from '@crooked-lantern/core';
import type { ELK, ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api.js';
import { shortReason, titleOf } from '../document-names.ts';
import { signsOf } from './signs.ts';
import { runInBackground } from '../../state/failures.ts';

/** Where everything of a state plan goes, in pixels of the plan. */
export interface PlanLayout {
  width: number;
  height: number;
  states: PlacedState[];
  lines: PlacedLine[];
}

export interface PlacedState {
  id: string;
  title: string;
  kind: 'leaf' | 'room' | 'closed' | 'final' | 'history' | 'deepHistory';
  /** Transitions that lead nowhere else: they do something, and it stays. */
  stays: number;
  /** For a closed room, the ids of all that is inside it. */
  inside: string[];
  parallel: boolean;
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface PlacedLine {
  from: string;
  /** From 1, as in the sheet. */
  order: number;
  /** Corners of the line, x then y. */
  points: [number, number][];
  label: { lines: string[]; x: number; y: number } | null;
}

const LEAF_HEIGHT = 38;
const LEAST_WIDTH = 60;
/** On both sides of a title together. */
const ROUND_TITLE = 18;
const LETTER = 7;
export const LABEL_LINE = 12;
const LABEL_LETTERS = 10;
const SMALL_LETTER = 6;
/** Room for “100%”, with what is around it. */
const SHARE_WIDTH = 46;

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.hierarchyHandling': 'INCLUDE_CHILDREN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '12',
  'elk.layered.spacing.edgeNodeBetweenLayers': '6',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '6',
  'elk.spacing.nodeNode': '12',
  'elk.spacing.edgeNode': '8',
  'elk.spacing.edgeEdge': '7',
  'elk.spacing.edgeLabel': '2',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.edgeLabels.inline': 'false',
  'elk.padding': '[top=4,left=4,bottom=4,right=4]',
};

const ROOM = { 'elk.padding': '[top=24,left=8,bottom=8,right=8]' };

let elk: Promise<ELK> | null = null;

/** The layout runs in a worker of its own, made when it is first needed. */
function layouter(): Promise<ELK> {
  elk ??= import('elkjs/lib/elk-api.js').then(
    ({ default: Layouter }) =>
      new Layouter({
        workerFactory: () =>
          new Worker(new URL('elkjs/lib/elk-worker.min.js', import.meta.url), { type: 'module' }),
      }),
  );
  return elk;
}

/** Loads the layout engine, so that it is there when the plan changes. */
export function prepareLayouter(): void {
  runInBackground(layouter());
}

/** Which rooms are seen from within. */
export interface Rooms {
  open: ReadonlySet<string>;
  folded: ReadonlySet<string>;
}

/** Rooms inside rooms stay closed unless they are asked for, so that a large machine still fits. */
function isOpen({ id }: StateDocument, depth: number, { open, folded }: Rooms): boolean {
  return !folded.has(id) && (depth === 0 || open.has(id));
}

function kindOf(state: StateDocument, depth: number, rooms: Rooms): PlacedState['kind'] {
  if (state.kind === 'final') return 'final';
  if (state.kind === 'history' || state.kind === 'deepHistory') return state.kind;
  if (!state.states || state.states.length === 0) return 'leaf';
  return isOpen(state, depth, rooms) ? 'room' : 'closed';
}

function titlesInside({ states = [] }: StateDocument): string[] {
  return states.flatMap((state) => [titleOf(state), ...titlesInside(state)]);
}

function toNode(state: StateDocument, depth: number, rooms: Rooms): ElkNode {
  const title = titleOf(state);
  if (kindOf(state, depth, rooms) === 'room') {
    return {
      id: state.id,
      layoutOptions: {
        ...ROOM,
        'elk.nodeSize.constraints': 'MINIMUM_SIZE',
        'elk.nodeSize.minimum': `(${title.length * LETTER + 30}, 40)`,
      },
      children: state.states!.map((inner) => toNode(inner, depth + 1, rooms)),
    };
  }
  // A folded room names its active state, with the share of the time beside it.
  const inside = titlesInside(state).map((each) => each.length * SMALL_LETTER + SHARE_WIDTH);
  const width = Math.max(LEAST_WIDTH, title.length * LETTER + ROUND_TITLE, ...inside);
  return { id: state.id, width, height: LEAF_HEIGHT };
}

/** Words in lines of about a state's breadth, so that labels take no more room than they must. */
function wrapWords(text: string): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const last = lines[lines.length - 1];
    if (last !== undefined && last.length + word.length < LABEL_LETTERS)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}

/** For each state the one that stands for it on the plan: itself, or the closed room it is in. */
function standIns(
  states: readonly StateDocument[],
  depth: number,
  rooms: Rooms,
  room: string | null,
  into: Map<string, string>,
): Map<string, string> {
  for (const state of states) {
    into.set(state.id, room ?? state.id);
    const closed = room ?? (isOpen(state, depth, rooms) ? null : state.id);
    standIns(state.states ?? [], depth + 1, rooms, closed, into);
  }
  return into;
}

function toEdges(
  states: readonly StateDocument[],
  known: ReadonlyMap<string, string>,
  brief: boolean,
): ElkExtendedEdge[] {
  return states.flatMap((state) => {
    const source = known.get(state.id)!;
    const own = (state.transitions ?? []).flatMap((leave, i): ElkExtendedEdge[] => {
      const target = leave.to === undefined ? undefined : known.get(leave.to);
      // What stays inside a closed room is not drawn.
      if (target === undefined || (target === source && source !== state.id)) return [];
      const number = `${i + 1}${signsOf(leave)}`;
      const lines = brief ? [number] : wrapWords(`${number} ${shortReason(leave)}`);
      const widest = Math.max(...lines.map((line) => line.length));
      return [
        {
          id: `${state.id} ${i + 1}`,
          sources: [source],
          targets: [target],
          labels: [
            {
              id: `label ${state.id} ${i + 1}`,
              text: lines.join('\n'),
              width: widest * SMALL_LETTER + 4,
              height: lines.length * LABEL_LINE,
            },
          ],
        },
      ];
    });
    return [...own, ...toEdges(state.states ?? [], known, brief)];
  });
}

function collect(
  node: ElkNode,
  x: number,
  y: number,
  origins: Map<string, [number, number]>,
): void {
  origins.set(node.id, [x, y]);
  for (const child of node.children ?? [])
    collect(child, x + (child.x ?? 0), y + (child.y ?? 0), origins);
}

/** Layouts that were kept are of use only while this is the same. */
export const LAYOUT_VERSION = 4;

/**
 * Lays a machine out by itself, nested rooms and lines with right angles: to the right and downwards, each
 * with what transitions are taken for and with their numbers alone, which takes less room.
 */
export function layoutPlans(states: readonly StateDocument[], rooms: Rooms): Promise<PlanLayout[]> {
  return Promise.all(
    [false, true].flatMap((brief) =>
      (['RIGHT', 'DOWN'] as const).map((direction) =>
        layoutTowards(direction, brief, states, rooms),
      ),
    ),
  );
}

/** The smallest text of a plan is 12 px high; at a smaller scale it would have less than 11, and could not be read. */
export const READABLE_SCALE = 11 / 12;

interface Size {
  width: number;
  height: number;
}

/** How large a plan can be in a room to be seen whole. */
export function fittingScale(plan: Size, room: Size): number {
  return Math.min(room.width / plan.width, room.height / plan.height);
}

/** Which part of a plan is in sight at the smallest scale that can be read. */
function shareInSight(plan: Size, room: Size): number {
  const across = Math.min(1, room.width / (plan.width * READABLE_SCALE));
  const down = Math.min(1, room.height / (plan.height * READABLE_SCALE));
  return across * down;
}

function most<T>(among: readonly T[], worth: (each: T) => number): T {
  return among.reduce((one, other) => (worth(other) > worth(one) ? other : one));
}

/**
 * The plan that serves a room best: the largest with labels, where it can be read whole; else the largest with
 * numbers alone; else the one with labels of which the largest part is in sight.
 */
export function fittest(plans: readonly PlanLayout[], room: Size): PlanLayout {
  const labelled = plans.slice(0, plans.length / 2);
  const fitting = [labelled, plans]
    .map((among) => most(among, (plan) => fittingScale(plan, room)))
    .find((plan) => fittingScale(plan, room) >= READABLE_SCALE);
  return fitting ?? most(labelled, (plan) => shareInSight(plan, room));
}

async function layoutTowards(
  direction: 'RIGHT' | 'DOWN',
  brief: boolean,
  states: readonly StateDocument[],
  rooms: Rooms,
): Promise<PlanLayout> {
  const graph: ElkNode = {
    id: '#plan',
    layoutOptions: { ...OPTIONS, 'elk.direction': direction },
    children: states.map((state) => toNode(state, 0, rooms)),
    edges: toEdges(states, standIns(states, 0, rooms, null, new Map()), brief),
  };
  const placed = await (await layouter()).layout(graph);
  const origins = new Map<string, [number, number]>();
  collect(placed, 0, 0, origins);
  const sizes = new Map<string, ElkNode>();
  const index = (node: ElkNode) => {
    sizes.set(node.id, node);
    node.children?.forEach(index);
  };
  index(placed);
  const listed: PlacedState[] = [];
  const list = (state: StateDocument, depth: number) => {
    const kind = kindOf(state, depth, rooms);
    const [x, y] = origins.get(state.id)!;
    const { width = 0, height = 0 } = sizes.get(state.id)!;
    listed.push({
      id: state.id,
      title: titleOf(state),
      kind,
      inside: kind === 'closed' ? state.states!.flatMap(idsOf) : [],
      parallel: state.kind === 'parallel',
      stays: (state.transitions ?? []).filter(({ to }) => to === undefined).length,
      x,
      y,
      width,
      height,
    });
    if (kind === 'room') state.states!.forEach((inner) => list(inner, depth + 1));
  };
  states.forEach((state) => list(state, 0));
  const lines = (placed.edges ?? []).map((edge): PlacedLine => {
    const container = (edge as { container?: string }).container ?? '#plan';
    const [ox, oy] = origins.get(container) ?? [0, 0];
    const [section] = edge.sections ?? [];
    const points = section
      ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint]
      : [];
    const [label] = edge.labels ?? [];
    const [from, order] = edge.id.split(' ');
    return {
      from,
      order: Number(order),
      points: points.map(({ x, y }): [number, number] => [x + ox, y + oy]),
      label:
        label?.text === undefined
          ? null
          : { lines: label.text.split('\n'), x: (label.x ?? 0) + ox, y: (label.y ?? 0) + oy },
    };
  });
  return { width: placed.width ?? 0, height: placed.height ?? 0, states: listed, lines };
}
