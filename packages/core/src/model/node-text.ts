import { ACTIONS, type ActionSpec } from './actions/actions.ts';
import type { ActionDocument, NodeDocument } from './documents.ts';
import { kindOfNode, NODES, type NodeSpec } from './documents.ts';

/** Names of the parameters whose value alone says enough. */
function isTelling(spec: ActionSpec, parameter: string): boolean {
  return spec.parameters[parameter]?.required ?? false;
}

/** What a row is called, and what else there is to say of it. */
export interface NodeWords {
  name: string;
  details: string;
}

function actionWords(action: ActionDocument): NodeWords {
  const spec: ActionSpec | undefined = Object.hasOwn(ACTIONS, action.do)
    ? (ACTIONS as Record<string, ActionSpec>)[action.do]
    : undefined;
  if (!spec) return { name: action.do, details: '' };
  const parts = Object.keys(spec.parameters).flatMap((parameter) => {
    const value = action[parameter];
    if (value === undefined) return [];
    return [isTelling(spec, parameter) ? String(value) : `${parameter} ${String(value)}`];
  });
  return { name: spec.title, details: parts.join(' ') };
}

/** What a node is, in one line for people: its kind, then its parameters without what is inside it. */
export function nodeWords(node: NodeDocument | ActionDocument): NodeWords {
  const kind = kindOfNode(node);
  if (kind === 'do') return actionWords(node as ActionDocument);
  const spec: NodeSpec = NODES[kind];
  const fields = node as unknown as Record<string, unknown>;
  const parts = Object.entries(spec.fields).flatMap(([field, { kind: what }]) => {
    const value = fields[field];
    if (value === undefined || what === 'node' || what === 'nodes') return [];
    if (what === 'arguments') {
      const given = Object.entries(value as Record<string, unknown>);
      return given.map(([name, bound]) => `${name} ${String(bound)}`);
    }
    if (field === kind) return [String(value)];
    return [what === 'flag' ? field : `${field} ${String(value)}`];
  });
  return { name: spec.title, details: parts.join(' ') };
}

export function nodeText(node: NodeDocument | ActionDocument): string {
  const { name, details } = nodeWords(node);
  return details === '' ? name : `${name} ${details}`;
}
