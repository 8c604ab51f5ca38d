import { BODY_STRIDE, createWalls, firstMind, type Program } from '@crooked-lantern/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useCommands } from '../app/commands.tsx';
import { useAppDispatch, useAppSelector } from '../app/store.ts';
import { overlayToggled, type Overlays } from '../app/view-slice.ts';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useTokens } from '../theme/use-tokens.ts';
import { Toggle } from '../ui/button.tsx';
import { sharpCanvas } from '../ui/canvas.ts';
import { bodyAt, drawBodies, drawCones, drawPaths, drawRays } from './drawing/bodies.ts';
import { drawGround, drawRoutes, drawScale } from './drawing/scene.ts';
import { closeView, fitView, toX, toY, type View } from './drawing/view.ts';
import { usePlayer } from './use-player.ts';

const Panel = styled.section`
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 360px;
  min-width: 0;
  border-left: 1px solid var(--line);
`;

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
  padding: 5px 8px;
  border-bottom: 1px solid var(--line);
  color: var(--mute);
  > span {
    margin: 0 4px;
  }
  > :last-child {
    margin-left: auto;
  }
`;

const Stage = styled.div`
  position: relative;
  overflow: hidden;
  &:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -2px;
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
  &:focus .resting,
  &:not(:focus) .playing {
    display: none;
  }
`;

const Hint = styled.p`
  position: absolute;
  left: 10px;
  bottom: 8px;
  color: var(--mute);
  pointer-events: none;
  text-shadow:
    0 0 4px var(--night),
    0 0 4px var(--night);
