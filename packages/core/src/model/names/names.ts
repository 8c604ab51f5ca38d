/** What a name of a document must look like, and how to say it. */
export const NAME_PATTERN = /^[a-z][A-Za-z0-9]{0,39}$/;
export const NAME_ABOUT = 'a lower-case letter, then up to 39 letters and digits';

/** A word of a percept, such as what was heard; and an event, words with dots between. */
export const WORD_PATTERN = /^[A-Za-z]\w{0,39}$/;
export const EVENT_PATTERN = /^[A-Za-z]\w*(\.[A-Za-z]\w*)*$/;

/** Characters that a title may have. */
export const TITLE_LENGTH = 80;

export const byName = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** Whether a field of any object is kept and never read: its name begins with `x-`. */
export function isForeign(field: string): boolean {
  return field.startsWith('x-');
}

/** The names of a record in ascending order, `x-` fields left out. */
export function namesOf(record: object): string[] {
  return Object.keys(record)
    .filter((name) => !isForeign(name))
    .sort(byName);
}
