/** Settings that the browser keeps between visits: read through a check, since anything may stand there. */

export const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Faulty settings are put here, so that they are not read again and not lost either. */
const asideOf = (key: string) => `${key}.faulty`;

/** What is kept under a key; `usual` where nothing is, or something that `isWhole` refuses, which is then set aside. */
export function readKept<T>(key: string, isWhole: (value: unknown) => value is T, usual: T): T {
  const text = localStorage.getItem(key);
  if (text === null) return usual;
  try {
    const value: unknown = JSON.parse(text);
    if (isWhole(value)) return value;
  } catch {
    // Told below, like what is JSON and no setting.
  }
  console.warn(`What the browser had kept as “${key}” can’t be read. It was set aside.`);
  localStorage.setItem(asideOf(key), text);
  localStorage.removeItem(key);
  return usual;
}
