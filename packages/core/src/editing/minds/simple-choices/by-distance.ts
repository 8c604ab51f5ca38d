import type {
  BandSetDocument,
  GradeDocument,
  Name,
  OptionDocument,
} from '../../../model/documents.ts';
import {
  CIRCLE_ID,
  doing,
  optionOf,
  round,
  share,
  strikeId,
  strikeThem,
  THEM,
  type FormField,
  type SimpleForm,
} from './form.ts';

const RANGE = (mind: Name) => `${mind}Range`;
const RANGES = [
  { name: 'near', title: 'near' },
  { name: 'middle', title: 'middle' },
  { name: 'far', title: 'far' },
] as const;
/** What else than a move it can do at a distance, with usual weights near, in the middle and far. */
const STEPS = [
  { id: 'closeIn', title: 'Close in', usual: [0, 0.4, 1] },
  { id: CIRCLE_ID, title: 'Circle', usual: [0.2, 0.4, 0] },
] as const;
const weightName = (id: Name, range: string) => `${id}.${range}`;

function ranges(near: number, far: number): BandSetDocument {
  // Where one fades the next rises, so that their sum is 1 everywhere.
  const [a, b] = [round(near * 0.2), round((far - near) * 0.3)];
  const soft = Math.min(a, b);
  return {
    title: 'Range',
    input: `distance(${THEM})`,
    bands: [
      { name: 'near', fullTo: round(near - soft), to: round(near + soft) },
      {
        name: 'middle',
        from: round(near - soft),
        fullFrom: round(near + soft),
        fullTo: round(far - soft),
        to: round(far + soft),
      },
      { name: 'far', from: round(far - soft), fullFrom: round(far + soft) },
    ],
  };
}

export const byDistance: SimpleForm = {
  id: 'byDistance',
  title: 'Weights by distance',
  about: 'For each move how likely it is near, in the middle and far: drawn by these weights.',
  fields: ({ strikes }) => [
    {
      name: 'near',
      label: 'Near ends at',
      about: 'middle of the passage from near to middle',
      unit: 'm',
      minimum: 0.5,
      maximum: 20,
      step: 0.1,
      usual: 1.5,
    },
    {
      name: 'far',
      label: 'Far begins at',
      about: 'middle of the passage from middle to far',
      unit: 'm',
      minimum: 1,
      maximum: 50,
      step: 0.1,
      usual: 4,
    },
    ...[
      ...strikes.map(({ name, title }) => ({ id: strikeId(name), title, usual: [1, 0.3, 0] })),
      ...STEPS,
    ].flatMap(({ id, title, usual }) =>
      RANGES.map((range, i): FormField => ({
        ...share(
          weightName(id, range.name),
          `${title}, ${range.title}`,
          'how likely it is drawn',
          usual[i],
        ),
        cell: { row: title, column: range.title },
      })),
    ),
  ],
  write: (values, { mind, strikes }) => {
    const grades = (id: Name): GradeDocument[] =>
      RANGES.map(({ name }) => ({
        when: { [RANGE(mind)]: name },
        strength: values[weightName(id, name)],
      }));
    return {
      bands: { [RANGE(mind)]: ranges(values.near, values.far) },
      choice: {
        combine: 'graded',
        pick: 'weighted',
        margin: 1,
        every: 0.5,
        options: [
          ...strikes.map(({ name, title }): OptionDocument => ({
            id: strikeId(name),
            title,
            when: `ready('${name}')`,
            grades: grades(strikeId(name)),
            does: strikeThem(name),
          })),
          {
            id: STEPS[0].id,
            title: STEPS[0].title,
            grades: grades(STEPS[0].id),
            does: doing({ do: 'moveTo', to: THEM, within: round(values.near * 0.8) }),
          },
          {
            id: STEPS[1].id,
            title: STEPS[1].title,
            grades: grades(STEPS[1].id),
            does: doing({ do: 'circle', around: THEM, distance: values.near }),
          },
        ],
      },
    };
  },
  read: (choice, bands, { mind, strikes }) => {
    const [near, , far] = bands[RANGE(mind)]?.bands ?? [];
    const ids = [...strikes.map(({ name }) => strikeId(name)), ...STEPS.map(({ id }) => id)];
    const middle = (from: number | undefined, to: number | undefined) =>
      from === undefined || to === undefined ? undefined : round((from + to) / 2);
    return {
      near: middle(near?.fullTo, near?.to),
      far: middle(far?.from, far?.fullFrom),
      ...Object.fromEntries(
        ids.flatMap((id) =>
          RANGES.map(({ name }, i) => [
            weightName(id, name),
            optionOf(choice, id)?.grades?.[i]?.strength,
          ]),
        ),
      ),
    };
  },
};
