import type { MindDocument, StateDocument } from '../../model/documents.ts';
import { FIGHTING_PATTERNS } from './fighting-patterns.ts';
import {
  lookAbout,
  machineOf,
  metres,
  quarry,
  rememberWhom,
  seconds,
  spot,
  stand,
  sweepParameter,
  watch,
  type Pattern,
} from './pattern-parts.ts';

/**
 * Ways of behaving that come up again and again, as minds to begin from: each asks for a few numbers and
 * becomes ordinary trees, keys and states. Why each is built as it is stands in `docs/patterns.md`.
 */

/** Remembers its target, and runs after it until it is out of sight. */
function chase(lost: number, then: string): StateDocument {
  return {
    id: 'chase',
    title: 'Chase',
    entry: [rememberWhom],
    activity: { do: 'moveTo', to: 'quarry', within: 1 },
    transitions: [
      {
        to: then,
        when: '!sees(quarry)',
        for: lost,
        do: [{ do: 'remember', key: 'spot', value: 'lastSeen(quarry)' }],
        note: 'lost',
      },
    ],
  };
}

const search = (radius: number, back: string): StateDocument => ({
  id: 'comb',
  title: 'Comb',
  activity: { do: 'search', around: 'spot', radius },
  transitions: [
    { to: 'chase', when: 'attention.strength > 0.8', note: 'seen again' },
    { to: back, on: 'done', note: 'nothing found' },
  ],
});

