import { atOnce, indexArgument, textArgument, valueArgument, type ActionMaker } from './action.ts';

/** The actions that take no time: all their work is in the start. */

export const stop: ActionMaker = () => atOnce((host) => host.stopLegs());

export const setGait: ActionMaker = (program) => {
  const gait = indexArgument(program, 'gait');
  return atOnce((host) => host.setGait(gait));
};

export const say: ActionMaker = (program) => {
  const text = textArgument(program, 'text');
  return atOnce((host) => host.say(text));
};

export const raise: ActionMaker = (program) => {
  const event = textArgument(program, 'event');
  return atOnce((host) => host.raise(event));
};

export const remember: ActionMaker = (program) => {
  const key = indexArgument(program, 'key');
  const value = valueArgument(program, 'value');
  return atOnce((host) => host.remember(key, value.x(host), value.y(host)));
};

export const add: ActionMaker = (program) => {
  const key = indexArgument(program, 'key');
  const value = valueArgument(program, 'value');
  return atOnce((host) => host.add(key, value.x(host), value.y(host)));
};

export const forget: ActionMaker = (program) => {
  const key = indexArgument(program, 'key');
  return atOnce((host) => host.forget(key));
};
