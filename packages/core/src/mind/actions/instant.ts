import { indexArgument, SUCCESS, textArgument, valueArgument, type ActionMaker } from './action.ts';

/** The actions that take no time: all their work is in the start. */

export const stop: ActionMaker = () => ({
  start(host) {
    host.stopLegs();
    return SUCCESS;
  },
});

export const setGait: ActionMaker = (program) => {
  const gait = indexArgument(program, 'gait');
  return {
    start(host) {
      host.setGait(gait);
      return SUCCESS;
    },
  };
};

export const say: ActionMaker = (program) => {
  const text = textArgument(program, 'text');
  return {
    start(host) {
      host.say(text);
      return SUCCESS;
    },
  };
};

export const raise: ActionMaker = (program) => {
  const event = textArgument(program, 'event');
  return {
    start(host) {
      host.raise(event);
      return SUCCESS;
    },
  };
};

export const remember: ActionMaker = (program) => {
  const key = indexArgument(program, 'key');
  const value = valueArgument(program, 'value');
  return {
    start(host) {
      host.remember(key, value.x(host), value.y(host));
      return SUCCESS;
    },
  };
};

export const forget: ActionMaker = (program) => {
  const key = indexArgument(program, 'key');
  return {
    start(host) {
      host.forget(key);
      return SUCCESS;
    },
  };
};
