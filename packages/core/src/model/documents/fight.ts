import {
  choice,
  flag,
  needed,
  NOTE,
  number,
  part,
  TITLE,
  type FieldUnit,
  type TypeOf,
} from '../schema/schema.ts';

/** How bodies fight: moves and guards of archetypes. Heights are above the feet. */

export const MOVE_KINDS = ['strike', 'thrown', 'instant', 'dodge'] as const;
/** A sector in front of the body, something that flies, a straight line, or a step out of the way. */
export type MoveKind = (typeof MOVE_KINDS)[number];

const seconds = (label: string, about: string, usual = 0) =>
  number(label, 's', [0, 60], about, { usual });
const height = (label: string, usual: number, about: string) =>
  number(label, 'm', [0, 10], about, { usual });
const figure = (label: string, unit: FieldUnit, most: number, usual: number, about: string) =>
  number(label, unit, [0, most], about, { usual });

export const MOVE_FIELDS = {
  kind: choice(
    'Kind',
    MOVE_KINDS,
    'a sector in front of it, something thrown, an instant line, or a dodge',
    { usual: 'strike' },
  ),
  windUp: seconds('Wind-up', 'before it can hit'),
  active: needed(number('Active', 's', [0.001, 60], 'in which it hits')),
  recovery: seconds('Recovery', 'after it, until something else can be done'),
  cooldown: seconds('Cooldown', 'from its end until it can be done again'),
  reach: figure(
    'Reach',
    'm',
    200,
    1,
    'from the edge of the body to the edge of its target; of what flies, how far it gets',
  ),
  arc: figure('Arc', '°', 180, 45, 'half of the angle it covers'),
  from: height('From', 0.8, 'the lowest height it passes'),
  to: height('To', 1.4, 'the highest height it passes'),
  damage: figure('Damage', 'points', 1_000_000, 0, 'taken from its target'),
  knockback: figure('Knockback', 'm', 20, 0, 'how far it pushes its target, within 0.15 s'),
  stagger: seconds('Stagger', 'in which its target can do nothing'),
  advance: figure('Advance', 'm', 20, 0, 'how far it carries the body while it is active'),
  turn: figure(
    'Turn',
    '°/s',
    3600,
    360,
    'how fast it still turns toward its target in the wind-up',
  ),
  shots: number('Shots', '', [1, 64], 'one after the other, while it is active', {
    usual: 1,
    whole: true,
  }),
  gap: seconds('Gap', 'from one shot to the next', 0.1),
  spread: figure('Spread', '°', 90, 0, 'of shots: one standard deviation'),
  speed: number('Speed', 'm/s', [0.1, 200], 'of what flies', { usual: 12 }),
  radius: number('Radius', 'm', [0.01, 3], 'of what flies', { usual: 0.1 }),
  drop: figure('Drop', 'm/s²', 100, 0, 'how what flies falls'),
  lead: flag('Lead', 'it aims at where the target will be'),
  invulnerable: seconds(
    'Invulnerable',
    'of a dodge: how long nothing hits, from the end of its wind-up; also beyond its own end',
  ),
  sturdy: flag('Sturdy', 'a hit does not break it off'),
  noise: figure('Noise', 'm', 200, 0, 'how far it is heard when it becomes active'),
  rooted: flag('Rooted', 'it takes the legs too'),
  hits: choice('Hits', ['one', 'many'], 'the first it meets, or all of them', { usual: 'many' }),
};

export const GUARD_FIELDS = {
  from: height('From', 0.8, 'the lowest height it covers'),
  to: height('To', 1.8, 'the highest height it covers'),
  arc: figure('Arc', '°', 180, 60, 'half of the angle it covers'),
  raise: seconds('Raise', 'until it covers'),
  maxDuration: number('Maximum time', 's', [0.001, 60], 'how long it can be held', { usual: 60 }),
  damageShare: figure(
    'Damage share',
    '',
    1,
    0,
    'share of damage and knockback that goes through, 0 to 1',
  ),
  parry: seconds('Parry', 'after it is raised: what it meets then staggers the attacker'),
  stagger: seconds('Stagger', 'of an attacker it parries', 0.8),
};

export const moveSchema = part({ title: TITLE, note: NOTE, ...MOVE_FIELDS });
export type MoveDocument = TypeOf<typeof moveSchema>;

export const guardSchema = part({ title: TITLE, note: NOTE, ...GUARD_FIELDS });
export type GuardDocument = TypeOf<typeof guardSchema>;
