import type {
  BandSetDocument,
  GradeDocument,
  Name,
  OptionDocument,
} from '../../../model/documents.ts';
import {
  actionOf,
  CIRCLE_ID,
  doing,
  idFor,
  optionOf,
  round,
  share,
  strikeId,
  strikeThem,
  THEM,
  type SimpleForm,
} from './form.ts';

const SPACING = (mind: Name) => `${mind}Spacing`;
const THREAT = (mind: Name) => `${mind}Threat`;

const guardId = (guard: Name) => idFor('guard', guard);

/** Distance to its target, as a share of the distance it wants to keep. */
function spacing(near: number): BandSetDocument {
  const at = (share: number) => round(near * share);
  return {
    title: 'Spacing',
    input: `distance(${THEM})`,
    bands: [
      { name: 'tooNear', fullTo: at(0.6), to: at(0.8) },
      { name: 'right', from: at(0.6), fullFrom: at(0.8), fullTo: at(1.2), to: at(1.5) },
      { name: 'far', from: at(1.2), fullFrom: at(1.5) },
    ],
  };
}

const threat: BandSetDocument = {
  title: 'Threat',
  input: `impactIn(${THEM})`,
  bands: [
    { name: 'soon', fullTo: 0.35, to: 0.5 },
    { name: 'later', from: 0.35, fullFrom: 0.5 },
  ],
};

/** What the sliders of moves begin with. */
const USUAL = { strikes: 0.6, waits: 0.8 };

/** How strong closing in, backing off and circling are where they are called for. */
const STEADY = { closeIn: 0.6, backOff: 0.7, circle: 0.3 };

export const sliders: SimpleForm = {
  id: 'sliders',
  title: 'A few sliders',
  about:
    'How near it wants to be, how often it strikes, how much it guards, how long it waits: graded rows, drawn by their strength.',
  fields: ({ guards }) => [
    {
      name: 'near',
      label: 'How near it wants to be',
      about: 'closer than this it backs off, farther away it closes in',
      unit: 'm',
      minimum: 0.5,
      maximum: 10,
      step: 0.1,
      usual: 1.6,
    },
    share(
      'strikes',
      'How often it strikes',
      'strength of its moves where they reach',
      USUAL.strikes,
    ),
    ...(guards.length > 0
      ? [share('guards', 'How much it guards', 'strength of its guards while a hit is coming', 0.5)]
      : []),
    {
      name: 'waits',
      label: 'How long it waits',
      about: 'cooldown of each move',
      unit: 's',
      minimum: 0,
      maximum: 10,
      step: 0.1,
      usual: USUAL.waits,
    },
  ],
  write: ({ near, strikes, guards: guarding, waits }, { mind, ...can }) => {
    const here = (band: string, strength: number): GradeDocument[] => [
      { when: { [SPACING(mind)]: band }, strength },
    ];
    return {
      bands: {
        [SPACING(mind)]: spacing(near),
        ...(can.guards.length > 0 && { [THREAT(mind)]: threat }),
      },
      choice: {
        combine: 'graded',
        pick: 'weighted',
        margin: 1,
        every: 0.3,
        options: [
          {
            id: 'closeIn',
            title: 'Close in',
            grades: here('far', STEADY.closeIn),
            does: doing({ do: 'moveTo', to: THEM, within: near }),
          },
          {
            id: 'backOff',
            title: 'Back off',
            grades: here('tooNear', STEADY.backOff),
            does: doing({ do: 'keepDistance', from: THEM, min: near, max: round(near * 1.2) }),
          },
          {
            id: CIRCLE_ID,
            title: 'Circle',
            grades: here('right', STEADY.circle),
            does: doing({ do: 'circle', around: THEM, distance: near }),
          },
          ...can.strikes.map(({ name, title }): OptionDocument => ({
            id: strikeId(name),
            title,
            when: `ready('${name}') && canReach('${name}', ${THEM})`,
            ...(waits > 0 && { cooldown: waits }),
            grades: [{ when: {}, strength: strikes }],
            does: strikeThem(name),
          })),
          ...can.guards.map(({ name, title }) => ({
            id: guardId(name),
            title,
            when: `known(impactIn(${THEM}))`,
            grades: [{ when: { [THREAT(mind)]: 'soon' }, strength: guarding }],
            does: doing({ do: 'guard', guard: name, seconds: 0.6 }),
          })),
        ],
      },
    };
  },
  read: (choice, _, { strikes, guards }) => {
    const strike = strikes[0] && optionOf(choice, strikeId(strikes[0].name));
    const near = actionOf(choice, 'closeIn')?.within;
    const [guard] = guards;
    const guarded = guard && optionOf(choice, guardId(guard.name));
    return {
      near: typeof near === 'number' ? near : undefined,
      // Without moves the slider has nothing to say.
      strikes: strikes.length === 0 ? USUAL.strikes : strike?.grades?.[0]?.strength,
      ...(guard && { guards: guarded?.grades?.[0]?.strength }),
      waits: strikes.length === 0 ? USUAL.waits : (strike?.cooldown ?? 0),
    };
  },
};
