/** What the browser keeps between visits: read through a check, since anything may stand there. */

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    // Cut off, or not ours: no check accepts it, as if it held nothing.
    return null;
  }
}

const warn = (key: string) =>
  console.warn(`What the browser had kept as “${key}” can’t be read. It was set aside.`);

/**
 * What is kept under a key; null where nothing is. What `isWhole` refuses is moved to the key `aside`, so that it is
 * not read again and not lost either, and is handed to `onFaulty` as text.
 */
export function readKept<T extends object>(
  key: string,
  isWhole: (value: unknown) => value is T,
  aside = `${key}.faulty`,
  onFaulty: (text: string) => void = () => warn(key),
): T | null {
  const text = localStorage.getItem(key);
  if (text === null) return null;
  const value = parsed(text);
  if (isWhole(value)) return value;
  localStorage.setItem(aside, text);
  localStorage.removeItem(key);
  onFaulty(text);
  return null;
}