`;

const OVERLAYS: { id: keyof Overlays; name: string; key: string; tint: string }[] = [
  { id: 'sight', name: 'sight', key: 'Digit1', tint: 'var(--sight)' },
  { id: 'paths', name: 'paths', key: 'Digit2', tint: 'var(--done)' },
  { id: 'routes', name: 'routes', key: 'Digit3', tint: 'var(--bone)' },
];

/** Pixels a metre takes in the close view. */
const CLOSE_SCALE = 30;

/** The gait above the archetype's own, by speed. */
function runGaitOf(program: Program | null, index: number): string | null {
  if (!program || index < 0) return null;
  const { paces, gait } = program.archetypes[program.agents[index].archetype];
  let best = gait;
  paces.forEach((pace, i) => {
    if (pace > paces[best]) best = i;
  });
  return program.gaits[best] ?? null;
}

/** The running ground: drawn every frame, played by keyboard while it has focus. */
export function GroundView({
  agent,
  onSelectAgent,
}: {
  agent: string | null;
  onSelectAgent: (agent: string) => void;
}) {
  const engine = useEngine();
  const dispatch = useAppDispatch();
  const overlays = useAppSelector(({ view }) => view.overlays);
  const [close, setClose] = useState(false);
  const tokens = useTokens();
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<HTMLDivElement>(null);
  const view = useRef<View>({ scale: 1, left: 0, top: 0 });
  const program = useEngineValue((client) => client.program);
  const walls = useMemo(
    () => program && createWalls(program.ground.width, program.ground.height, program.ground.walls),
    [program],
  );
  const played = program?.play ?? -1;
  const player = played < 0 ? null : program!.agents[played];
  const keys = usePlayer(player?.name ?? null, runGaitOf(program, played));

  useEffect(
    () => engine.show({ sight: overlays.sight, paths: overlays.paths }),
    [engine, overlays],
  );

  useCommands(
    useMemo(
      () => [
        ...OVERLAYS.map(({ id, name, key }) => ({
          id: `show-${id}`,
          name: `Show or hide ${name}`,
          keys: key,
          run: () => dispatch(overlayToggled(id)),
        })),
        {
          id: 'closer',
          name: 'Ground: whole or close',
          keys: 'Digit0',
          run: () => setClose((before) => !before),
        },
        {
          id: 'play-ground',
          name: 'Play: give the keys to the ground',
          keys: 'KeyG',
          run: () => stage.current?.focus(),
        },
      ],
      [dispatch],
    ),
  );

  useDrawing(({ frame, program: running }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface) return;
    const { context, width, height } = surface;
    if (!frame || !running || !walls) {
      context.fillStyle = tokens.night;
      context.fillRect(0, 0, width, height);
      return;
    }
    const { ground, agents } = running;
    const chosen = agents.findIndex(({ name }) => name === agent);
    const centre = running.play >= 0 ? running.play : chosen;
    if (close && centre >= 0) {
      const { x, y } = bodyAt(frame, centre);
      view.current = closeView(x, y, CLOSE_SCALE, ground.width, ground.height, width, height, 0);
    } else {
      view.current = fitView(ground.width, ground.height, width, height, 0);
    }
    const painter = { context, view: view.current, tokens, width, height };
    const scene = { program: running, walls, frame, chosen, played: running.play };
    drawGround(painter, ground);
    if (overlays.routes) drawRoutes(painter, ground);
    if (overlays.sight) drawCones(painter, scene);
    if (overlays.paths && frame.paths) drawPaths(painter, frame.paths);
    if (overlays.sight && frame.rays) drawRays(painter, frame.rays);
    drawBodies(painter, scene);
    drawScale(painter);
  });

  const choose = (event: React.MouseEvent) => {
    const { frame, program: running } = engine;
    if (!frame || !running || !canvas.current) return;
    const box = canvas.current.getBoundingClientRect();
    let best = -1;
    let bestDistance = 18;
    for (let i = 0; i * BODY_STRIDE < frame.bodies.length; i++) {
      const body = bodyAt(frame, i);
      const distance = Math.hypot(
        toX(view.current, body.x) - (event.clientX - box.left),
        toY(view.current, body.y) - (event.clientY - box.top),
      );
      if (distance < bestDistance) {
        best = i;
        bestDistance = distance;
      }
    }
    if (best >= 0) onSelectAgent(running.agents[best].name);
  };

  return (
    <Panel aria-label="Ground">
      <Bar>
        <span>Show</span>
        {OVERLAYS.map(({ id, name, tint, key }) => (
          <Toggle
            key={id}
            $tint={tint}
            isSelected={overlays[id]}
            onChange={() => dispatch(overlayToggled(id))}
            aria-label={`Show ${name} (${key.replace('Digit', '')})`}
          >
            {name}
          </Toggle>
        ))}
        <Toggle isSelected={close} onChange={setClose} aria-label="Close view (0)">
          close
        </Toggle>
      </Bar>
      <Stage
        ref={stage}
        tabIndex={0}
        role="application"
        aria-label={
          player ? `Ground. Arrow keys walk the ${player.title}, with Shift it runs.` : 'Ground'
        }
        data-testid="ground"
        onClick={choose}
        {...keys}
      >
        <canvas ref={canvas} aria-hidden />
        {player && (
          <>
            <Hint className="resting">Click, or press G, to play the {player.title}</Hint>
            <Hint className="playing">Arrow keys walk the {player.title} · Shift runs</Hint>
          </>
        )}
      </Stage>
      <AgentTable />
    </Panel>
  );
}

/** The ground's contents as a list, for those who can't see the drawing; renewed once a second of the run. */
function AgentTable() {
  const engine = useEngine();
  useEngineValue(({ frame, program }) =>
    frame && program ? `${Math.floor(frame.tick / program.ticksPerSecond)} ${frame.playing}` : '',
  );
  const { frame, program } = engine;
  if (!frame || !program) return null;
  return (
    <ul className="visually-hidden" aria-label="On the ground">
      {program.agents.map((placed, index) => {
        const { x, y, awareness, leaf } = bodyAt(frame, index);
        const state = firstMind(program, placed.archetype)?.machine.states[leaf]?.title;
        return (
          <li key={placed.name}>
            {placed.title} at {x.toFixed(1)}, {y.toFixed(1)} m{state ? `, ${state}` : ''}
            {awareness > 0 ? `, awareness ${awareness.toFixed(2)}` : ''}
          </li>
        );
      })}
    </ul>
  );
}
