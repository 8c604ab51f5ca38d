/** Limits of a run that documents, the checker and the runtime speak of alike. */

/** A route learns so many places at most. */
export const MOST_LEARNED = 16;
