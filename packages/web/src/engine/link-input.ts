import { isPlace } from '@crooked-lantern/core';
import type { Recording } from './protocol.ts';

/** What players did, as text that fits in an address: packed JSON. */

type Inputs = Recording['inputs'];

/** Longer addresses are cut by some mail and chat programs. */
const LONGEST = 6000;

async function through(bytes: Uint8Array, stream: GenericTransformStream): Promise<Uint8Array> {
  const body = new Blob([bytes as BlobPart]).stream().pipeThrough(stream);
  return new Uint8Array(await new Response(body as ReadableStream).arrayBuffer());
}

/** Null where it would be too long for an address. */
export async function textOfInputs(inputs: Inputs): Promise<string | null> {
  const plain = new TextEncoder().encode(JSON.stringify(inputs));
  const packed = await through(plain, new CompressionStream('deflate-raw'));
  const text = btoa(String.fromCharCode(...packed.slice(0, LONGEST)))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '');
  return packed.length > LONGEST || text.length > LONGEST ? null : text;
}

/** Null for a text that says no inputs. */
export async function inputsOfText(text: string): Promise<Inputs | null> {
  try {
    const packed = Uint8Array.from(
      atob(text.replaceAll('-', '+').replaceAll('_', '/')),
      (character) => character.charCodeAt(0),
    );
    const plain = await through(packed, new DecompressionStream('deflate-raw'));
    const inputs: unknown = JSON.parse(new TextDecoder().decode(plain));
    return isInputs(inputs) ? inputs : null;
  } catch {
    // Cut off or changed on its way: that there is nothing to be given again is what is said of it.
    return null;
  }
}

function isInputs(value: unknown): value is Inputs {
  return (
    Array.isArray(value) &&
    value.every((entry: unknown) => {
      const { tick, input } = (entry ?? {}) as Record<string, unknown>;
      const { agent, x, y, gait, at, place } = (input ?? {}) as Record<string, unknown>;
      return (
        Number.isInteger(tick) &&
        typeof agent === 'string' &&
        Number.isFinite(x) &&
        Number.isFinite(y) &&
        (gait === null || typeof gait === 'string') &&
        [at, place].every((each) => each === undefined || isPlace(each))
      );
    })
  );
}
