import { compileFlag, compileNumber } from '../../expression/closures.ts';
import type { CheckedExpression, Ir } from '../../expression/ir.ts';
import { readParts, readText } from '../../expression/readout.ts';
import { isAncestor } from '../../mind/machine/runnable.ts';
import type { TransitionProgram } from '../../mind/program.ts';
import type { Agent } from '../../world/agent.ts';
import { nameTables } from '../../world/names.ts';
import {
  fact,
  lastBefore,
  QuestionError,
  rerun,
  titleOf,
  type Question,
  type Statement,
} from './statement.ts';
import { DEPTH, tickEntered, whyEntered } from './why.ts';

/** The parts of a guard that must all hold. */
function conjuncts(ir: Ir): Ir[] {
  return ir.op === 'and' ? [...conjuncts(ir.a), ...conjuncts(ir.b)] : [ir];
}

/** One part of a guard, watched through the run. */
interface Watched {
  expression: CheckedExpression;
  holds: boolean;
  since: number;
  nearest: { tick: number; text: string; gap: number } | null;
  test: (agent: Agent) => boolean;
  /** How far a comparison of numbers is from holding; null for other parts. */
  gap: ((agent: Agent) => number) | null;
}

function watchPart(when: CheckedExpression, ir: Ir): Watched {
  // A part by itself reads as its own stretch of the source.
  const [from] = ir.at;
  const source = when.source.slice(...ir.at);
  const shift = (part: Ir): Ir =>
    JSON.parse(JSON.stringify(part), (key, value: unknown) =>
      key === 'at' ? (value as number[]).map((offset) => offset - from) : value,
    ) as Ir;
  const own = shift(ir);
  let gap: Watched['gap'] = null;
  if (ir.op === 'compare' && ir.a.type === 'number') {
    const [a, b] = [compileNumber(ir.a), compileNumber(ir.b)];
    gap = (agent) => Math.abs(a(agent) - b(agent));
  }
  return {
    expression: { source, ir: own },
    holds: false,
    since: 0,
    nearest: null,
    test: compileFlag(ir),
    gap,
  };
}

function look(part: Watched, agent: Agent, sourceActive: boolean): void {
  const holds = part.test(agent);
  if (holds !== part.holds || part.since === 0) {
    part.holds = holds;
    part.since = agent.tick;
  }
  if (holds || !part.gap || !sourceActive) return;
  const gap = part.gap(agent);
  if (part.nearest !== null && !(gap < part.nearest.gap)) return;
  if (gap - gap !== 0) return;
  part.nearest = {
    tick: agent.tick,
    text: readText(part.expression, agent, nameTables(agent.program)),
    gap,
  };
}

interface WatchedTransition {
  transition: TransitionProgram;
  parts: Watched[];
  active: boolean;
  activeSince: number;
}

/** Transitions that would lead to the state or into it. */
function transitionsTo(agent: Agent, state: string): TransitionProgram[] {
  const { states, transitions } = agent.mind!.program.machine;
  const goal = states.findIndex(({ id }) => id === state);
  if (goal < 0)
    throw new QuestionError(
      `This mind has no state “${state}”. There are: ${states.map(({ id }) => id).join(', ')}.`,
    );
  const leads = (target: number) => target === goal || isAncestor(states, goal, target);
  return transitions.filter(({ target }) => target >= 0 && leads(target));
}

function stateOfTransition(agent: Agent, watched: WatchedTransition): Statement {
  const { transition, parts, active, activeSince } = watched;
  const { states } = agent.mind!.program.machine;
  const source = states[transition.source].title;
  const needs: Statement[] = [
    {
      statement: `it is in ${source}`,
      holds: active,
      values: [],
      since: activeSince,
      nearest: null,
      cause: [],
    },
    ...parts.map(({ expression, holds, since, nearest }): Statement => ({
      statement: expression.source,
      holds,
      values: readParts(expression, agent, nameTables(agent.program)),
      since,
      nearest: holds || nearest === null ? null : { tick: nearest.tick, text: nearest.text },
      cause: [],
    })),
  ];
  const seconds = (ticks: number) => `${Number((ticks / agent.ticksPerSecond).toFixed(2))} s`;
  const now = agent.tick;
  if (transition.forTicks > 0) {
    const since =
      agent.mindState!.machine.trueSince[
        agent.mind!.program.machine.transitions.indexOf(transition)
      ];
    const held = active && since >= 0 ? now - since : 0;
    needs.push({
      statement: `all that for ${seconds(transition.forTicks)}`,
      holds: held >= transition.forTicks,
      values: [{ part: 'so far', value: seconds(held) }],
      since: since < 0 ? null : since,
      nearest: null,
      cause: [],
    });
  }
  if (transition.afterTicks > 0) {
    const spent = active ? now - activeSince : 0;
    needs.push({
      statement: `${seconds(transition.afterTicks)} in ${source}`,
      holds: spent >= transition.afterTicks,
      values: [{ part: 'so far', value: seconds(spent) }],
      since: null,
      nearest: null,
      cause: [],
    });
  }
  if (transition.on !== '')
    needs.push({
      statement: `the event ${transition.on}`,
      holds: false,
      values: [],
      since: null,
      nearest: null,
      cause: [],
    });
  return {
    statement: `transition ${transition.order} of ${source}`,
    holds: needs.every(({ holds }) => holds),
    values: [],
    since: null,
    nearest: null,
    cause: needs,
  };
}

/**
 * Why the agent is not in a state at that tick: for each transition that leads there, what would have to
 * hold, what does not, since when, and when it came nearest. Throws a {@link QuestionError} where that
 * can't be asked.
 */
export function whyNot(question: Question, state: string): Statement {
  if (question.tick < 1)
    throw new QuestionError('Minds first decide in tick 1; ask about that tick or a later one.');
  let watched: WatchedTransition[] | null = null;
  const { agent, entries } = rerun(question, (asked) => {
    watched ??= transitionsTo(asked, state).map((transition) => ({
      transition,
      parts:
        transition.when === null
          ? []
          : conjuncts(transition.when.ir).map((ir) => watchPart(transition.when!, ir)),
      active: false,
      activeSince: 0,
    }));
    for (const entry of watched) {
      const active = asked.mindState!.machine.active.includes(entry.transition.source);
      if (active !== entry.active || entry.activeSince === 0) {
        entry.active = active;
        entry.activeSince = asked.tick;
      }
      for (const part of entry.parts) look(part, asked, active);
    }
  });
  const { machine } = agent.mind!.program;
  const title = titleOf(agent, state);
  const index = machine.states.findIndex(({ id }) => id === state);
  if (agent.mindState!.machine.active.includes(index)) {
    return fact(
      `${agent.placed.title} is in ${title}`,
      tickEntered(entries, state, entries.length - 1),
      whyEntered(agent, entries, state, entries.length - 1, DEPTH),
    );
  }
  const ways = (watched ?? []).map((entry) => stateOfTransition(agent, entry));
  const left = lastBefore(entries, 'exit', entries.length - 1, (entry) => entry.state === state);
  const since = left < 0 ? null : entries[left].tick;
  const none = fact('no transition leads there', null);
  return {
    statement: `${agent.placed.title} is in ${title}`,
    holds: false,
    values: [],
    since,
    nearest: null,
    cause: ways.length > 0 ? ways : [none],
  };
}
