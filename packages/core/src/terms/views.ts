/**
 * The views a ground can have, with what makes sense in each: the schema, the compiler and the editors ask
 * this. What a ground of each view does while it runs stands in `ground/kinds/kinds.ts`.
 */
export const GROUND_VIEWS = {
  above: {
    title: 'Seen from above',
    parts: [
      'walls',
      'lamps',
      'gates',
      'plates',
      'things',
      'posts',
      'spawns',
      'zones',
      'routes',
      'agents',
    ],
  },
} as const satisfies Record<string, GroundViewSpec>;

export interface GroundViewSpec {
  title: string;
  /** The kinds of parts that its editor offers, as the document names them. */
  parts: readonly string[];
}

export type GroundView = keyof typeof GROUND_VIEWS;
export const VIEW_NAMES = Object.keys(GROUND_VIEWS) as GroundView[];
export const USUAL_VIEW: GroundView = 'above';

/** Whether something that may say its views makes sense in one; what says none makes sense in all. */
export function fitsView(
  { views }: { views?: readonly GroundView[] },
  view: GroundView = USUAL_VIEW,
): boolean {
  return views === undefined || views.includes(view);
}
