import type { GroundView } from '../../terms/views.ts';
import { FROM_ABOVE } from '../from-above/from-above.ts';
import type { GroundKind } from '../ground.ts';

/** What makes the ground of each view; one that is missing here does not compile. */
export const GROUND_KINDS: Readonly<Record<GroundView, GroundKind>> = { above: FROM_ABOVE };
