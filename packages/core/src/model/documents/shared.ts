import { needed, number, pair, type TypeOf } from '../schema/schema.ts';

/** What several documents have in common. */

/** A short id that people can say: a letter, then letters and digits. */
export type Name = string;
/** Expression source, see the expression reference. */
export type Expression = string;
/** A number, or an expression for one. */
export type NumberOrExpression = number | Expression;

/** A coordinate of a place. */
export const PLACE = number('Place', 'm', [-10_000, 10_000], 'x to the right, y down');
/** A side of a box. */
export const SIZE = number('Size', 'm', [0.05, 10_000], 'width and height');
export const HEADING = number('Heading', '°', [-360, 360], '0 = to the right, clockwise positive', {
  usual: 0,
});

export const placeSchema = pair(PLACE, 'a place, in metres');
export const sizeSchema = pair(SIZE, 'width and height, in metres');
/** [x, y] in metres. */
export type PointDocument = TypeOf<typeof placeSchema>;

/** The two fields of everything that gives light. */
export function lightFields(maximumReach: number, brightest: string) {
  return {
    reach: needed(number('Reach', 'm', [0.5, maximumReach], 'how far its light goes')),
    strength: needed(number('Strength', '', [0, 1], `the light it gives ${brightest}`)),
  };
}
