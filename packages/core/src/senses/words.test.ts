import { expect, it } from 'vitest';
import { SENSES as IN_DOCUMENTS } from '../model/documents.ts';
import { SENSES, WORD_INDICES } from './words.ts';

it('the runtime counts the senses as documents name them', () => {
  expect(SENSES).toEqual(IN_DOCUMENTS);
  expect(SENSES.map((sense) => WORD_INDICES[sense])).toEqual(IN_DOCUMENTS.map((_, index) => index));
});
