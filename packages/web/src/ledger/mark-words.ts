import type { HitResult, LedgerEntry, PlayerAct } from '@crooked-lantern/core';
import { senseTint, type Tokens } from '../theme/tokens.ts';
import { counted } from '../ui/counted.ts';

/** What the ledger's marks say, and in which colour. */

const ACTS: Record<PlayerAct, string> = {
  pickUp: 'pick up',
  drop: 'put down',
  throw: 'throw',
  use: 'open or close',
  strike: 'strike',
  guard: 'guard',
  lower: 'lower its guard',
  dodge: 'dodge',
};

function actWords(act: PlayerAct | undefined): string {
  return act ? ACTS[act] : 'stand there';
}

/** The colour of what came of a hit: harm where it landed, success where it was met, else faint. */
export function hitTint(result: HitResult, tokens: Tokens): string {
  if (result === 'landed') return tokens.harm;
  return result === 'guarded' || result === 'parried' || result === 'dodged'
    ? tokens.done
    : tokens.mute;
}

function hitWords({ move, of, result, harm, missedBy }: Extract<LedgerEntry, { kind: 'hit' }>) {
  const whom = of === '' ? '' : ` ${of}`;
  if (result === 'missed')
    return `${move} missed${whom}${missedBy === undefined ? '' : ` by ${missedBy.toFixed(2)} m`}`;
  if (result === 'walled') return `${move} met a wall`;
  if (result === 'landed') return `${move} hit${whom}: ${Number(harm.toFixed(1))} points`;
  const through = harm > 0 ? `, ${Number(harm.toFixed(1))} points went through` : '';
  return `${move} was ${result} by${whom}${through}`;
}

function perceptWords({
  sense,
  of,
  how,
  strength,
}: Extract<LedgerEntry, { kind: 'percept' }>): string {
  if (sense === 'sight') return `sight of ${of}: ${how}, ${strength.toFixed(2)}`;
  if (sense === 'hearing') return `heard a ${how}, loudness ${strength.toFixed(2)}`;
  return `${sense}: ${how}${of ? ` (${of})` : ''}`;
}

/** Colour and words of an entry that stands as a dot; undefined for one that does not. */
export function dotOf(
  entry: LedgerEntry,
  tokens: Tokens,
): { color: string; words: string } | undefined {
  switch (entry.kind) {
    case 'percept':
      return { color: senseTint(entry.sense, tokens), words: perceptWords(entry) };
    case 'harm':
      return {
        color: tokens.harm,
        words: `harmed${entry.by ? ` by ${entry.by}` : ''}: −${entry.amount}, ${entry.left} left`,
      };
    case 'hit':
      return { color: hitTint(entry.result, tokens), words: hitWords(entry) };
    case 'broken':
      return { color: tokens.refuse, words: `${entry.move} broken off: ${entry.reason}` };
    case 'death':
      return { color: tokens.harm, words: `dies${entry.by ? `, by ${entry.by}` : ''}` };
    case 'recycled':
      return {
        color: tokens.mute,
        words: `respawns at (${entry.x.toFixed(1)}, ${entry.y.toFixed(1)})`,
      };
    case 'say':
      return { color: tokens.bone, words: `says “${entry.text}”` };
    case 'noWay':
      return {
        color: tokens.harm,
        words: `no way to (${entry.x.toFixed(1)}, ${entry.y.toFixed(1)}): ${entry.reason}`,
      };
    case 'stuck':
      return { color: tokens.harm, words: `stuck: ${entry.reason}` };
    case 'role':
      return { color: tokens.told, words: entry.role ? `is now ${entry.role}` : 'has no part' };
    case 'input':
      return { color: tokens.refuse, words: `can’t ${actWords(entry.act)}: ${entry.trouble}` };
    case 'cycle':
      return { color: tokens.harm, words: `went round in circles: ${entry.states.join(' → ')}` };
    case 'dropped':
      return {
        color: tokens.harm,
        words: `${counted(entry.events, 'event')} dropped: too many wait for this mind`,
      };
    case 'overwrote':
      return {
        color: tokens.harm,
        words: `wrote ${entry.key} over what ${entry.of} wrote in the same tick`,
      };
    case 'skipped':
      return { color: tokens.mute, words: `decides nothing until ${entry.action} is over` };
    case 'end':
      return { color: tokens.refuse, words: `${entry.action} failed: ${entry.reason}` };
    case 'moved':
      return { color: tokens.mute, words: `${entry.from} is gone by an edit; now ${entry.to}` };
    default:
      return undefined;
  }
}
