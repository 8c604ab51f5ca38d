/** Numbers those of several that share a title, so that people can tell them apart: “Pear (1)”, “Pear (2)”. */
export function numberTitles<T extends { title: string }>(list: readonly T[]): T[] {
  const shared = new Map<string, number>();
  for (const { title } of list) shared.set(title, (shared.get(title) ?? 0) + 1);
  const given = new Map<string, number>();
  return list.map((each) => {
    if (shared.get(each.title) === 1) return each;
    const number = (given.get(each.title) ?? 0) + 1;
    given.set(each.title, number);
    return { ...each, title: `${each.title} (${number})` };
  });
}
