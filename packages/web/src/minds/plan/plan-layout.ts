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
  /** Its number and what it is taken for, also where the label is the number alone. */
  words: string;
}

const LEAF_HEIGHT = 40;
const LETTER = 7;
export const LABEL_LINE = 12;
const LABEL_LETTERS = 10;
const SMALL_LETTER = 5.6;

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.hierarchyHandling': 'INCLUDE_CHILDREN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '12',
  'elk.layered.spacing.edgeNodeBetweenLayers': '7',
  'elk.layered.spacing.edgeEdgeBetweenLayers': '7',
  'elk.spacing.nodeNode': '26',
  'elk.spacing.edgeNode': '12',
  'elk.spacing.edgeEdge': '10',
  'elk.spacing.edgeLabel': '2',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.edgeLabels.inline': 'false',
  'elk.padding': '[top=4,left=4,bottom=4,right=4]',
};

const ROOM = { 'elk.padding': '[top=28,left=10,bottom=12,right=10]' };

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
  return { id: state.id, width: Math.max(72, title.length * LETTER + 26), height: LEAF_HEIGHT };
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

/** By the key of each line, what it is taken for. */
function wordsOf(states: readonly StateDocument[]): Map<string, string> {
  return new Map(
    states.flatMap((state): [string, string][] => [
      ...(state.transitions ?? []).map((leave, i): [string, string] => [
        `${state.id} ${i + 1}`,
        `${i + 1}${signsOf(leave)} ${shortReason(leave)}`,
      ]),
      ...wordsOf(state.states ?? []),
    ]),
  );
}

/** Layouts that were kept are of use only while this is the same. */
export const LAYOUT_VERSION = 3;

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

/** At this scale labels can still be read. */
const READABLE = 0.75;

/** The plan that fits a space of this shape best: with labels where they can be read, else whichever is largest. */
export function fittest(
  plans: readonly PlanLayout[],
  room: { width: number; height: number },
): PlanLayout {
  const fit = (plan: PlanLayout) => Math.min(1, room.width / plan.width, room.height / plan.height);
  const best = (among: readonly PlanLayout[]) =>
    among.reduce((one, other) => (fit(other) > fit(one) ? other : one));
  const labelled = best(plans.slice(0, plans.length / 2));
  return fit(labelled) >= READABLE ? labelled : best(plans);
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
  const words = wordsOf(states);
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
      words: words.get(edge.id) ?? '',
    };
  });
  return { width: placed.width ?? 0, height: placed.height ?? 0, states: listed, lines };
}
