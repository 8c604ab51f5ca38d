import { because, type Reason } from '../../terms/reasons.ts';
import type { Host } from '../host.ts';
import { RUNNING, SUCCESS } from '../status.ts';
import {
  A,
  atOnce,
  fail,
  hasArgument,
  indexArgument,
  numberArgument,
  placeArgument,
  type ActionMaker,
  type RunnableAction,
} from './action.ts';

/** What hands and voice do to the world. It happens when all have decided, so what takes part in it is looked at after. */

/** An action that asks in one decision and looks in the next whether it was done. */
function asked(
  ask: (host: Host) => Reason | null,
  isDone: (host: Host) => boolean,
): RunnableAction {
  return {
    start(host) {
      const trouble = ask(host);
      return trouble === null ? RUNNING : fail(host, trouble);
    },
    step(host) {
      if (isDone(host)) return SUCCESS;
      return fail(host, host.refused ?? because('notDone'));
    },
  };
}

export const pickUp: ActionMaker = (program) => {
  const thing = numberArgument(program, 'thing');
  return asked(
    (host) => host.pickUp(thing(host)),
    (host) => host.self.carried === thing(host),
  );
};

/** Keeps in A whether the gate was open. */
export const use: ActionMaker = (program, at) => {
  const gate = numberArgument(program, 'gate');
  return asked(
    (host) => {
      host.memory[at + A] = Number(host.around.isOpen(gate(host)));
      return host.use(gate(host));
    },
    (host) => Number(host.around.isOpen(gate(host))) !== host.memory[at + A],
  );
};

export const wake: ActionMaker = (program) => {
  const target = numberArgument(program, 'target');
  return asked(
    (host) => host.wake(target(host)),
    (host) => !host.isAsleep(target(host)),
  );
};

export const drop: ActionMaker = () => atOnce((host) => host.drop());

export const throwIt: ActionMaker = (program) => {
  const place = placeArgument(program, 'at');
  return atOnce((host) =>
    place(host) ? host.throwAt(host.place[0], host.place[1]) : because('placeUnknown'),
  );
};

export const tellSquad: ActionMaker = (program) => {
  const what = indexArgument(program, 'what');
  const place = placeArgument(program, 'place');
  const of = hasArgument(program, 'of') ? numberArgument(program, 'of') : () => -1;
  return atOnce((host) =>
    place(host) ? host.tell(what, host.place[0], host.place[1], of(host)) : because('placeUnknown'),
  );
};

export const makeNoise: ActionMaker = (program) => {
  const kind = indexArgument(program, 'kind');
  const reach = numberArgument(program, 'reach');
  return atOnce((host) => {
    host.makeNoise(kind, reach(host));
    return null;
  });
};

export const learnWaypoint: ActionMaker = (program) => {
  const route = numberArgument(program, 'route');
  const place = placeArgument(program, 'at');
  return atOnce((host) => {
    const index = route(host);
    if (!(index >= 0)) return because('noRoute');
    if (!place(host)) return because('placeUnknown');
    host.learn(index, host.place[0], host.place[1]);
    return null;
  });
};
