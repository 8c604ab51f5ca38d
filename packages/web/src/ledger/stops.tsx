import type { Stop } from '@crooked-lantern/core';
import { useEffect, useMemo } from 'react';
import styled from 'styled-components';
import type { EngineClient } from '../engine/engine-client.ts';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useGoBack } from '../engine/use-go-back.ts';
import { useFollow } from '../shell/use-follow.ts';
import { useCommands } from '../shell/commands.tsx';
import { Pill } from '../ui/pill.tsx';
import { Explained } from '../ui/overlays/tooltip.tsx';
import { runInBackground } from '../state/failures.ts';
import { isGoingOn } from './going-on.tsx';

const Reason = styled(Pill)`
  min-width: 0;
  max-width: 52ch;
  > span {
    overflow: hidden;
    text-overflow: ellipsis;
  }
`;

/** What the run rests for, in words: “Warden 2: a state is entered, chase”, and how many more there are. */
function stopWords(stops: readonly Stop[], { program }: EngineClient): string {
  const [first, ...more] = stops;
  if (!first) return '';
  const title = program?.agents.find(({ name }) => name === first.agent)?.title ?? first.agent;
  return `${title}: ${first.words}${more.length > 0 ? `, and ${more.length} more` : ''}`;
}

/** Running on to the next breakpoint and going back to the last one, by commands that every place has; and what the run rests for. */
export function Stops() {
  const engine = useEngine();
  const words = useEngineValue((client) =>
    client.frame?.playing === false ? stopWords(client.frame.stops, client) : '',
  );
  // The run stopped for this agent, so it is watched.
  const follow = useFollow();
  const stoppedFor = useEngineValue(({ frame }) =>
    frame?.playing === false ? (frame.stops[0]?.agent ?? '') : '',
  );
  useEffect(() => {
    if (stoppedFor !== '') follow(stoppedFor);
  }, [follow, stoppedFor]);
  const goesOn = useEngineValue(({ frame }) => isGoingOn(frame));
  const { goBack, refused } = useGoBack();
  useCommands(
    useMemo(
      () => [
        {
          id: 'run-on',
          name: 'Run on to the next breakpoint, as fast as it goes',
          keys: 'KeyN',
          run: () => engine.runOn(),
        },
        {
          id: 'go-back',
          name: 'Back to where a breakpoint was met last',
          keys: 'Shift+KeyN',
          run: () => runInBackground(goBack()),
        },
      ],
      [engine, goBack],
    ),
    'ledger',
  );
  if (refused !== null) return <span role="alert">{refused}</span>;
  // While it goes on, how far it has come is shown beside this.
  if (goesOn || words === '') return null;
  return (
    <Explained text={words}>
      <Reason role="status">
        stopped <span>{words}</span>
      </Reason>
    </Explained>
  );
}
