/** The words of this product, and the trade's words that lead to them. */

export interface Term {
  term: string;
  /** One or two sentences. */
  meaning: string;
  /** What else practitioners call it. Each leads here from the reference, the command list and the docs. */
  aliases: readonly string[];
  /** Words we do not use for it; a test looks for them. */
  avoid?: readonly string[];
  /** Built-ins that ask for it: typing an alias in an expression offers them. */
  builtins?: readonly string[];
}

export const GLOSSARY: readonly Term[] = [
  {
    term: 'absent',
    meaning:
      'Not on the ground: an absent agent has no position, senses nothing and is never sensed.',
    aliases: ['despawned', 'inactive', 'pooled'],
  },
  {
    term: 'activity',
    meaning: 'What a state does while it is active: one action, a tree, rules or a choice.',
    aliases: ['on update', 'while in state', 'behaviour'],
  },
  {
    term: 'aim error',
    meaning: 'How far a shot may go wide, drawn once for each use of a move.',
    aliases: ['accuracy', 'inaccuracy', 'spread'],
  },
  {
    term: 'archetype',
    meaning:
      'The kind of an agent: body, senses, moves and mind. A placed agent may override fields of it.',
    aliases: ['prefab', 'blueprint', 'character class', 'enemy type'],
    avoid: ['has otherwise', 'otherwise than'],
  },
  {
    term: 'attention',
    meaning: 'The one percept a mind is turned to.',
    aliases: ['focus', 'current target', 'target selection'],
    builtins: ['attention.of', 'attention.place', 'attention.strength'],
  },
  {
    term: 'awareness',
    meaning:
      'How sure sight is of a target, 0 to 1. It builds while the target is seen and fades after.',
    aliases: ['detection meter', 'suspicion', 'alertness', 'alert level'],
    builtins: ['awareness'],
  },
  {
    term: 'branch',
    meaning: 'One of the ways a run has taken. It parts from another at a tick.',
    aliases: ['timeline', 'alternative run'],
  },
  {
    term: 'breakpoint',
    meaning:
      'Stops a run at the end of the tick in which something happens. A condition makes it a conditional one.',
    aliases: ['conditional breakpoint', 'watchpoint', 'stop'],
  },
  {
    term: 'cadence',
    meaning: 'When a mind decides: every tick, at an interval, or on an event.',
    aliases: ['think rate', 'tick rate of AI', 'update interval', 'time slicing'],
  },
  {
    term: 'channel',
    meaning: 'A part of the body that one action at a time may use: legs, eyes, voice, arms.',
    aliases: ['layer', 'resource', 'mutex'],
  },
  {
    term: 'choice',
    meaning: 'Scores options by considerations and runs the option with the highest score.',
    aliases: ['utility', 'utility AI', 'utility score', 'scorer', 'utility selector'],
  },
  {
    term: 'commitment',
    meaning:
      'Added to the score of the running option, or of who holds a role, so that small changes do not switch it.',
    aliases: ['inertia', 'hysteresis', 'momentum', 'stickiness'],
  },
  {
    term: 'cone',
    meaning: 'A sector in which an agent sees, with a range, a half angle and a gain.',
    aliases: ['field of view', 'FOV', 'view cone', 'vision cone', 'sight radius'],
  },
  {
    term: 'consideration',
    meaning: 'One input of an option, run through a response curve to a value from 0 to 1.',
    aliases: ['axis', 'utility input', 'scorer input'],
  },
  {
    term: 'cooldown',
    meaning:
      'The time until something can be done again: of a move, an option of a choice, or a node of a tree.',
    aliases: ['recharge', 'refractory period', 'lockout', 'rest'],
    builtins: ['ready', 'cooldownLeft'],
  },
  {
    term: 'curve',
    meaning: 'Turns an input of a consideration into a value from 0 to 1.',
    aliases: ['response curve', 'utility curve', 'easing', 'falloff'],
  },
  {
    term: 'damage',
    meaning: 'Points of health that a hit takes.',
    aliases: ['harm', 'hit points lost', 'DPS'],
    builtins: ['self.health', 'self.healthShare', 'healthOf', 'sinceHit'],
  },
  {
    term: 'decorator',
    meaning:
      'A node with one child that changes when it runs or what it returns: invert, repeat, cooldown, timeout, limit, chance, delay, succeed, fail.',
    aliases: ['modifier', 'wrapper node'],
  },
  {
    term: 'director',
    meaning:
      'The mind of a ground. It has no body; it brings waves, sets modes, keeps scores and ends the run.',
    aliases: ['game master', 'AI director', 'spawn manager', 'referee', 'game mode'],
  },
  {
    term: 'edge',
    meaning:
      'A rule with an edge fires when its test turns true, and not again until the test has been false.',
    aliases: ['edge trigger', 'rising edge', 'one shot', 'level trigger'],
  },
  {
    term: 'edit',
    meaning: 'A numbered version of a project.',
    aliases: ['revision', 'version', 'hot reload', 'live coding'],
  },
  {
    term: 'event',
    meaning:
      'A word that is raised and that transitions take. Events raised in a tick are delivered in the next.',
    aliases: ['signal', 'message', 'trigger', 'notify'],
  },
  {
    term: 'faction',
    meaning: 'A side. Its stance to each other side is hostile, neutral or friendly.',
    aliases: ['team', 'side', 'alliance', 'stance'],
    builtins: ['hostile'],
  },
  {
    term: 'finding',
    meaning: 'Something wrong or worth a look in the file, with its place and what to do.',
    aliases: ['warning', 'lint', 'validation', 'error', 'static check'],
  },
  {
    term: 'observation',
    meaning:
      'Something noticed while a run goes on, such as flicker or a stuck agent, with its moments.',
    aliases: ['runtime warning', 'profiler warning', 'flicker', 'oscillation'],
  },
  {
    term: 'gate',
    meaning: 'A wall that opens and closes while the run goes on.',
    aliases: ['door', 'dynamic obstacle'],
    builtins: ['isOpen'],
  },
  {
    term: 'guard',
    meaning:
      'An expression that must hold for a transition, a node, a rule or an option. Also the stance that blocks hits, where a move is meant.',
    aliases: ['condition', 'precondition', 'predicate', 'observer abort', 'abort'],
  },
  {
    term: 'invulnerable',
    meaning: 'The part of a dodge in which nothing hits.',
    aliases: ['i-frames', 'invincibility frames', 'untouchable', 'iframe'],
  },
  {
    term: 'knockback',
    meaning: 'How far a hit pushes its target.',
    aliases: ['push', 'impulse', 'launch'],
  },
  {
    term: 'last place',
    meaning:
      'Where a target was last seen, heard or told to be. `distance(agent)` and `moveTo` an agent mean this place.',
    aliases: ['last known position', 'LKP', 'ghost position'],
    builtins: ['lastSeen', 'distance', 'known'],
  },
  {
    term: 'ledger',
    meaning: 'What is recorded of a run, shown as a lane for each agent.',
    aliases: ['timeline', 'replay', 'log', 'trace', 'telemetry', 'recording'],
  },
  {
    term: 'line of sight',
    meaning: 'The straight line from an eye to a point that no wall cuts.',
    aliases: ['LOS', 'raycast', 'visibility check', 'linecast'],
    builtins: ['sees'],
  },
  {
    term: 'memory',
    meaning: 'Typed keys that a mind reads and writes: its own, its squad’s or the world’s.',
    aliases: ['blackboard', 'variables', 'working memory', 'knowledge base'],
    builtins: ['known', 'age'],
  },
  {
    term: 'mind',
    meaning: 'How an agent decides: a state machine, a tree, rules or a choice, with its memory.',
    aliases: ['AI controller', 'brain', 'behaviour graph', 'decision logic'],
    avoid: ['minds beside'],
  },
  {
    term: 'minimum duration',
    meaning: 'How long a picked option runs before another may take over.',
    aliases: ['minimum time', 'min duration', 'dwell time', 'lock time'],
  },
  {
    term: 'mode',
    meaning: 'A word that holds for every agent for a time, by the schedule or by the director.',
    aliases: ['game phase', 'time of day', 'global state', 'schedule'],
    builtins: ['mode', 'timeLeft'],
  },
  {
    term: 'move',
    meaning:
      'An attack or a dodge: wind-up, active and recovery, then a cooldown. Reach, arc and heights say what it hits.',
    aliases: ['attack', 'ability', 'skill', 'hitbox', 'hurtbox', 'attack volume'],
    builtins: ['canReach', 'ready', 'moveOf', 'phaseOf', 'impactIn'],
  },
  {
    term: 'need',
    meaning: 'A number in memory that changes by itself.',
    aliases: ['drive', 'motive', 'stat decay', 'hunger'],
  },
  {
    term: 'nothing',
    meaning: 'The value of what is missing. Comparisons with nothing are false.',
    aliases: ['null', 'none', 'undefined', 'NaN', 'invalid'],
    builtins: ['known'],
  },
  {
    term: 'option',
    meaning: 'One thing a choice can pick, with its guard, considerations and what it does.',
    aliases: ['action candidate', 'utility action'],
  },
  {
    term: 'orientation',
    meaning:
      'The heading of a body, and the angle from it to a point: `bearing` is 0 straight ahead, and positive clockwise.',
    aliases: ['dot product', 'facing', 'forward vector', 'angle to target', 'is in front', 'yaw'],
    builtins: ['bearing', 'self.heading'],
  },
  {
    term: 'parallel',
    meaning: 'Runs all children at once: regions of a state machine, or a node of a tree.',
    aliases: ['concurrent states', 'orthogonal regions', 'simultaneous'],
  },
  {
    term: 'percept',
    meaning: 'What a sense reports: of which agent, where, how strong.',
    aliases: ['stimulus', 'perception event', 'sense event', 'stimuli'],
    builtins: ['heard.place', 'found.place', 'told.place', 'harmed.of'],
  },
  {
    term: 'probability',
    meaning: 'How likely something is. Every random draw comes from the agent’s own random stream.',
    aliases: ['chance', 'random', 'dice roll', 'random weight'],
  },
  {
    term: 'program',
    meaning: 'A project compiled for running.',
    aliases: ['compiled asset', 'build', 'bytecode'],
  },
  {
    term: 'random stream',
    meaning:
      'Each agent draws from a stream of its own, made from the seed, so that one agent more changes nothing for others.',
    aliases: ['seed', 'RNG', 'PRNG', 'luck', 'deterministic random'],
  },
  {
    term: 'reaction',
    meaning: 'How late a mind learns what its senses bring.',
    aliases: ['reaction time', 'reaction delay', 'human delay'],
  },
  {
    term: 'respawn',
    meaning: 'To start again after death, at a spawn place.',
    aliases: ['revive', 'recycle', 'restart at spawn'],
    avoid: ['begins anew', 'begin anew', 'anew'],
  },
  {
    term: 'role',
    meaning: 'A part in a squad, given to the member with the best score and limited by slots.',
    aliases: ['squad role', 'job', 'token', 'attack token'],
    builtins: ['self.role'],
  },
  {
    term: 'route',
    meaning: 'Waypoints on the ground, walked as a loop, once, or there and back.',
    aliases: ['patrol path', 'waypoints', 'waypoint path', 'spline'],
    builtins: ['self.route'],
  },
  {
    term: 'rule of conduct',
    meaning: 'A guard that an agent obeys only as often as its archetype’s obedience says.',
    aliases: ['imperfection', 'mistake rate', 'obedience'],
  },
  {
    term: 'run',
    meaning: 'A world with its past: any tick of it can be brought back.',
    aliases: ['simulation', 'session', 'play in editor', 'playtest'],
  },
  {
    term: 'scripted player',
    meaning: 'Recorded input that is played again.',
    aliases: ['input replay', 'bot', 'demo playback', 'macro'],
  },
  {
    term: 'selector',
    meaning: 'Runs its children in order until one succeeds.',
    aliases: ['fallback', 'priority node', 'or node'],
  },
  {
    term: 'sequence',
    meaning: 'Runs its children in order until one fails.',
    aliases: ['and node', 'chain'],
  },
  {
    term: 'simple form',
    meaning: 'A few numbers that write a choice, which stays an ordinary one.',
    aliases: ['preset', 'wizard', 'template'],
  },
  {
    term: 'sleep distance',
    meaning: 'Beyond this distance from every player an agent senses, decides and moves nothing.',
    aliases: ['LOD', 'level of detail', 'culling distance', 'activation range', 'significance'],
    avoid: ['rests beyond'],
  },
  {
    term: 'slot',
    meaning: 'A place around a target, or a share in a role, that one agent books.',
    aliases: ['attack slot', 'formation slot', 'reservation', 'smart object claim', 'booking'],
    builtins: ['isFree'],
  },
  {
    term: 'snapshot',
    meaning: 'All that a world is, as plain data.',
    aliases: ['save state', 'checkpoint', 'save game'],
  },
  {
    term: 'spawn place',
    meaning: 'Where agents come in, with a heading.',
    aliases: ['spawn point', 'spawner', 'player start'],
  },
  {
    term: 'squad',
    meaning: 'Agents that share memory and words within a reach.',
    aliases: ['group', 'team', 'pack'],
  },
  {
    term: 'stagger',
    meaning: 'The time after a hit in which a target can use neither legs nor arms.',
    aliases: ['stun', 'hit stun', 'flinch', 'poise break', 'hit reaction'],
  },
  {
    term: 'state',
    meaning:
      'A situation of a state machine, with actions on entry and exit, an activity and transitions.',
    aliases: [
      'FSM state',
      'on enter',
      'on exit',
      'entry',
      'exit',
      'superstate',
      'substate',
      'hierarchical state',
    ],
  },
  {
    term: 'steering',
    meaning: 'How bodies keep apart and go around each other on their paths.',
    aliases: ['avoidance', 'separation', 'arrive', 'flocking', 'RVO', 'local avoidance'],
  },
  {
    term: 'subtree',
    meaning: 'A tree that another tree calls, with parameters.',
    aliases: ['behaviour reference', 'nested tree', 'reusable behaviour', 'function'],
  },
  {
    term: 'tick, step',
    meaning: 'The step of time. A run counts its ticks from 1.',
    aliases: ['frame', 'update', 'fixed timestep', 'delta time', 'time scale'],
    builtins: ['time'],
  },
  {
    term: 'tier',
    meaning: 'A level of difficulty: a list of numbers that differ.',
    aliases: ['difficulty', 'difficulty level', 'easy', 'hard', 'scaling'],
    builtins: ['tier'],
  },
  {
    term: 'transition',
    meaning: 'A way from one state to another, with a guard, an event, a time and actions.',
    aliases: ['edge of a state machine', 'state change', 'any state', 'way out'],
  },
  {
    term: 'acceleration',
    meaning: 'How fast a velocity changes.',
    aliases: ['speed up', 'inertia of motion'],
    avoid: ['gathers speed'],
  },
  {
    term: 'turn rate',
    meaning: 'How fast a body turns, in degrees a second.',
    aliases: ['angular speed', 'rotation speed'],
  },
  {
    term: 'veto',
    meaning: 'A consideration with a veto makes the whole score 0 when its own value is 0.',
    aliases: ['hard constraint', 'gate consideration', 'disqualify'],
  },
  {
    term: 'walkable area',
    meaning: 'Where a body of one size can stand, and how its parts hang together.',
    aliases: ['nav grid', 'navmesh', 'navigation', 'pathfinding', 'path', 'A*'],
  },
  {
    term: 'watch, follow',
    meaning:
      'The followed agent’s values are read with each frame and shown beside the ground and in the editors.',
    aliases: ['debug view', 'inspect', 'watch window', 'live values'],
  },
  {
    term: 'wave',
    meaning: 'Agents of one archetype that come while a run goes on.',
    aliases: ['spawn wave', 'encounter', 'horde', 'spawner'],
    builtins: ['alive', 'toCome'],
  },
  {
    term: 'weight',
    meaning:
      'Multiplies the score of an option, or says how often a child of a random node is drawn.',
    aliases: ['priority', 'multiplier', 'bias'],
  },
  {
    term: 'wind-up',
    meaning: 'The part of a move before it can hit. Active and recovery follow.',
    aliases: [
      'startup frames',
      'startup',
      'telegraph',
      'anticipation',
      'active frames',
      'recovery frames',
    ],
    builtins: ['phaseOf', 'impactIn'],
  },
];

/** The terms that a word of the trade leads to: those called so, or also called so. */
export function termsFor(words: string): readonly Term[] {
  const wanted = words.trim().toLowerCase();
  if (wanted === '') return [];
  return GLOSSARY.filter(({ term, aliases }) =>
    [term, ...aliases].some((name) => name.toLowerCase().includes(wanted)),
  );
}
