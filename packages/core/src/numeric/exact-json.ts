/**
 * Plain data as JSON, exact to the last bit: the numbers that JSON has no word for stand as text behind a
 * tilde, text that begins with a tilde gets another, and numbers side by side name their kind.
 */

const NUMBERS: ReadonlyMap<string, number> = new Map([
  ['~NaN', NaN],
  ['~Infinity', Infinity],
  ['~-Infinity', -Infinity],
  ['~-0', -0],
]);

const ARRAYS = { Float64Array, Int32Array, Uint32Array, Uint8Array } as const;

function encodeValue(_: string, value: unknown): unknown {
  if (typeof value === 'string') return value.startsWith('~') ? `~${value}` : value;
  if (ArrayBuffer.isView(value))
    return { [`~${value.constructor.name}`]: Array.from(value as unknown as ArrayLike<number>) };
  if (typeof value !== 'number') return value;
  if (Object.is(value, -0)) return '~-0';
  return value - value === 0 ? value : `~${value}`;
}

function decodeValue(_: string, value: unknown): unknown {
  if (typeof value === 'object' && value !== null) {
    const [name] = Object.keys(value);
    const kind = name?.startsWith('~') ? ARRAYS[name.slice(1) as keyof typeof ARRAYS] : undefined;
    return kind ? kind.from((value as Record<string, number[]>)[name]) : value;
  }
  if (typeof value !== 'string' || !value.startsWith('~')) return value;
  const number = NUMBERS.get(value);
  if (number !== undefined) return number;
  if (value.startsWith('~~')) return value.slice(1);
  throw new Error(`“${value}” is no number.`);
}

export function writeExactly(value: unknown): string {
  return JSON.stringify(value, encodeValue);
}

/** What {@link writeExactly} wrote. @throws {Error} it is no JSON, or names a number that is none */
export function readExactly(text: string): unknown {
  return JSON.parse(text, decodeValue);
}
