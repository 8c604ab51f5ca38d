import type { SightDocument } from '../../model/documents.ts';

/** Senses that are new in a project, before they were tuned. */

/** What a body is given that saw nothing. */
export const NEW_SIGHT: SightDocument = {
  cones: [{ range: 10, halfAngle: 30, gain: 2 }],
  fade: 0.3,
  grace: 0.5,
  curious: 0.3,
  certain: 1,
  forgetAfter: 10,
};
/** What a new archetype, and the keeper of a new project, begins with: it sees agents that come near. */
export const WATCHFUL_SIGHT: SightDocument = {
  cones: [{ range: 9, halfAngle: 60, gain: 1.5 }],
  fade: 0.25,
  grace: 0.5,
  curious: 0.3,
  certain: 1,
  forgetAfter: 20,
};
export const NEW_HEARING = { threshold: 0.1 };
export const NEW_LANTERN = { reach: 4, strength: 0.5 };
