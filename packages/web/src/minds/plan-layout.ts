import type { StateDocument } from '@crooked-lantern/core';
import ELK, { type ElkExtendedEdge, type ElkNode } from 'elkjs/lib/elk-api.js';
import { shortReason, titleOf } from './document-names.ts';

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
  kind: 'leaf' | 'room' | 'final' | 'history';
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
  label: { text: string; x: number; y: number } | null;
}

const LEAF_HEIGHT = 38;
const LETTER = 7;
const SMALL_LETTER = 5.6;

const OPTIONS = {
  'elk.algorithm': 'layered',
  'elk.direction': 'RIGHT',
  'elk.hierarchyHandling': 'INCLUDE_CHILDREN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.spacing.nodeNodeBetweenLayers': '26',
  'elk.layered.spacing.edgeNodeBetweenLayers': '12',
  'elk.spacing.nodeNode': '22',
  'elk.spacing.edgeNode': '12',
  'elk.spacing.edgeEdge': '10',
  'elk.spacing.edgeLabel': '2',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.edgeLabels.inline': 'false',
  'elk.padding': '[top=8,left=8,bottom=8,right=8]',
};

const ROOM = { 'elk.padding': '[top=30,left=14,bottom=14,right=14]' };

let elk: InstanceType<typeof ELK> | null = null;

/** The layout runs in a worker of its own, made when it is first needed. */
function layouter(): InstanceType<typeof ELK> {
  elk ??= new ELK({
    workerFactory: () => new Worker(new URL('elkjs/lib/elk-worker.min.js', import.meta.url)),
  });
  return elk;
}

function kindOf(state: StateDocument): PlacedState['kind'] {
  if (state.kind === 'final') return 'final';
  if (state.kind === 'history' || state.kind === 'deepHistory') return 'history';
  return state.states && state.states.length > 0 ? 'room' : 'leaf';
}

function toNode(state: StateDocument): ElkNode {
  const title = titleOf(state);
  if (kindOf(state) === 'room') {
    return {
      id: state.id,
      layoutOptions: { ...ROOM, 'elk.nodeSize.constraints': 'MINIMUM_SIZE', 'elk.nodeSize.minimum': `(${title.length * LETTER + 30}, 40)` },
      children: state.states!.map(toNode),
    };
  }
  return { id: state.id, width: Math.max(84, title.length * LETTER + 44), height: LEAF_HEIGHT };
}

function toEdges(states: readonly StateDocument[], known: ReadonlySet<string>): ElkExtendedEdge[] {
  return states.flatMap((state) => {
    const own = (state.leaves ?? []).flatMap((leave, i): ElkExtendedEdge[] => {
      if (leave.to === undefined || !known.has(leave.to)) return [];
      const text = `${i + 1} ${shortReason(leave)}`;
      return [
        {
          id: `${state.id} ${i + 1}`,
          sources: [state.id],
          targets: [leave.to],
          labels: [{ id: `label ${state.id} ${i + 1}`, text, width: text.length * SMALL_LETTER + 6, height: 13 }],
        },
      ];
    });
    return [...own, ...toEdges(state.states ?? [], known)];
  });
}

function idsOf(states: readonly StateDocument[]): string[] {
  return states.flatMap((state) => [state.id, ...idsOf(state.states ?? [])]);
}

function collect(node: ElkNode, x: number, y: number, origins: Map<string, [number, number]>): void {
  origins.set(node.id, [x, y]);
  for (const child of node.children ?? []) collect(child, x + (child.x ?? 0), y + (child.y ?? 0), origins);
}

/** Lays a machine out by itself: nested rooms, lines with right angles. */
export async function layoutPlan(states: readonly StateDocument[]): Promise<PlanLayout> {
  const graph: ElkNode = {
    id: '#plan',
    layoutOptions: OPTIONS,
    children: states.map(toNode),
    edges: toEdges(states, new Set(idsOf(states))),
  };
  const placed = await layouter().layout(graph);
  const origins = new Map<string, [number, number]>();
  collect(placed, 0, 0, origins);
  const sizes = new Map<string, ElkNode>();
  const index = (node: ElkNode) => {
    sizes.set(node.id, node);
    node.children?.forEach(index);
  };
  index(placed);
  const listed: PlacedState[] = [];
  const list = (state: StateDocument) => {
    const [x, y] = origins.get(state.id)!;
    const { width = 0, height = 0 } = sizes.get(state.id)!;
    listed.push({ id: state.id, title: titleOf(state), kind: kindOf(state), parallel: state.kind === 'parallel', x, y, width, height });
    state.states?.forEach(list);
  };
  states.forEach(list);
  const lines = (placed.edges ?? []).map((edge): PlacedLine => {
    const container = (edge as { container?: string }).container ?? '#plan';
    const [ox, oy] = origins.get(container) ?? [0, 0];
    const [section] = edge.sections ?? [];
    const points = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [];
    const [label] = edge.labels ?? [];
    const [from, order] = edge.id.split(' ');
    return {
      from,
      order: Number(order),
      points: points.map(({ x, y }): [number, number] => [x + ox, y + oy]),
      label: label?.text === undefined ? null : { text: label.text, x: (label.x ?? 0) + ox, y: (label.y ?? 0) + oy },
    };
  });
  return { width: placed.width ?? 0, height: placed.height ?? 0, states: listed, lines };
}
