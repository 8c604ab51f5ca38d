import { isForeign } from '../names/names.ts';
import { pathOnto, stepsOfPath } from '../names/path-text.ts';

/** Brings files of earlier versions to the form of today. They are migrated as they were parsed, before their form is checked. */

/** A field that was renamed: where it stands, by the path of what it is in, and what it is called now. */
interface Renamed {
  in: RegExp;
  from: string;
  to: string;
}

const NAME = '[^.[\\]]+';
const STATE = String.raw`^minds\.${NAME}\.machine(\.states\[\d+\])+$`;
const KEY = `^minds\\.${NAME}\\.memory\\.${NAME}$`;
const CHOICE = `^minds\\.${NAME}\\.choices\\.${NAME}$`;
const OPTION = `^minds\\.${NAME}\\.choices\\.${NAME}\\.options\\[\\d+\\]$`;
const KIND = `^(archetypes\\.${NAME}|grounds\\.${NAME}\\.agents\\.${NAME}\\.overrides)`;
const MOVE = `${KIND}\\.moves\\.${NAME}$`;
const GUARD = `${KIND}\\.guards\\.${NAME}$`;
/** Anything a mind does: its actions and nodes of trees stand at many places. */
const DOING = `^minds\\.${NAME}\\.`;

const at = (place: string, from: string, to: string): Renamed => ({
  in: new RegExp(place),
  from,
  to,
});

/** What version 2 calls by the words of the trade. */
const TO_VERSION_2: readonly Renamed[] = [
  at('^$', 'runFindings', 'observationLimits'),
  at(STATE, 'leaves', 'transitions'),
  at(KEY, 'least', 'min'),
  at(KEY, 'greatest', 'max'),
  at(KEY, 'most', 'capacity'),
  at(KEY, 'change', 'rate'),
  at(CHOICE, 'least', 'minDuration'),
  at(CHOICE, 'floor', 'minScore'),
  at(OPTION, 'rest', 'cooldown'),
  at(DOING, 'p', 'probability'),
  at(`${KIND}$`, 'heed', 'obedience'),
  at(`${KIND}$`, 'recycle', 'respawnDelay'),
  at(`${KIND}$`, 'sleepBeyond', 'sleepDistance'),
  at(`${KIND}$`, 'laden', 'carryingSpeed'),
  at(`${KIND}$`, 'call', 'callReach'),
  at(`${KIND}\\.gaits\\.${NAME}$`, 'seen', 'visibility'),
  at(MOVE, 'harm', 'damage'),
  at(MOVE, 'push', 'knockback'),
  at(MOVE, 'untouchable', 'invulnerable'),
  at(GUARD, 'takes', 'damageShare'),
  at(GUARD, 'longest', 'maxDuration'),
  at(`^squads\\.${NAME}\\.roles\\[\\d+\\]$`, 'steady', 'commitment'),
  at(`^grounds\\.${NAME}\\.things\\.${NAME}$`, 'harm', 'damage'),
  at(`^grounds\\.${NAME}\\.waves\\.${NAME}$`, 'most', 'maxAlive'),
];

/** A value that was renamed: waves draw their place at random. */
const VALUE = {
  in: new RegExp(`^grounds\\.${NAME}\\.waves\\.${NAME}$`),
  key: 'order',
  from: 'luck',
  to: 'random',
};

/** Parameters of actions that were renamed. */
const PARAMETERS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  keepDistance: { least: 'min', most: 'max' },
  surround: { whom: 'target' },
  wake: { whom: 'target' },
  sendAway: { whom: 'group' },
};

/** What a field is called now. */
function nameNow(path: string, key: string, within: Readonly<Record<string, unknown>>): string {
  const { do: action } = within;
  if (
    typeof action === 'string' &&
    Object.hasOwn(PARAMETERS, action) &&
    Object.hasOwn(PARAMETERS[action], key)
  )
    return PARAMETERS[action][key];
  // Only the node `chance` has a probability; a parameter of a tree may be called p as well.
  if (key === 'p' && !('chance' in within)) return key;
  return TO_VERSION_2.find(({ in: place, from }) => from === key && place.test(path))?.to ?? key;
}

/** The path of a field as version 2 has it: tiers say by paths which numbers they change. */
function pathNow(path: string, document: unknown): string {
  let before = '';
  let now = '';
  let part: unknown = document;
  for (const step of stepsOfPath(path) ?? []) {
    const within = (typeof part === 'object' && part !== null ? part : {}) as Record<
      string,
      unknown
    >;
    now = pathOnto(now, typeof step === 'number' ? step : nameNow(before, step, within));
    before = pathOnto(before, step);
    part = within[step];
  }
  return now === '' ? path : now;
}

function valueNow(path: string, key: string, value: unknown): unknown {
  if (key === VALUE.key && value === VALUE.from && VALUE.in.test(path)) return VALUE.to;
  return renamed(value, pathOnto(path, key));
}

function renamed(value: unknown, path: string): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map((entry, i) => renamed(entry, pathOnto(path, i)));
  const fields = value as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(fields).map(([key, inner]) =>
      isForeign(key) ? [key, inner] : [nameNow(path, key, fields), valueNow(path, key, inner)],
    ),
  );
}

/** The tiers, whose paths name fields as they are called now. */
function withPaths(tiers: unknown, document: unknown): unknown {
  if (!Array.isArray(tiers)) return tiers;
  return tiers.map((tier: unknown) => {
    const { changes } = (tier ?? {}) as { changes?: unknown };
    if (!Array.isArray(changes)) return tier;
    return {
      ...(tier as object),
      changes: changes.map((change: unknown) => {
        const { path } = (change ?? {}) as { path?: unknown };
        return typeof path === 'string'
          ? { ...(change as object), path: pathNow(path, document) }
          : change;
      }),
    };
  });
}

/**
 * A project of version 1 in the form of version 2. Anything may stand in it: its form is checked afterwards, with the
 * names of today. Fields that begin with `x-` are left alone.
 */
function fromVersion1(document: Readonly<Record<string, unknown>>): Record<string, unknown> {
  return {
    ...(renamed(document, '') as Record<string, unknown>),
    version: 2,
    ...('tiers' in document && { tiers: withPaths(document.tiers, document) }),
  };
}

/** A parsed project in the form of today's version; any other value as it is. */
export function migrated(value: object): object {
  if (!('version' in value)) return value;
  const document = value as Record<string, unknown>;
  if (value.version === 1) return fromVersion1(document);
  if (!('runFindings' in value)) return value;
  // The first files of version 2 still had this name.
  const { runFindings: observationLimits, ...rest } = document;
  return { observationLimits, ...rest };
}

/** Where in a mind what is copied stands, for the rules of renaming. */
const CLIP_PLACES: Readonly<Record<string, string>> = {
  states: 'minds.clip.machine.states',
  mind: 'minds.clip',
  needs: 'minds.clip',
};

/** A part of a mind that was copied by version 1, as version 2 has it. */
export function clipFromVersion1(clip: Readonly<Record<string, unknown>>): Record<string, unknown> {
  return {
    ...Object.fromEntries(
      Object.entries(clip).map(([field, value]) => [
        field,
        renamed(value, CLIP_PLACES[field] ?? 'minds.clip.trees'),
      ]),
    ),
    version: 2,
  };
}
