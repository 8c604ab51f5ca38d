import { SEED, playerOf, namesOf, freshName } from '@crooked-lantern/core';
import { ChevronLeft, ChevronRight, Pause, Play, RotateCcw } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Toolbar } from 'react-aria-components';
import styled from 'styled-components';
import { useCommands } from '../shell/commands.tsx';
import { useAppDispatch, useDocumentNow, useProject } from '../state/store.ts';
import { useFollow } from '../shell/use-follow.ts';
import { ReachedSpeed } from './reached-speed.tsx';
import { subjectOfSetup } from './setup-subject.ts';
import { recordingOf } from '../engine/recording.ts';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { perform } from '../state/perform.ts';
import { Button, MainButton, QuietButton } from '../ui/button.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { useAskText } from '../ui/fields/ask-text.tsx';
import { Menu } from '../ui/overlays/menu.tsx';
import { NARROW } from '../ui/place.ts';
import { Pill } from '../ui/pill.tsx';
import { Explained } from '../ui/overlays/tooltip.tsx';
import { clockText, tickOfText } from '../ui/words/time.ts';
import { GoingOn, isGoingOn } from './going-on.tsx';
import { RunEnd } from './run-end.tsx';
import { Stops } from './stops.tsx';
import { writeText } from '../ui/timing/write-live.ts';
import { runInBackground } from '../state/failures.ts';

const Bar = styled(Toolbar)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 6px 14px;
  border-bottom: 1px solid var(--line);
  color: var(--mute);
  @media ${NARROW} {
    position: sticky;
    bottom: 0;
    z-index: 3;
    border-top: 1px solid var(--line);
    background: var(--panel);
  }
`;

const Clock = styled.button`
  padding: 0;
  border: 0;
  background: none;
  text-align: left;
  cursor: text;
  width: 22ch;
  height: 1.4em;
  overflow: hidden;
  white-space: nowrap;
  /* It changes with each frame, and the page around it is not to be laid out each time. */
  contain: strict;
  color: var(--bone);
  font-family: var(--mono);
  span {
    color: var(--mute);
  }
