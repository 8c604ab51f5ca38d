import { parseTree, printParseErrorCode, type Node, type ParseError } from 'jsonc-parser';
import { pathOnto } from '../names/path-text.ts';

/** JSON read strictly: what is wrong is said with its line, and nothing in the text is lost unseen. */

export interface JsonFault {
  /** Such as `minds.warden`; empty for the text as a whole. */
  path: string;
  message: string;
}

/** Line and column (from 1) of an offset in `text`. */
function lineAndColumn(text: string, offset: number): string {
  const before = text.slice(0, offset).split('\n');
  return `line ${before.length}, column ${before[before.length - 1].length + 1}`;
}

function words({ error }: ParseError): string {
  return printParseErrorCode(error)
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();
}

/** Keys that are given twice, and numbers that are too large to be any: JSON takes both without a word. */
function lost(node: Node, path: string, text: string): JsonFault[] {
  if (node.type === 'number' && !Number.isFinite(node.value))
    return [
      {
        path,
        message: `is a number too large to be read (${text.slice(node.offset, node.offset + node.length)}, ${lineAndColumn(text, node.offset)})`,
      },
    ];
  const inner = node.children ?? [];
  if (node.type === 'array')
    return inner.flatMap((child, i) => lost(child, pathOnto(path, i), text));
  if (node.type !== 'object') return [];
  const known = new Set<string>();
  return inner.flatMap(({ children = [] }) => {
    const [key, value] = children;
    const name = String(key.value);
    const at = pathOnto(path, name);
    const again = known.has(name);
    known.add(name);
    return [
      ...(again
        ? [
            {
              path: at,
              message: `is given twice; the second is at ${lineAndColumn(text, key.offset)}. Remove one`,
            },
          ]
        : []),
      ...(value ? lost(value, at, text) : []),
    ];
  });
}

/** Levels of lists and objects a document may have; more is no project that people could read, and nothing could walk it. */
export const DEEPEST = 256;

/** The offset at which a text is nested too deep; −1 where it never is. */
function tooDeepAt(text: string): number {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const letter = text[i];
    if (quoted) {
      if (letter === '\\') i++;
      else if (letter === '"') quoted = false;
    } else if (letter === '"') quoted = true;
    else if (letter === '{' || letter === '[') {
      if (++depth > DEEPEST) return i;
    } else if (letter === '}' || letter === ']') depth--;
  }
  return -1;
}

/** The value of a JSON text, a byte order mark before it left out; or what is wrong with it. */
export function parseJson(whole: string): { value: unknown } | { faults: JsonFault[] } {
  const text = whole.replace(/^\uFEFF/, '');
  const deep = tooDeepAt(text);
  if (deep >= 0)
    return {
      faults: [
        {
          path: '',
          message: `The file is nested more than ${DEEPEST} levels deep at ${lineAndColumn(text, deep)}. Take parts out of what they are in.`,
        },
      ],
    };
  const errors: ParseError[] = [];
  const tree = parseTree(text, errors, { disallowComments: true, allowTrailingComma: false });
  const [error] = errors;
  if (error || !tree) {
    const where = lineAndColumn(text, error?.offset ?? 0);
    return {
      faults: [
        {
          path: '',
          message: `This is not JSON: reading stopped at ${where} (${error ? words(error) : 'there is nothing'}). Open a project file made by Crooked Lantern.`,
        },
      ],
    };
  }
  const faults = lost(tree, '', text);
  return faults.length > 0 ? { faults } : { value: JSON.parse(text) as unknown };
}
