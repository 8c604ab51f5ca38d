import { columnName, type ChoiceDocument } from '@crooked-lantern/core';

/** The columns of the board: considerations that are called alike stand under each other. */
export interface Column {
  name: string;
  /** By option: the place of its consideration; null where it has none. */
  cells: (number | null)[];
}

/** In the order in which they first appear. An option that has one twice has a column of its own for the second. */
export function columnsOf({ options }: ChoiceDocument): Column[] {
  const columns: (Column & { key: string })[] = [];
  options.forEach(({ considerations = [] }, option) => {
    const times = new Map<string, number>();
    considerations.forEach((consideration, at) => {
      const name = columnName(consideration);
      const time = times.get(name) ?? 0;
      times.set(name, time + 1);
      const key = `${name} ${time}`;
      let column = columns.find((each) => each.key === key);
      if (!column) {
        column = { key, name, cells: options.map(() => null) };
        columns.push(column);
      }
      column.cells[option] = at;
    });
  });
  return columns.map(({ name, cells }) => ({ name, cells }));
}
