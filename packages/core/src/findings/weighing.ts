import { collectFindings, type Findings } from '../compile/finding.ts';
import { endsOfBand } from '../expression/check-bands.ts';
import { MOST_CANDIDATES } from '../mind/weigh/candidates.ts';
import { membershipOf } from '../numeric/membership.ts';
import {
  DEFAULT_LIST_LENGTH,
  type BandDocument,
  type ProjectDocument,
} from '../model/documents.ts';
import { namesOf } from '../model/names/names.ts';
import { stanceToward, type Program } from '../world/program/program.ts';
import { STANCES } from '../terms/stances.ts';

/** Checks of what minds weigh by: bands, and how many an option is weighed for. */

/** Numbers at which something about the bands may change: their ends, and the middles between those. */
function telling(bands: readonly BandDocument[]): number[] {
  const ends = [...new Set(bands.flatMap(endsOfBand).filter(Number.isFinite))].sort(
    (a, b) => a - b,
  );
  if (ends.length === 0) return [0];
  const between = ends.slice(1).map((end, i) => (ends[i] + end) / 2);
  return [ends[0] - 1, ...ends, ...between, ends[ends.length - 1] + 1].sort((a, b) => a - b);
}

function checkOrder(set: string, bands: readonly BandDocument[], findings: Findings): boolean {
  let good = true;
  bands.forEach((band, i) => {
    const path = `bands.${set}.bands[${i}]`;
    const [from, fullFrom, fullTo, to] = endsOfBand(band);
    if (bands.findIndex(({ name }) => name === band.name) !== i) {
      findings.error('taken', `${path}.name`, `There is a band “${band.name}” already.`);
      good = false;
    }
    if (from <= fullFrom && fullFrom <= fullTo && fullTo <= to && from < to) return;
    findings.error(
      'parameter',
      path,
      `The ends of “${band.name}” are not in order: from ${from}, full from ${fullFrom}, full to ${fullTo}, to ${to}.`,
    );
    good = false;
  });
  return good;
}

/** Whether bands are in order, leave no gap, and each is somewhere the largest. */
export function checkBands(
  _: Program,
  { bands: sets = {} }: ProjectDocument,
  findings: Findings,
): void {
  for (const name of namesOf(sets)) {
    const { bands } = sets[name];
    const own = collectFindings();
    const isInOrder = checkOrder(name, bands, own);
    for (const { code, severity, path, message } of own.list)
      if (severity === 'error') findings.error(code, path, message);
    if (!isInOrder) continue;
    const memberships = (at: number) => bands.map((band) => membershipOf(at, ...endsOfBand(band)));
    const numbers = telling(bands);
    const inner = numbers.filter((at) => {
      const ends = bands.flatMap(endsOfBand);
      return at > Math.min(...ends) && at < Math.max(...ends);
    });
    const gap = inner.find((at) => memberships(at).every((membership) => membership === 0));
    if (gap !== undefined)
      findings.warning(
        'bands',
        `bands.${name}`,
        `At ${Number(gap.toFixed(3))} none of the bands “${name}” holds. Let them overlap where they meet.`,
      );
    bands.forEach((band, i) => {
      const isLargest = numbers.some((at) => {
        const all = memberships(at);
        return all[i] > 0 && all.every((other, k) => k === i || other < all[i]);
      });
      if (isLargest) return;
      findings.warning(
        'bands',
        `bands.${name}.bands[${i}]`,
        `“${band.name}” is nowhere the largest of the bands “${name}”, so it is never their name. Widen it, or take it away.`,
      );
    });
  }
}

/** Of agents of a stance on the ground, as any archetype with the mind sees them. */
function agentsOf(program: Program, mind: string, stance: number): number {
  const holders = program.archetypes.filter(({ stack }) =>
    program.stacks[stack]?.minds.some(({ name }) => name === mind),
  );
  const counts = holders.map(
    ({ side }) =>
      program.agents.filter(
        ({ archetype }) =>
          stanceToward(program, side, program.archetypes[archetype].side) === stance,
      ).length,
  );
  return Math.max(0, ...counts);
}

/** Whether there is anything to weigh, and whether an option can come to be weighed for more than are weighed. */
export function checkChoices(
  program: Program,
  document: ProjectDocument,
  findings: Findings,
): void {
  for (const name of namesOf(document.minds)) {
    const { choices = {}, memory = {} } = document.minds[name];
    for (const choice of namesOf(choices)) {
      const { options, title: called = choice } = choices[choice];
      if (options.length === 0)
        findings.warning(
          'empty',
          `minds.${name}.choices.${choice}`,
          `“${called}” has no options, so it never picks anything. Add one.`,
        );
      options.forEach(({ each, title, id }, i) => {
        if (!each) return;
        let most = 0;
        if ('agents' in each) most = agentsOf(program, name, STANCES.indexOf(each.agents));
        if ('list' in each) most = memory[each.list]?.capacity ?? DEFAULT_LIST_LENGTH;
        if ('things' in each) {
          const things = document.grounds[document.start.ground]?.things ?? {};
          most = Object.values(things).filter(({ kind = 'basket' }) => kind === each.things).length;
        }
        if (most <= MOST_CANDIDATES) return;
        findings.warning(
          'tooMany',
          `minds.${name}.choices.${choice}.options[${i}].each`,
          `“${title ?? id}” can be weighed for ${most}; the nearest ${MOST_CANDIDATES} are, and the rest is left out.`,
        );
      });
    }
  }
}
