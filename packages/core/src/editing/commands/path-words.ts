import { breakpointWords } from '../../model/documents/run.ts';
import type {
  BreakpointDocument,
  ConsiderationDocument,
  OptionDocument,
  ProjectDocument,
  StateDocument,
} from '../../model/documents.ts';
import { isNode } from '../../model/documents.ts';
import { OBSERVATION_LIMITS } from '../../model/documents/observation-limits.ts';
import { isObject } from '../../model/schema/schema.ts';
import { nodeText } from '../../model/node-text.ts';
import { pathText } from '../../model/names/path-text.ts';
import type { DocumentPath } from './commands.ts';
import { partAt } from './put.ts';

/** What a part of a document is called by people: for undo, history and merging. */

/** Fields that have a name of their own in words. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  when: 'guard',
  on: 'event',
  to: 'target',
  entry: 'actions on entry',
  exit: 'actions on exit',
  do: 'actions',
  activity: 'activity',
  machine: 'state machine',
  forgetAfter: 'forgetting',
  capacity: 'most entries',
  rate: 'change a second',
  min: 'minimum',
  max: 'maximum',
  maxAlive: 'most alive',
  minDuration: 'minimum duration',
  maxDuration: 'maximum duration',
  minScore: 'minimum score',
  damageShare: 'damage share',
  respawnDelay: 'respawn delay',
  sleepDistance: 'sleep distance',
  carryingSpeed: 'speed while carrying',
  callReach: 'call reach',
  states: 'states inside',
  windUp: 'wind-up',
};

export function wordOfField(field: string): string {
  return FIELD_WORDS[field] ?? field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
}

function titled(part: unknown, name: string | number): string {
  const title = (part as { title?: unknown } | undefined)?.title;
  return typeof title === 'string' ? title : String(name);
}

/** What a step leads to, in words; null where it only leads on. */
function stopAt(document: ProjectDocument, path: DocumentPath, at: number): string | null {
  const step = path[at];
  const before = path[at - 1];
  const part = partAt(document, path.slice(0, at + 1));
  const [place, , kind] = path;
  if (place === 'breakpoints' && at === 1)
    return `breakpoint “${breakpointWords((part ?? { on: 'enter' }) as BreakpointDocument)}”`;
  if (place === 'observationLimits' && at === 1)
    return `limit “${OBSERVATION_LIMITS[step as keyof typeof OBSERVATION_LIMITS].label}”`;
  if (at === 1) return titled(part, step);
  if (place === 'minds' && at === 3) {
    if (kind === 'memory') return `key ${titled(part, step)}`;
    if (kind === 'trees') return `tree ${titled(part, step)}`;
    if (kind === 'rules') return `rules ${titled(part, step)}`;
    if (kind === 'choices') return `choice ${titled(part, step)}`;
  }
  if (place === 'archetypes' && at === 3 && typeof step === 'string' && isObject(part))
    return titled(part, step);
  if (place === 'grounds' && at === 3)
    return `${String(kind).replace(/s$/, '')} ${titled(part, step)}`;
  if (typeof step !== 'number') return at === path.length - 1 ? wordOfField(step) : null;
  if (before === 'states') {
    const { id = step + 1 } = (part ?? {}) as Partial<StateDocument>;
    return titled(part, id);
  }
  if (before === 'options') {
    const { id = step + 1 } = (part ?? {}) as Partial<OptionDocument>;
    return `option ${titled(part, id)}`;
  }
  if (before === 'considerations') {
    const { input = step + 1 } = (part ?? {}) as Partial<ConsiderationDocument>;
    return `consideration ${titled(part, input)}`;
  }
  if (before === 'grades') return `graded row ${step + 1}`;
  if (before === 'cones') return `cone ${step + 1}`;
  if (before === 'transitions') return `transition ${step + 1}`;
  if (before === 'rows') return `row ${step + 1}`;
  if (before === 'entry' || before === 'exit' || before === 'do' || before === 'else')
    return `action ${step + 1}${before === 'do' ? '' : ` on ${before}`}`;
  if ((kind === 'trees' || kind === 'choices') && isNode(part))
    return `“${titled(part, nodeText(part))}”`;
  return `entry ${step + 1}`;
}

/** Such as `guard of transition 2 of Chase of Warden`: the part itself, then the two nearest things around it, then the mind. */
export function wordsOfPath(document: ProjectDocument, path: DocumentPath): string {
  const stops = path.flatMap((_, i) => (i === 0 ? [] : (stopAt(document, path, i) ?? [])));
  if (stops.length === 0) return pathText(path);
  const inward = [...stops].reverse();
  const shown = inward.length > 4 ? [...inward.slice(0, 3), inward[inward.length - 1]] : inward;
  return shown.join(' of ');
}