export const PATTERNS: readonly Pattern[] = [
  {
    id: 'patrol',
    title: 'Patrol and chase',
    needs: ['sight', 'route'],
    about: 'Walks its route, chases its target, searches where it lost the target, and goes back.',
    parameters: [seconds('lost', 'Gives up after', 1.5), metres('radius', 'Searches within', 5)],
    make: ({ lost, radius }) => ({
      title: 'Patrol',
      memory: { ...quarry, ...spot },
      machine: machineOf(
        {
          id: 'rounds',
          title: 'Rounds',
          activity: { do: 'followRoute', route: 'self.route' },
          transitions: [{ to: 'chase', when: 'attention.strength > 0.8', note: 'certain' }],
        },
        chase(lost, 'comb'),
        search(radius, 'rounds'),
      ),
    }),
  },
  {
    id: 'post',
    title: 'Guard a post',
    needs: ['sight'],
    about:
      'Stands at its post, attacks a target that comes near, and turns back before it is drawn away.',
    parameters: [
      metres('near', 'Attacks within', 6),
      metres('leash', 'Never farther from the post than', 9),
    ],
    make: ({ near, leash }) => ({
      title: 'Post guard',
      memory: { ...quarry },
      machine: machineOf(
        stand({
          to: 'warn',
          when: `attention.strength > 0.8 && distance(attention.of) < ${near}`,
          note: 'comes near',
        }),
        {
          id: 'warn',
          title: 'See them off',
          entry: [rememberWhom, { do: 'say', text: 'Away from here.' }],
          activity: { do: 'moveTo', to: 'quarry', within: 1 },
          transitions: [
            { to: 'stand', when: `distance(self.post) > ${leash}`, note: 'far enough' },
            { to: 'stand', when: '!sees(quarry)', for: 1, note: 'gone' },
          ],
        },
      ),
    }),
  },
  {
    id: 'curious',
    title: 'Curious and search',
    needs: ['sight'],
    about:
      'Half noticed things are looked at from where it is, then gone to and searched, then forgotten.',
    parameters: [seconds('look', 'Looks for', 2), metres('radius', 'Searches within', 3)],
    make: ({ look, radius }) => ({
      title: 'Curious',
      memory: { ...spot },
      machine: machineOf(
        {
          id: 'idle',
          title: 'Idle',
          activity: { do: 'wander', around: 'self.post' },
          transitions: [
            { to: 'peer', when: 'attention.strength > 0.2', for: 0.2, note: 'half noticed' },
          ],
        },
        {
          id: 'peer',
          title: 'Peer',
          entry: [{ do: 'remember', key: 'spot', value: 'attention.place' }],
          activity: { do: 'face', toward: 'spot' },
          transitions: [{ to: 'look', after: look, note: 'wants to know' }],
        },
        {
          id: 'look',
          title: 'Look into it',
          activity: { do: 'search', around: 'spot', radius },
          transitions: [
            { to: 'idle', on: 'done', do: [{ do: 'forget', key: 'spot' }], note: 'nothing' },
          ],
        },
      ),
    }),
  },
  {
    id: 'flee',
    title: 'Flee and come back',
    needs: ['sight'],
    about:
      'Flees a target that comes too near, waits out of reach, and comes back when it is calm.',
    parameters: [
      metres('near', 'Flees from within', 4),
      metres('until', 'Runs until', 10),
      seconds('calm', 'Waits', 4),
    ],
    make: ({ near, until, calm }) => ({
      title: 'Shy',
      memory: { ...quarry },
      machine: machineOf(
        {
          id: 'graze',
          title: 'Graze',
          activity: { do: 'wander', around: 'self.post' },
          transitions: [
            {
              to: 'flee',
              when: `attention.strength > 0.5 && distance(attention.of) < ${near}`,
              note: 'too near',
            },
          ],
        },
        {
          id: 'flee',
          title: 'Flee',
          entry: [rememberWhom],
          activity: { do: 'flee', from: 'quarry', until },
          transitions: [{ to: 'wait', on: 'done', note: 'out of reach' }],
        },
        {
          id: 'wait',
          title: 'Wait',
          activity: { do: 'wait', seconds: calm },
          transitions: [{ to: 'graze', on: 'done', note: 'calm again' }],
        },
      ),
    }),
  },
  {
    id: 'follow',
    title: 'Follow at a distance',
    needs: ['sight'],
    about: 'Follows a noticed target at a distance, and gives up when the target is out of sight.',
    parameters: [
      metres('min', 'Not nearer than', 3),
      metres('max', 'Not farther than', 6),
      seconds('lost', 'Gives up after', 3),
    ],
    make: ({ min, max, lost }) => ({
      title: 'Follower',
      memory: { ...quarry },
      machine: machineOf(
        stand({ to: 'follow', when: 'attention.strength > 0.5', note: 'sure of a target' }),
        {
          id: 'follow',
          title: 'Follow',
          entry: [rememberWhom],
          activity: {
            do: 'keepDistance',
            from: 'quarry',
            min,
            max: Math.max(max, min + 0.5),
          },
          transitions: [{ to: 'stand', when: '!sees(quarry)', for: lost, note: 'out of sight' }],
        },
      ),
    }),
  },
  {
    id: 'turn',
    title: 'Turn and watch',
    needs: ['sight'],
    about: 'Stands and looks from side to side; stops at what it notices until that is gone.',
    parameters: [sweepParameter, seconds('rest', 'Rests for', 1)],
    make: ({ sweep, rest }) => ({
      title: 'Watcher',
      trees: { lookAbout: lookAbout(sweep, rest) },
      machine: machineOf(
        watch({ to: 'stare', when: 'attention.strength > 0.3', note: 'something' }),
        {
          id: 'stare',
          title: 'Stare',
          activity: { do: 'face', toward: 'attention.place' },
          transitions: [{ to: 'watch', when: 'attention.strength < 0.1', for: 1, note: 'gone' }],
        },
      ),
    }),
  },
  {
    id: 'call',
    title: 'Call for help',
    needs: ['sight', 'squad'],
    about: 'Tells its squad where it saw a target, and goes where another member has called.',
    parameters: [metres('near', 'Comes to within', 2), seconds('again', 'Calls again after', 3)],
    make: ({ near, again }) => ({
      title: 'Caller',
      memory: { ...spot },
      machine: machineOf(
        stand(
          { to: 'call', on: 'sight.certain', note: 'saw a target' },
          { to: 'come', on: 'told.help', note: 'is called' },
        ),
        {
          id: 'call',
          title: 'Call',
          entry: [
            { do: 'say', text: 'Over here!' },
            { do: 'tellSquad', what: 'help', place: 'attention.place' },
          ],
          activity: { do: 'face', toward: 'attention.place' },
          transitions: [
            { to: 'stand', when: 'attention.strength < 0.2', for: 1, note: 'gone' },
            { to: 'call', after: again, note: 'still there' },
          ],
        },
        {
          id: 'come',
          title: 'Come to help',
          entry: [{ do: 'remember', key: 'spot', value: 'attention.place' }],
          activity: { do: 'moveTo', to: 'spot', within: near },
          transitions: [{ to: 'stand', on: 'done', note: 'is there' }],
        },
      ),
    }),
  },
  {
    id: 'sleep',
    title: 'Sleep and wake',
    needs: ['hearing'],
    about: 'Lies still until something near is loud enough, looks about, and lies down again.',
    parameters: [
      { name: 'loud', label: 'Wakes from', unit: '', minimum: 0, maximum: 1, value: 0.4 },
      seconds('awake', 'Stays awake for', 6),
    ],
    make: ({ loud, awake }) => ({
      title: 'Sleeper',
      machine: machineOf(
        {
          id: 'doze',
          title: 'Doze',
          entry: [{ do: 'stop' }],
          attention: ['harm', 'hearing', 'told'],
          transitions: [
            { to: 'wake', when: `attention.strength > ${loud}`, note: 'a noise' },
            { to: 'wake', on: 'harm', note: 'hurt' },
          ],
        },
        {
          id: 'wake',
          title: 'Wake',
          entry: [{ do: 'say', text: 'Hm?' }],
          activity: { do: 'face', toward: 'attention.place' },
          transitions: [{ to: 'doze', after: awake, note: 'nothing more' }],
        },
      ),
    }),
  },
  ...FIGHTING_PATTERNS,
];

/** What a mind would add, in words, before it is there. */
export function contentsOf({ machine, trees, memory }: MindDocument): string[] {
  const titles = (states: readonly StateDocument[]): string[] =>
    states.flatMap(({ id, title = id, states: inner }) => [title, ...titles(inner ?? [])]);
  const named = Object.entries(trees ?? {}).map(([name, { title = name }]) => title);
  const parts = [
    ['states', titles(machine?.states ?? [])],
    ['trees', named],
    ['keys', Object.keys(memory ?? {})],
  ] as const;
  return parts.flatMap(([what, names]) => (names.length > 0 ? `${what}: ${names.join(', ')}` : []));
}
