import { reportFailure } from '../state/failures.ts';
import type { EngineFailure } from './protocol.ts';

/** What the page knows of the run that a failure came in. */
interface Circumstances {
  /** The edit that ran; undefined before the first frame. */
  edit: number | undefined;
  /** What a restart does; null where the run goes on by itself. */
  retry: (() => void) | null;
}

/** Where in the run it was: “Warden 1, tick 812”. */
function placeText({ agent, tick }: EngineFailure): string {
  const parts = [agent, tick === null ? null : `tick ${tick}`].filter((part) => part !== null);
  return parts.length > 0 ? ` (${parts.join(', ')})` : '';
}

function titleOf(failure: EngineFailure): string {
  const { during, message, stopped } = failure;
  const place = placeText(failure);
  if (stopped) return `The engine stopped: ${message}${place}`;
  if (during === 'submit' || during === 'submitPatch')
    return `The engine could not take the latest edit: ${message}${place}. The edit before it goes on.`;
  return `The engine could not answer: ${message}${place}. The run goes on.`;
}

/** Shows a failure of the engine. */
export function engineFailed(failure: EngineFailure, { edit, retry }: Circumstances): void {
  const { during, message, tick, phase, agent, stack } = failure;
  reportFailure({
    title: titleOf(failure),
    report: [
      `Engine: ${message}`,
      `during: ${during}`,
      `tick: ${tick ?? 'none'}, phase: ${phase ?? 'none'}, agent: ${agent ?? 'none'}`,
      `edit: ${edit ?? 'none'}`,
      `page: ${window.location.pathname}`,
      `browser: ${navigator.userAgent}`,
      stack,
    ].join('\n'),
    retry: retry && { label: 'Restart from the last snapshot', run: retry },
  });
}
