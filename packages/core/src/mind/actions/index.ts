import type { ActionName } from '../../model/actions/actions.ts';
import type { ActionProgram } from '../program.ts';
import type { ActionMaker, RunnableAction } from './action.ts';
import {
  addScore,
  announce,
  bring,
  end,
  sendAway,
  setGate,
  setLight,
  setMode,
} from './director.ts';
import { face } from './face.ts';
import { aim, dodge, guard, strike } from './fight.ts';
import { followRoute } from './follow-route.ts';
import { add, forget, raise, remember, say, setGait, stop } from './instant.ts';
import { search, surround } from './group.ts';
import { drop, learnWaypoint, makeNoise, pickUp, tellSquad, throwIt, use, wake } from './hands.ts';
import { moveTo } from './move-to.ts';
import { circle, flee, keepDistance, returnToPost, wander } from './steering.ts';
import { turn } from './turn.ts';
import { wait } from './wait.ts';

const MAKERS: Record<ActionName, ActionMaker> = {
  moveTo,
  followRoute,
  face,
  turn,
  wait,
  stop,
  setGait,
  say,
  remember,
  add,
  forget,
  raise,
  wander,
  flee,
  circle,
  keepDistance,
  returnToPost,
  search,
  surround,
  pickUp,
  drop,
  throw: throwIt,
  use,
  wake,
  tellSquad,
  makeNoise,
  learnWaypoint,
  strike,
  guard,
  dodge,
  aim,
  bring,
  sendAway,
  announce,
  addScore,
  setMode,
  setLight,
  setGate,
  end,
};

/** Binds a checked action to its arguments, and to the cells it may use from `at`. */
export function makeAction(program: ActionProgram, at: number): RunnableAction {
  return MAKERS[program.action](program, at);
}
