import type { CallExpression, Expression as Node } from 'acorn';
import type { BandDocument, BandSetDocument } from '../model/documents.ts';
import { suggestion } from '../model/names/nearest-name.ts';
import { fault, span, type Checker, type Typed } from './checker.ts';
import { dottedName } from './check-name.ts';
import { withSpans, type Ir, type Span } from './ir.ts';
import { parseExpression } from './parse.ts';
import { PLAIN } from './units.ts';

/** `inBand(set, 'band')` and `bandOf(set)`: what a band set says of its number, asked in the mind that asks. */

type CheckNode = (checker: Checker, node: Node) => Typed | null;

/** The ends of a band; a side that is left out is open. */
export function endsOfBand(band: BandDocument): [number, number, number, number] {
  const from = band.from ?? band.fullFrom ?? -Infinity;
  const to = band.to ?? band.fullTo ?? Infinity;
  return [from, band.fullFrom ?? from, band.fullTo ?? to, to];
}

/** The set’s number, every part of it standing where the set is named. */
function inputOf(
  checker: Checker,
  name: string,
  { input }: BandSetDocument,
  node: Node,
  check: CheckNode,
): Ir | null {
  const at = span(node);
  const parsed = parseExpression(input);
  const faults: Checker['faults'] = [];
  const typed = parsed.ok && check({ ...checker, source: input, faults }, parsed.node);
  const trouble = parsed.ok ? faults[0]?.message : parsed.fault.message;
  if (!typed || trouble !== undefined)
    return fault(
      checker,
      node,
      `The bands “${name}” can’t be asked here: ${trouble ?? 'their number is wrong'}`,
    );
  if (typed.ir.type !== 'number')
    return fault(checker, node, `The bands “${name}” are parts of “${input}”, which is no number.`);
  return withSpans(typed.ir, () => at);
}

function membership(input: Ir, band: BandDocument, at: Span): Ir {
  const ends = endsOfBand(band).map((value): Ir => ({ op: 'literal', at, type: 'number', value }));
  const name = 'trapezoid(number, number, number, number, number)';
  return { op: 'call', at, type: 'number', name, args: [input, ...ends] };
}

export function checkBands(
  checker: Checker,
  node: CallExpression,
  asked: 'inBand' | 'bandOf',
  check: CheckNode,
): Typed | null {
  const at = span(node);
  const [first, second] = node.arguments as Node[];
  const form = asked === 'inBand' ? "inBand(set, 'band')" : 'bandOf(set)';
  if (node.arguments.length !== (asked === 'inBand' ? 2 : 1))
    return fault(checker, node, `It is written ${form}.`);
  const name = dottedName(first);
  const sets = checker.scope.bands ?? {};
  if (name === null || !Object.hasOwn(sets, name))
    return fault(
      checker,
      first,
      `There are no bands “${name ?? '…'}”.${suggestion(name ?? '', Object.keys(sets))} It is written ${form}.`,
    );
  const set = sets[name];
  // A set whose number asks for the set itself would never come to an end.
  const scope = { ...checker.scope, bands: { ...sets } };
  delete (scope.bands as Record<string, unknown>)[name];
  const input = inputOf({ ...checker, scope }, name, set, first, check);
  if (!input) return null;
  if (asked === 'bandOf') return { ir: nameOfLargest(checker, input, set, at), unit: PLAIN };
  const wanted = second.type === 'Literal' ? String(second.value) : null;
  const band = set.bands.find((each) => each.name === wanted);
  if (!band) {
    const names = set.bands.map((each) => each.name);
    return fault(
      checker,
      second,
      `“${name}” has no band “${wanted ?? '…'}”.${suggestion(wanted ?? '', names)} It has ${names.map((each) => `'${each}'`).join(', ')}.`,
    );
  }
  return { ir: membership(input, band, at), unit: PLAIN };
}

/** The name of the band with the largest membership, the first of equals; no text outside of all. */
function nameOfLargest(checker: Checker, input: Ir, { bands }: BandSetDocument, at: Span): Ir {
  const memberships = bands.map((band) => membership(input, band, at));
  const zero: Ir = { op: 'literal', at, type: 'number', value: 0 };
  const none: Ir = { op: 'literal', at, type: 'text', value: -1 };
  return bands.reduceRight<Ir>((otherwise, band, i) => {
    const others = memberships.slice(i + 1);
    const holds = others.reduce<Ir>(
      (all, other) => ({
        op: 'and',
        at,
        type: 'flag',
        a: all,
        b: { op: 'compare', at, type: 'flag', operator: '>=', a: memberships[i], b: other },
      }),
      { op: 'compare', at, type: 'flag', operator: '>', a: memberships[i], b: zero },
    );
    const a: Ir = {
      op: 'literal',
      at,
      type: 'text',
      value: checker.scope.internText(band.name),
    };
    return { op: 'if', at, type: 'text', test: holds, a, b: otherwise };
  }, none);
}
