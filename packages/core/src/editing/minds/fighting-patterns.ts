import {
  lookAbout,
  machineOf,
  metres,
  quarry,
  rememberWhom,
  seconds,
  stand,
  sweepParameter,
  watch,
  type Pattern,
} from './pattern-parts.ts';

/** Ways of fighting: each strikes with one move of the archetype that gets it. */
export const FIGHTING_PATTERNS: readonly Pattern[] = [
  {
    id: 'hesitate',
    title: 'Circle and strike',
    needs: ['sight', 'move'],
    about:
      'Circles its target, waits for an opening or decides at an interval by chance whether to attack, strikes once and backs off.',
    strikesWith: 'A move it strikes with from near',
    parameters: [
      metres('distance', 'Circles at', 3.5),
      seconds('every', 'Draws every', 1),
      {
        name: 'chance',
        label: 'Goes for them with a chance of',
        unit: '',
        minimum: 0,
        maximum: 1,
        value: 0.35,
      },
      metres('reach', 'Strikes from within', 1.4),
    ],
    make: ({ distance, every, chance, reach }, move) => ({
      title: 'Hesitant',
      memory: { ...quarry },
      trees: {
        circleThem: {
          title: 'Circle and draw',
          root: {
            parallel: [
              { do: 'circle', around: 'quarry', distance },
              {
                repeat: {
                  sequence: [
                    { do: 'wait', seconds: every },
                    { chance: { condition: `ready('${move}')` }, probability: chance },
                  ],
                },
                until: 'success',
              },
            ],
            successes: 1,
            failures: 2,
          } as never,
        },
        strikeOnce: {
          title: 'Strike once',
          root: {
            sequence: [
              { timeout: { do: 'moveTo', to: 'quarry', within: reach }, seconds: 2 },
              { do: 'strike', move, at: 'quarry', uninterrupted: true },
            ] as never,
          },
        },
      },
      machine: machineOf(
        stand({ to: 'circle', when: 'attention.strength > 0.8', note: 'certain' }),
        {
          id: 'circle',
          title: 'Circle',
          entry: [rememberWhom],
          activity: { tree: 'circleThem' },
          transitions: [
            {
              to: 'strike',
              when: `phaseOf(quarry) == 'recovery' && ready('${move}')`,
              note: 'an opening',
            },
            { to: 'strike', on: 'done.success', note: 'drawn' },
            { to: 'stand', when: '!sees(quarry)', for: 2, note: 'lost' },
          ],
        },
        {
          id: 'strike',
          title: 'Go for them',
          activity: { tree: 'strikeOnce' },
          transitions: [{ to: 'backOff', on: 'done', note: 'whatever came of it' }],
        },
        {
          id: 'backOff',
          title: 'Back off',
          activity: {
            do: 'keepDistance',
            from: 'quarry',
            min: distance,
            max: distance + 2,
          },
          transitions: [{ to: 'circle', after: 1, note: 'has its breath back' }],
        },
      ),
    }),
  },
  {
    id: 'turret',
    title: 'Stand and shoot',
    needs: ['sight', 'move'],
    about:
      'Stays in place, looks from side to side, and shoots in bursts while it sees its target.',
    strikesWith: 'A move it shoots with',
    parameters: [
      sweepParameter,
      metres('far', 'Shoots as far as', 10),
      seconds('pause', 'Pauses between bursts', 1.5),
    ],
    make: ({ sweep, far, pause }, move) => ({
      title: 'Shooter',
      memory: { ...quarry },
      trees: {
        lookAbout: lookAbout(sweep, 1),
        shoot: {
          title: 'Shoot',
          root: {
            repeat: {
              selector: [
                {
                  sequence: [
                    { do: 'aim', toward: 'quarry' },
                    { condition: `sees(quarry) && distance(quarry) < ${far}` },
                    { do: 'strike', move, at: 'quarry', uninterrupted: true },
                    { do: 'wait', seconds: pause },
                  ],
                },
                { do: 'wait', seconds: 0.2 },
              ],
            },
          } as never,
        },
      },
      machine: machineOf(
        watch({ to: 'shoot', when: 'attention.strength > 0.8', note: 'certain' }),
        {
          id: 'shoot',
          title: 'Shoot',
          entry: [rememberWhom],
          activity: { tree: 'shoot' },
          transitions: [{ to: 'watch', when: '!sees(quarry)', for: 2, note: 'gone' }],
        },
      ),
    }),
  },
];