`;

/** Ticks of a long step. */
const FAR = 10;
const SPEEDS = [0.1, 0.25, 0.5, 1, 2, 4, 8];

/** The project's scripted players, ready to be replayed, and its set-ups. */
function usePlayersAndSetups() {
  const players = useProject((project) => project.document.players);
  const setups = useProject((project) => project.document.setups);
  const ticksPerSecond = useProject((project) => project.document.ticksPerSecond);
  const seed = useProject((project) => project.document.start.seed);
  return useMemo(
    () => ({
      players: namesOf(players ?? {}).map((name) => ({
        name,
        title: players![name].title,
        ...recordingOf(players![name], { seed, ticksPerSecond }),
      })),
      setups: namesOf(setups ?? {}).map((name) => ({ name, title: setups![name].title })),
    }),
    [players, setups, ticksPerSecond, seed],
  );
}

/** While the run rests the address names its tick, so that a link opens the same moment. */
function useTickInAddress(): void {
  const engine = useEngine();
  const resting = useEngineValue(({ frame }) =>
    frame && !frame.playing && frame.hash !== null ? `${frame.tick} ${frame.seed}` : '',
  );
  const playing = useEngineValue(({ frame }) => frame?.playing ?? false);
  useEffect(() => {
    if (!engine.frame) return undefined;
    const timer = setTimeout(() => {
      const address = new URL(window.location.href);
      if (playing || resting === '') {
        address.searchParams.delete('tick');
        address.searchParams.delete('seed');
        // What was played until a linked moment is not what is played from here on.
        address.searchParams.delete('keys');
        address.searchParams.delete('setup');
        address.searchParams.delete('edit');
      } else {
        const [tick, seed] = resting.split(' ');
        address.searchParams.set('tick', tick);
        address.searchParams.set('seed', seed);
        const { setup } = engine.frame!;
        if (setup === null) address.searchParams.delete('setup');
        else address.searchParams.set('setup', setup);
      }
      if (address.href !== window.location.href)
        window.history.replaceState(window.history.state, '', address);
    }, 200);
    return () => clearTimeout(timer);
  }, [engine, resting, playing]);
}

export function Transport() {
  const engine = useEngine();
  const playing = useEngineValue(({ frame }) => frame?.playing ?? false);
  const goesOn = useEngineValue(({ frame }) => isGoingOn(frame));
  const moves = playing || goesOn;
  const speed = useEngineValue(({ frame }) => frame?.speed ?? 1);
  const seed = useEngineValue(({ frame }) => frame?.seed ?? 0);
  const hash = useEngineValue(({ frame }) => frame?.hash ?? '');
  const inPast = useEngineValue(({ frame }) => frame !== null && frame.tick < frame.head);
  const givesAgain = useEngineValue(({ frame }) => frame?.givesAgain ?? false);
  const ready = useEngineValue(({ frame }) => frame !== null);
  const clock = useRef<HTMLButtonElement>(null);
  useTickInAddress();

  useDrawing(({ frame, program }) => {
    if (!clock.current || !frame || !program) return;
    const [time, tick] = clock.current.children;
    writeText(time, clockText(frame.tick, program.ticksPerSecond));
    writeText(tick, `tick ${frame.tick}`);
  });

  const toggle = useCallback(() => {
    const { frame } = engine;
    if (frame?.playing || isGoingOn(frame)) engine.pause();
    else engine.play();
  }, [engine]);
  const back = useCallback(() => engine.nudge(-1), [engine]);
  const onward = useCallback(() => engine.nudge(1), [engine]);
  const restart = useCallback(() => {
    engine.restart(null);
    engine.play();
  }, [engine]);

  const { ask, dialog } = useAskText();
  const goTo = useCallback(() => {
    const { frame, program } = engine;
    if (!frame || !program) return;
    const { ticksPerSecond } = program;
    const read = (text: string) => tickOfText(text, ticksPerSecond);
    ask({
      title: 'Go to a moment',
      label: 'A time, as 1:23.5 or 83.5, or a tick, as tick 400',
      verb: 'Go there',
      value: clockText(frame.tick, ticksPerSecond),
      about: (
        <p>
          The run is kept from {clockText(frame.keptFrom, ticksPerSecond, 1)} and has come to{' '}
          {clockText(frame.head, ticksPerSecond, 1)}; past that it runs on to there.
        </p>
      ),
      check: (text) => {
        const tick = read(text);
        if (tick === null) return 'Write a time as 1:23.5 or 83.5, or a tick as tick 400.';
        return tick < frame.keptFrom
          ? `What was before ${clockText(frame.keptFrom, ticksPerSecond, 1)} is no longer kept.`
          : null;
      },
      onGive: (text) => {
        engine.seek(read(text)!);
        return null;
      },
    });
  }, [engine, ask]);
  const [trouble, setTrouble] = useState<string | null>(null);
  const documentNow = useDocumentNow();
  const follow = useFollow();
  const begin = useCallback(
    async (setup: string | null) => {
      const refused = await engine.begin(setup);
      setTrouble(refused);
      const begun = setup === null ? undefined : documentNow().setups?.[setup];
      if (refused !== null || !begun || !engine.program) return;
      const about = subjectOfSetup(begun, engine.program);
      if (about !== null) follow(about);
    },
    [engine, documentNow, follow],
  );
  const dispatch = useAppDispatch();
  const { players, setups } = usePlayersAndSetups();
  const replay = useCallback(async () => {
    const { frame } = engine;
    if (frame) engine.replay(await engine.recording(), frame.tick);
  }, [engine]);
  const savePlayer = useCallback(async () => {
    const { seed: began, inputs } = await engine.recording();
    const name = freshName('run', (taken) => players.some((player) => player.name === taken));
    const player = playerOf(`Run ${players.length + 1}`, began, inputs);
    if (player) dispatch(perform({ command: 'setInCast', part: 'players', name, value: player }));
  }, [engine, players, dispatch]);

  useCommands(
    useMemo(
      () => [
        { id: 'run', name: playing ? 'Pause' : 'Run', keys: 'KeyP', run: toggle },
        { id: 'back', name: 'One tick back', keys: 'Comma', run: back },
        { id: 'onward', name: 'One tick onward', keys: 'Period', run: onward },
        {
          id: 'far-back',
          name: `${FAR} ticks back`,
          keys: 'Shift+Comma',
          run: () => engine.nudge(-FAR),
        },
        {
          id: 'far-onward',
          name: `${FAR} ticks onward`,
          keys: 'Shift+Period',
          run: () => engine.nudge(FAR),
        },
        { id: 'go-to', name: 'Go to a time or tick …', keys: 'KeyJ', run: goTo },
        { id: 'restart', name: 'Restart the run', keys: 'KeyR', run: restart },
        {
          id: 'replay',
          name: 'Replay the input of this run',
          run: () => runInBackground(replay()),
        },
        {
          id: 'save-player',
          name: 'Save the input of this run as a scripted player',
          run: () => runInBackground(savePlayer()),
        },
        ...players.map(({ name, title, recording, until }) => ({
          id: `player-${name}`,
          name: `Replay the scripted player: ${title}`,
          run: () => engine.replay(recording, until),
        })),
        {
          id: 'setup',
          name: 'Start as the project says',
          keys: 'Shift+Digit0',
          run: () => runInBackground(begin(null)),
        },
        ...setups.map(({ name, title }, i) => ({
          id: `setup-${name}`,
          name: `Start: ${title}`,
          ...(i < 9 ? { keys: `Shift+Digit${i + 1}` } : {}),
          run: () => runInBackground(begin(name)),
        })),
        ...SPEEDS.map((value) => ({
          id: `speed-${value}`,
          name: `Speed ${value}×`,
          run: () => engine.setSpeed(value),
        })),
      ],
      [
        engine,
        playing,
        toggle,
        back,
        onward,
        goTo,
        restart,
        replay,
        savePlayer,
        begin,
        players,
        setups,
      ],
    ),
    'ledger',
  );

  return (
    <Bar aria-label="Transport">
      <MainButton
        onPress={toggle}
        isDisabled={!ready}
        aria-label={`${moves ? 'Pause' : 'Run'} (P)`}
        style={{ minWidth: 88 }}
      >
        {moves ? <Pause size={14} fill="currentColor" /> : <Play size={14} fill="currentColor" />}
        {moves ? 'Pause' : 'Run'}
      </MainButton>
      <Button onPress={back} isDisabled={!ready} aria-label="One tick back (,)">
        <ChevronLeft size={14} /> tick
      </Button>
      <Button onPress={onward} isDisabled={!ready} aria-label="One tick onward (.)">
        tick <ChevronRight size={14} />
      </Button>
      <Button onPress={restart} isDisabled={!ready} aria-label="Restart the run (R)">
        <RotateCcw size={14} /> restart
      </Button>
      <Clock
        ref={clock}
        type="button"
        data-testid="clock"
        title="Go to a time or tick (J)"
        onClick={goTo}
        disabled={!ready}
      >
        <b style={{ fontWeight: 400 }} /> <span />
      </Clock>
      <span>
        seed{' '}
        <NumberText
          label="Seed"
          spec={SEED}
          value={seed}
          onCommit={(next) => {
            engine.restart(next);
            engine.play();
          }}
        />
      </span>
      <Menu
        label="Speed"
        entries={SPEEDS.map((value) => ({
          id: String(value),
          text: `${value}×`,
          label: `${value}×`,
          onAction: () => engine.setSpeed(value),
        }))}
      >
        <QuietButton aria-label={`Speed ${speed} times. Choose`}>{speed}×</QuietButton>
      </Menu>
      <ReachedSpeed />
      {goesOn && <GoingOn />}
      <Stops />
      <RunEnd />
      {trouble && (
        <span role="alert" style={{ color: 'var(--harm)' }}>
          Not begun: {trouble}
        </span>
      )}
      {inPast && (
        <Explained text="What is recorded after this tick is kept as a branch where a key or an edit makes it go another way.">
          {givesAgain
            ? 'in the past: runs on with your keys of then, until you press one'
            : 'in the past: runs on as recorded, until a key or an edit'}
        </Explained>
      )}
      <span style={{ marginLeft: 'auto' }}>
        {hash !== '' && (
          <Explained text="Equal runs have equal state hashes">
            <Pill>
              state <code data-testid="hash">{hash}</code>
            </Pill>
          </Explained>
        )}
      </span>
      {dialog}
    </Bar>
  );
}
