import { SENSE_KINDS, type Sense } from '@crooked-lantern/core';

/** What is lit is what is running: `lamp` means active now, everywhere, and nothing else but the one main button. */
export interface Tokens {
  night: string;
  panel: string;
  raised: string;
  line: string;
  line2: string;
  bone: string;
  mute: string;
  /** Decoration only: too faint for text. */
  dim: string;
  lamp: string;
  /** The same for text, dark enough to read on paper. */
  lampText: string;
  /** Text on a lamp-coloured surface. */
  onLamp: string;
  ember: string;
  done: string;
  refuse: string;
  sight: string;
  sound: string;
  harm: string;
  told: string;
  found: string;
  wall: string;
  hedge: string;
  leaf: string;
  /** Tints of the drops, one a faction in the order of their names. */
  factions: [string, string, string, string];
}

export const NIGHT: Tokens = {
  night: '#10181a',
  panel: '#172225',
  raised: '#1e2c2f',
  line: '#2b3c3f',
  line2: '#3a5054',
  bone: '#ece6d6',
  mute: '#93a5a4',
  dim: '#5f7476',
  lamp: '#ffb84d',
  lampText: '#ffb84d',
  onLamp: '#231703',
  ember: '#b9713a',
  done: '#6cc5b0',
  refuse: '#b394d8',
  sight: '#86c6ff',
  sound: '#f29fb4',
  harm: '#ff7a63',
  told: '#b6d77a',
  found: '#d9d2b8',
  wall: '#2c4145',
  hedge: '#24402f',
  leaf: '#2f5138',
  factions: ['#7fd6b4', '#e58a73', '#c7b3ea', '#ece6d6'],
};

export const DAY: Tokens = {
  night: '#f6f1e4',
  panel: '#efe8d6',
  raised: '#e5dcc5',
  line: '#d2c7ac',
  line2: '#a99d80',
  bone: '#1f2a2d',
  mute: '#4c5c5d',
  dim: '#8d9488',
  lamp: '#c97a00',
  lampText: '#855000',
  onLamp: '#1f1400',
  ember: '#b07a3e',
  done: '#17624f',
  refuse: '#6b46a3',
  sight: '#155a96',
  sound: '#983152',
  harm: '#b83a22',
  told: '#46610e',
  found: '#63572f',
  wall: '#b9ad8f',
  hedge: '#9db58c',
  leaf: '#a9c197',
  factions: ['#1f8a68', '#b5452b', '#6b46a3', '#1f2a2d'],
};

export const TOKEN_NAMES = Object.keys(NIGHT).filter((name) => name !== 'factions') as Exclude<
  keyof Tokens,
  'factions'
>[];

/** The colour a sense has everywhere. */
export function senseTint(sense: Sense, tokens: Tokens): string {
  return tokens[SENSE_KINDS[sense].tint];
}

export const FONT_TEXT = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";
export const FONT_MONO = "'Atkinson Hyperlegible Mono', ui-monospace, monospace";
