import { latePart } from '../../loading/late-part.tsx';

/** The rows of a tree or rules, loaded when the first are shown: a page without any needs no outline. */
export const Outline = latePart('the rows', () =>
  import('./outline.tsx').then((file) => file.Outline),
);
