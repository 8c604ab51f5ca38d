import { readExactly, writeExactly } from './exact-json.ts';
import { hashState } from './state-hash.ts';

/** Programs and snapshots as text: with a format, a version and a hash, so that what is damaged or cut off is refused. */

export interface Seal {
  format: string;
  /** Raised whenever a text of before would be read wrongly. */
  version: number;
  /** What it holds, for messages: “compiled program”. */
  what: string;
  /** What to do about one of another version, or one that is damaged. */
  remedy: string;
}

export function seal({ format, version }: Seal, content: object): string {
  return writeExactly({ format, version, hash: hashState(content), content });
}

/**
 * What a sealed text holds.
 *
 * @throws {Error} it is of another format or version, is damaged, or is not whole
 */
export function unseal({ format, version, what, remedy }: Seal, text: string): object {
  let value: unknown;
  try {
    value = readExactly(text);
  } catch (error) {
    throw new Error(`This is no ${what}: ${(error as Error).message}`, { cause: error });
  }
  const read = (value ?? {}) as Record<string, unknown>;
  if (read.format !== format) throw new Error(`This is no ${what}. ${remedy}`);
  if (read.version !== version)
    throw new Error(
      `This ${what} is of version ${String(read.version)}; this runtime reads version ${version}. ${remedy}`,
    );
  const { content } = read;
  if (typeof content !== 'object' || content === null || hashState(content) !== read.hash)
    throw new Error(`This ${what} is damaged or not whole. ${remedy}`);
  return content;
}
