import { TITLE_LENGTH } from './names.ts';

/** The title of a copy, which no other has: “Warden 2” for the first copy of “Warden”, “Warden 3” for one of “Warden 2”. */
export function titleOfCopy(title: string, titles: Iterable<string>): string {
  const taken = new Set(titles);
  const [, stem, digits] = /^(.*?)(?: (\d{1,6}))?$/s.exec(title)!;
  for (let number = digits === undefined ? 2 : Number(digits) + 1; ; number++) {
    const end = ` ${number}`;
    const copy = `${stem.slice(0, TITLE_LENGTH - end.length)}${end}`;
    if (!taken.has(copy)) return copy;
  }
}
