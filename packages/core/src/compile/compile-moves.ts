import type { ArchetypeDocument, GuardDocument, MoveDocument } from '../model/documents.ts';
import { GUARD_FIELDS, MOVE_FIELDS } from '../model/documents/fight.ts';
import { numberOf, type NumberSpec } from '../model/schema/schema.ts';
import { namesOf } from '../model/names/names.ts';
import { radians } from '../numeric/trigonometry.ts';
import type { GuardProgram, MoveProgram } from '../world/program/program.ts';
import { internText, ticks, type CompileContext } from './context.ts';

/** Moves and guards: times in ticks, angles in radians. */

type Numbers<T> = {
  [K in keyof T]: T[K] extends { kind: 'number' } ? K : T[K] extends NumberSpec ? K : never;
}[keyof T];

export function compileMoves(
  { moves = {} }: ArchetypeDocument,
  path: string,
  context: CompileContext,
): MoveProgram[] {
  return namesOf(moves).map((name) => {
    const move: MoveDocument = moves[name];
    const at = `${path}.moves.${name}`;
    const number = (field: Numbers<typeof MOVE_FIELDS>) =>
      numberOf(move, field, MOVE_FIELDS[field] as NumberSpec);
    const time = (field: Numbers<typeof MOVE_FIELDS>) => ticks(context, number(field));
    for (const field of ['active', 'windUp', 'recovery', 'cooldown', 'gap'] as const) {
      const said = move[field];
      if (said === undefined || said === 0 || ticks(context, said) >= 1) continue;
      context.findings.error(
        'parameter',
        `${at}.${field}`,
        `${said} s is shorter than a tick (${(1 / context.ticksPerSecond).toFixed(3)} s), so it would never be. Make it longer${field === 'active' ? '' : ', or 0'}.`,
      );
    }
    if (number('from') >= number('to') && move.kind !== 'dodge')
      context.findings.error(
        'parameter',
        `${at}.to`,
        `It passes from ${number('from')} to ${number('to')} m, which is no height. Set “to” above “from”.`,
      );
    return {
      name,
      title: move.title ?? name,
      word: internText(context, name),
      kind: move.kind ?? 'strike',
      windUp: time('windUp'),
      active: Math.max(1, time('active')),
      recovery: time('recovery'),
      cooldown: time('cooldown'),
      reach: number('reach'),
      halfArc: radians(number('arc')),
      from: number('from'),
      to: number('to'),
      damage: number('damage'),
      knockback: number('knockback'),
      stagger: time('stagger'),
      advance: number('advance'),
      turn: radians(number('turn')) / context.ticksPerSecond,
      shots: number('shots'),
      gap: time('gap'),
      spread: radians(number('spread')),
      speed: number('speed'),
      radius: number('radius'),
      drop: number('drop'),
      lead: move.lead === true,
      invulnerable: time('invulnerable'),
      sturdy: move.sturdy === true,
      noise: number('noise'),
      rooted: move.rooted === true,
      hitsOne: move.hits === 'one',
    };
  });
}

export function compileGuards(
  { guards = {} }: ArchetypeDocument,
  context: CompileContext,
): GuardProgram[] {
  return namesOf(guards).map((name) => {
    const guard: GuardDocument = guards[name];
    const number = (field: keyof typeof GUARD_FIELDS) =>
      numberOf(guard, field, GUARD_FIELDS[field]);
    const time = (field: keyof typeof GUARD_FIELDS) => ticks(context, number(field));
    return {
      name,
      title: guard.title ?? name,
      word: internText(context, name),
      from: number('from'),
      to: number('to'),
      halfArc: radians(number('arc')),
      raise: time('raise'),
      maxDuration: Math.max(1, time('maxDuration')),
      damageShare: number('damageShare'),
      parry: time('parry'),
      stagger: time('stagger'),
    };
  });
}
