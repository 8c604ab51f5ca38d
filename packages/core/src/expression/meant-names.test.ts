import { describe, expect, it } from 'vitest';
import { BUILTINS } from './builtins.ts';
import { MEANT, meantBy } from './meant-names.ts';

const names = new Set(BUILTINS.map(({ name }) => name));

describe('names that mean the same', () => {
  it.each(Object.entries(MEANT))(
    '%s leads to what there is, and is no name itself',
    (word, meant) => {
      expect(names).not.toContain(word);
      for (const each of meant) expect(names).toContain(each);
      expect(meantBy(word.toUpperCase(), names)).toContain(`“${meant[0]}”`);
    },
  );
});
