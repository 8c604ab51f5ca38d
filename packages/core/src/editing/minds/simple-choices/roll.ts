import type {
  ActionDocument,
  NodeDocument,
  NodeForms,
  OptionDocument,
} from '../../../model/documents.ts';
import { CHOICE_FIELDS } from '../../../model/documents/choice.ts';
import {
  CIRCLE_ID,
  doing,
  optionOf,
  round,
  share,
  strikeThem,
  THEM,
  type SimpleForm,
} from './form.ts';

const STRIKE_ID = 'strike';

export const roll: SimpleForm = {
  id: 'roll',
  title: 'A chance at an interval',
  about:
    'Every so often it rolls whether it strikes, with one of its moves that are ready; else it circles.',
  fields: () => [
    {
      name: 'every',
      label: 'It rolls every',
      about: 'from one roll to the next',
      unit: 's',
      minimum: 0.1,
      maximum: 60,
      step: 0.1,
      usual: 1,
    },
    share('chance', 'Chance that it strikes', 'of each roll', 0.4),
    {
      name: 'distance',
      label: 'It circles at',
      about: 'from its target, while it waits for the next roll',
      unit: 'm',
      minimum: 0.5,
      maximum: 20,
      step: 0.1,
      usual: 2.5,
    },
  ],
  // An option lasts from one roll to the next, so that nothing is weighed between, and each roll is a pick.
  write: ({ every, chance, distance }, { strikes }) => {
    const pause: NodeDocument = {
      succeed: {
        timeout: doing({ do: 'circle', around: THEM, distance }),
        seconds: every,
      },
    };
    const move: NodeDocument = {
      random: strikes.map(({ name }) => ({
        weight: `ready('${name}') ? 1 : 0`,
        ...strikeThem(name),
      })),
    };
    const strike: OptionDocument = {
      id: STRIKE_ID,
      title: 'Strike',
      weight: chance,
      does: { sequence: [{ succeed: move }, pause] },
    };
    return {
      bands: {},
      choice: {
        combine: 'product',
        pick: 'weighted',
        margin: 1,
        every: CHOICE_FIELDS.every.maximum,
        options: [
          ...(strikes.length > 0 ? [strike] : []),
          { id: CIRCLE_ID, title: 'Circle', weight: round(1 - chance), does: pause },
        ],
      },
    };
  },
  read: (choice) => {
    const circle = optionOf(choice, CIRCLE_ID);
    const pause = (circle?.does as { succeed?: Partial<NodeForms['timeout']> } | undefined)
      ?.succeed;
    const distance = (pause?.timeout as ActionDocument | undefined)?.distance;
    return {
      every: typeof pause?.seconds === 'number' ? pause.seconds : undefined,
      chance: typeof circle?.weight === 'number' ? round(1 - circle.weight) : undefined,
      distance: typeof distance === 'number' ? distance : undefined,
    };
  },
};
