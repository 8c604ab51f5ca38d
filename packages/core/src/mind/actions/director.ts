import type { GateState, ResultName } from '../../model/documents.ts';
import type { Host } from '../host.ts';
import {
  atOnce,
  hasArgument,
  indexArgument,
  numberArgument,
  textArgument,
  type ActionMaker,
} from './action.ts';

/** What a director does: all of it at once. */

export const bring: ActionMaker = (program) => {
  const wave = indexArgument(program, 'wave');
  return atOnce((host) => host.bring(wave));
};

export const sendAway: ActionMaker = (program) => {
  const group = indexArgument(program, 'group');
  return atOnce((host) => host.sendAway(group));
};

export const announce: ActionMaker = (program) => {
  const event = textArgument(program, 'event');
  const to = hasArgument(program, 'to') ? indexArgument(program, 'to') : -1;
  return atOnce((host) => host.announce(event, to));
};

export const addScore: ActionMaker = (program) => {
  const score = indexArgument(program, 'score');
  const points = numberArgument(program, 'points');
  return atOnce((host) => host.addScore(score, points(host)));
};

export const setMode: ActionMaker = (program) => {
  const mode = indexArgument(program, 'mode');
  const seconds = numberArgument(program, 'seconds');
  return atOnce((host) => host.setMode(mode, ticksOf(seconds(host), host)));
};

export const setLight: ActionMaker = (program) => {
  const to = numberArgument(program, 'to');
  const seconds = numberArgument(program, 'seconds');
  return atOnce((host) => host.setLight(to(host), ticksOf(seconds(host), host)));
};

export const setGate: ActionMaker = (program) => {
  const gate = numberArgument(program, 'gate');
  const to = textArgument(program, 'to') as GateState;
  return atOnce((host) => host.setGate(gate(host), to));
};

export const end: ActionMaker = (program) => {
  const how = textArgument(program, 'result') as ResultName;
  const words = textArgument(program, 'words');
  return atOnce((host) => host.end(how, words));
};

/** No time where the number is nothing. */
function ticksOf(seconds: number, { ticksPerSecond }: Host): number {
  return seconds > 0 ? Math.round(seconds * ticksPerSecond) : 0;
}
