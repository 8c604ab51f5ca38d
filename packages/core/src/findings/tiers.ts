import type { Finding, Findings } from '../compile/finding.ts';
import type { Fault } from '../model/file/read-project.ts';
import type { ProjectDocument, TierDocument } from '../model/documents.ts';
import { numberAt, tieredNumber, tierInForce } from '../model/tiers.ts';

/** Checks of tiers: what they make of numbers, and that later ones are no easier. */

/** Numbers that make an agent harder to fight: the more, or the less, there is of them. */
const HARDER: Readonly<Record<string, 'more' | 'less'>> = {
  reaction: 'less',
  windUp: 'less',
  damage: 'more',
  health: 'more',
};

/** What the tier in force makes of a number beyond its bounds, told where the tier says it. */
export function tierFaults(document: ProjectDocument, faults: readonly Fault[]): Finding[] {
  const tier = tierInForce(document);
  const index = document.tiers?.indexOf(tier!) ?? -1;
  return faults.map(({ path, message }) => {
    const change = tier?.changes?.findIndex((each) => each.path === path) ?? -1;
    return {
      code: 'parameter',
      severity: 'error',
      path: `tiers[${index}].changes[${Math.max(0, change)}]`,
      message: `In this tier “${path}” ${message}.`,
    };
  });
}

function valueIn(document: ProjectDocument, tier: TierDocument, path: string): number {
  const number = numberAt(document, path) ?? NaN;
  const change = tier.changes?.find((each) => each.path === path);
  return change ? tieredNumber(number, change) : number;
}

/** The archetype that the player drives, whose strength makes it easier. */
function playedArchetype({ grounds, start }: ProjectDocument): string | undefined {
  return grounds[start.ground]?.agents[start.play ?? '']?.archetype;
}

/** Tells numbers that are harder in an easier tier. */
export function checkTiers(document: ProjectDocument, findings: Findings): void {
  const { tiers = [] } = document;
  const own = playedArchetype(document);
  const paths = new Set(tiers.flatMap(({ changes = [] }) => changes.map(({ path }) => path)));
  for (const path of paths) {
    const way = HARDER[path.split('.').at(-1) ?? ''];
    if (way === undefined || !path.startsWith('archetypes.')) continue;
    if (own !== undefined && path.startsWith(`archetypes.${own}.`)) continue;
    for (let i = 1; i < tiers.length; i++) {
      const [before, after] = [tiers[i - 1], tiers[i]].map((tier) => valueIn(document, tier, path));
      const isEasier = way === 'more' ? after < before : after > before;
      if (!isEasier) continue;
      findings.warning(
        'tiers',
        `tiers[${i}]`,
        `“${path}” is ${Number(before.toFixed(3))} in ${tiers[i - 1].title ?? tiers[i - 1].name} and ${Number(after.toFixed(3))} in ${tiers[i].title ?? tiers[i].name}, which makes the later tier the easier one in that.`,
      );
    }
  }
}
