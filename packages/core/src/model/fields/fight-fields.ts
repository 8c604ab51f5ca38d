import { MOVE_HITS, MOVE_KINDS } from '../fight-documents.ts';
import type { FieldSpecs, NumberSpec } from './field-spec.ts';

/** The fields of moves and guards. */

const seconds = (label: string, about: string, usual = 0): NumberSpec => ({
  kind: 'number',
  label,
  unit: 's',
  minimum: 0,
  maximum: 60,
  usual,
  about,
});

const height = (label: string, usual: number, about: string): NumberSpec => ({
  kind: 'number',
  label,
  unit: 'm',
  minimum: 0,
  maximum: 10,
  usual,
  about,
});

const number = (
  label: string,
  unit: NumberSpec['unit'],
  maximum: number,
  usual: number,
  about: string,
): NumberSpec => ({ kind: 'number', label, unit, minimum: 0, maximum, usual, about });

export const MOVE_FIELDS = {
  kind: {
    kind: 'choice',
    label: 'Kind',
    options: MOVE_KINDS,
    usual: 'strike',
    about: 'a sector in front of it, something thrown, an instant line, or a dodge',
  },
  windUp: seconds('Wind-up', 'before it can hit'),
  active: {
    kind: 'number',
    label: 'Active',
    unit: 's',
    minimum: 0.001,
    maximum: 60,
    required: true,
    about: 'in which it hits',
  },
  recovery: seconds('Recovery', 'after it, until something else can be done'),
  cooldown: seconds('Cooldown', 'from its end until it can be done again'),
  reach: number('Reach', 'm', 200, 1, 'from the body’s edge; how far it flies'),
  arc: number('Arc', '°', 180, 45, 'half of the angle it covers'),
  from: height('From', 0.8, 'the lowest height it passes'),
  to: height('To', 1.4, 'the highest height it passes'),
  damage: number('Damage', 'points', 1_000_000, 0, 'taken from its target'),
  knockback: number('Knockback', 'm', 20, 0, 'how far it pushes its target'),
  stagger: seconds('Stagger', 'in which its target can do nothing'),
  advance: number('Advance', 'm', 20, 0, 'how far it carries the body while it is active'),
  turn: number(
    'Turn',
    '°/s',
    3600,
    360,
    'how fast it still turns toward its target in the wind-up',
  ),
  shots: { ...number('Shots', '', 64, 1, 'one after the other'), minimum: 1, whole: true },
  gap: seconds('Gap', 'from one shot to the next', 0.1),
  spread: number('Spread', '°', 90, 0, 'of shots: one standard deviation'),
  speed: { ...number('Speed', 'm/s', 200, 12, 'of what flies'), minimum: 0.1 },
  radius: { ...number('Radius', 'm', 3, 0.1, 'of what flies'), minimum: 0.01 },
  drop: number('Drop', 'm/s²', 100, 0, 'how what flies falls'),
  lead: { kind: 'flag', label: 'Lead', about: 'it aims at where the target will be' },
  invulnerable: seconds(
    'Invulnerable',
    'of a dodge: how long nothing hits, from the end of its wind-up',
  ),
  sturdy: { kind: 'flag', label: 'Sturdy', about: 'a hit does not break it off' },
  noise: number('Noise', 'm', 200, 0, 'how far it is heard when it becomes active'),
  rooted: { kind: 'flag', label: 'Rooted', about: 'it takes the legs too' },
  hits: {
    kind: 'choice',
    label: 'Hits',
    options: MOVE_HITS,
    usual: 'many',
    about: 'the first it meets, or all of them',
  },
} as const satisfies FieldSpecs;

export const GUARD_FIELDS = {
  from: height('From', 0.8, 'the lowest height it covers'),
  to: height('To', 1.8, 'the highest height it covers'),
  arc: number('Arc', '°', 180, 60, 'half of the angle it covers'),
  raise: seconds('Raise', 'until it covers'),
  maxDuration: { ...seconds('Maximum time', 'how long it can be held', 60), minimum: 0.001 },
  damageShare: number('Damage share', '', 1, 0, 'share of the damage that goes through, 0 to 1'),
  parry: seconds('Parry', 'after it is raised: what it meets then staggers the attacker'),
  stagger: seconds('Stagger', 'of an attacker it parries', 0.8),
} as const satisfies FieldSpecs;
