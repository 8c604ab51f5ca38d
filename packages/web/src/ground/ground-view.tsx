import { BODY_STRIDE } from '@crooked-lantern/core';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { useCommands } from '../shell/commands.tsx';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { OVERLAYS, overlayToggled } from '../state/view-slice.ts';
import { WHY } from '../engine/asking-address.ts';
import { useAsk } from '../shell/use-ask.ts';
import { useDoing } from '../ledger/use-doing.ts';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useTokens } from '../theme/use-tokens.ts';
import { Toggle } from '../ui/button.tsx';
import { Choice } from '../ui/fields/fields.tsx';
import { AgentList } from './agent-list.tsx';
import { GAME_HEIGHT, GameAbove } from './game-above.tsx';
import { CanvasStage, NARROW } from '../ui/place.ts';
import { sharpCanvas } from '../ui/canvas.ts';
import { Explained } from '../ui/overlays/tooltip.tsx';
import { bodyAt, drawBodies, sceneOf } from './drawing/bodies.ts';
import { createBackdrop, drawBackdrop } from './drawing/backdrop.ts';
import { drawFights } from './drawing/fights.ts';
import { drawLamps, drawLanterns } from './drawing/light.ts';
import { drawOverview, overviewHeight, type Overview } from './drawing/overview.ts';
import { drawForces, drawPaths, drawWalkable } from './drawing/motion.ts';
import {
  drawGates,
  drawGround,
  drawMarks,
  drawRoutes,
  drawScale,
  drawThings,
} from './drawing/scene.ts';
import { createReaches } from './drawing/shade.ts';
import { drawCones, drawKnown, drawNoises, drawPlaces, drawRays } from './drawing/senses.ts';
import {
  closeView,
  fitView,
  toMetresX,
  toMetresY,
  toX,
  toY,
  type Painter,
  type View,
} from './drawing/view.ts';
import { useWalkable, useSpace } from './use-ground.ts';
import {
  DODGE_KEY,
  drawAim,
  GUARD_KEYS,
  STRIKE_KEYS,
  usePlayer,
  type Fighting,
} from './use-player.ts';

const Panel = styled.section`
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-height: 0;
  min-width: 0;
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
  @media ${NARROW} {
    flex-wrap: nowrap;
    padding: 2px 8px;
    overflow-x: auto;
    scrollbar-width: none;
    > * {
      flex: none;
    }
    > :last-child {
      order: -1;
      margin: 0;
    }
  }
`;

const Hint = styled.p`
  min-height: 26px;
  padding: 3px 10px;
  border-top: 1px solid var(--line);
  color: var(--mute);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  @media (max-height: 560px) {
    display: none;
  }
`;

/** What the overview shows is chosen right above it. */
const OverOverview = styled.div`
  position: absolute;
  left: 10px;
  margin-bottom: 30px;
  border-radius: 6px;
  background: color-mix(in srgb, var(--panel) 88%, transparent);
`;

const KEYS_HINT =
  'Arrows walk · Shift run · C crouch · E take, put down · hold T throw · O gate · Z call';

/** What the keys do for a body that fights: “Arrows walk · F Jab · V high guard”; for another, what all can do. */
function keysHint({ strikes, dodges, guards }: Fighting): string {
  if (strikes.length + dodges.length + guards.length === 0) return KEYS_HINT;
  const key = (code: string) => code.replace('Key', '');
  return [
    'Arrows walk',
    ...strikes
      .slice(0, STRIKE_KEYS.length)
      .map(({ title }, i) => `${key(STRIKE_KEYS[i])} ${title}`),
    ...guards
      .slice(0, GUARD_KEYS.length)
      .map(({ title }, i) => `${key(GUARD_KEYS[i])} ${title.toLowerCase()}`),
    ...dodges.slice(0, 1).map(({ title }) => `${key(DODGE_KEY)} ${title}`),
  ].join(' · ');
}

function keysWords(title: string): string {
  return `Arrow keys walk the ${title}, with Shift it runs; C crouches, E picks up or puts down, T held down aims a throw, O opens or closes a gate, Z calls friends. On a gamepad the left stick walks, the right trigger runs, the face buttons and the right shoulder make its moves, the left shoulder and trigger guard.`;
}

const OVERVIEW_OPTIONS = [
  { id: 'all', title: 'all' },
  { id: 'known', title: 'what your side knows' },
  { id: 'off', title: 'no overview' },
];

/** Pixels a metre takes in the close view. */
const CLOSE_SCALE = 30;

/** The running ground: drawn every frame, played by keyboard while it has focus. */
export const GroundView = memo(function GroundView({
  agent,
  onSelectAgent,
}: {
  agent: string | null;
  onSelectAgent: (agent: string) => void;
}) {
  const engine = useEngine();
  const ask = useAsk();
  const dispatch = useAppDispatch();
  const overlays = useAppSelector(({ view }) => view.overlays);
  // Where there is little room, the whole ground would be too small to read.
  const [close, setClose] = useState(() => matchMedia(NARROW).matches);
  const [overview, setOverview] = useState<Overview>('all');
  const [focused, setFocused] = useState(false);
  const [, redraw] = useState({});
  const tokens = useTokens();
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<HTMLDivElement>(null);
  const view = useRef<View>({ scale: 1, left: 0, top: 0 });
  const program = useEngineValue((client) => client.program);
  const space = useSpace(program);
  const doing = useDoing(program);
  const played = useEngineValue(({ frame }) => frame?.played ?? -1);
  const player = program?.agents[played] ?? null;
  const chosen = program?.agents.findIndex(({ name }) => name === agent) ?? -1;
  const keys = usePlayer(program, played);
  const backdrop = useRef(createBackdrop());
  const lit = useRef(createReaches());
  const seen = useRef(createReaches());
  const area = useWalkable(program, space, chosen >= 0 ? chosen : played, overlays.walkable);
  const carry = useRef<{ agent: number; x: number; y: number } | null>(null);

  useEffect(
    () =>
      engine.show({
        rays: overlays.sight,
        paths: overlays.paths,
        forces: overlays.forces,
        known: overlays.known,
        side: close && overview === 'known',
        places: overlays.places,
      }),
    [engine, overlays, close, overview],
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
        {
          id: 'possess',
          name: 'Play: take over the watched agent',
          keys: 'KeyX',
          disabled: agent === null ? 'no agent is watched' : undefined,
          run: () => {
            if (agent !== null) engine.possess(agent);
            stage.current?.focus();
          },
        },
      ],
      [dispatch, engine, agent],
    ),
    'ground',
  );

  useDrawing(({ frame, program: running }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface) return;
    const { context, width, height } = surface;
    if (!frame || !running || !space) {
      context.fillStyle = tokens.night;
      context.fillRect(0, 0, width, height);
      return;
    }
    const { ground } = running;
    const centre = frame.played >= 0 ? frame.played : chosen;
    if (close && centre >= 0) {
      const { x, y } = bodyAt(frame, centre);
      view.current = closeView(x, y, CLOSE_SCALE, ground.width, ground.height, width, height, 0);
    } else {
      const head = frame.game ? GAME_HEIGHT : 0;
      view.current = fitView(ground.width, ground.height, width, height, head);
    }
    const painter = { context, view: view.current, tokens, width, height };
    const scene = sceneOf(view.current, { program: running, space, frame, chosen, doing });
    const { light, routes } = overlays;
    drawBackdrop(backdrop.current, painter, [ground, space, area, light, routes], (behind) => {
      drawGround(behind, ground);
      if (area) drawWalkable(behind, area);
      drawMarks(behind, ground);
      if (light) drawLamps(behind, space, ground);
      if (routes) drawRoutes(behind, ground);
    });
    if (light) drawLanterns(painter, scene, lit.current);
    drawGates(painter, ground, frame.gates);
    if (overlays.sight) drawCones(painter, scene, seen.current);
    if (overlays.places) drawPlaces(painter, frame);
    if (overlays.paths && frame.paths) drawPaths(painter, frame.paths, chosen);
    if (overlays.sight && frame.rays) drawRays(painter, frame.rays);
    if (overlays.sound) drawNoises(painter, frame.noises);
    if (overlays.forces) drawForces(painter, frame);
    drawThings(painter, ground, frame);
    drawBodies(painter, scene, overlays.wicks);
    drawFights(painter, scene, frame.fights);
    if (overlays.known) drawKnown(painter, scene);
    drawAim(painter, keys.aim(frame));
    if (carry.current) drawCarried(painter, carry.current);
    drawScale(painter);
    if (close) drawOverview(painter, running, frame, overview);
  });

  /** Where the pointer is, in metres, and the agent below it. */
  const under = (event: React.PointerEvent | React.MouseEvent) => {
    const { frame } = engine;
    if (!frame || !canvas.current) return null;
    const box = canvas.current.getBoundingClientRect();
    const [left, top] = [event.clientX - box.left, event.clientY - box.top];
    let best = -1;
    let bestDistance = 18;
    for (let i = 0; i * BODY_STRIDE < frame.bodies.length; i++) {
      const body = bodyAt(frame, i);
      const distance = Math.hypot(
        toX(view.current, body.x) - left,
        toY(view.current, body.y) - top,
      );
      // Absent agents have no position.
      if (!(distance < bestDistance)) continue;
      best = i;
      bestDistance = distance;
    }
    return { agent: best, x: toMetresX(view.current, left), y: toMetresY(view.current, top) };
  };

  const choose = (event: React.MouseEvent) => {
    const at = under(event);
    if (at && at.agent >= 0 && engine.program) onSelectAgent(engine.program.agents[at.agent].name);
  };

  /** A double click asks why the agent does what it does. */
  const askAbout = (event: React.MouseEvent) => {
    const at = under(event);
    const found = at && engine.program?.agents[at.agent];
    if (!found || at.agent === engine.frame?.played) return;
    if (engine.program!.archetypes[found.archetype].stack >= 0)
      ask({ agent: found.name, asking: WHY });
  };

  // While the run rests, an agent can be dragged elsewhere.
  const lift = (event: React.PointerEvent) => {
    const at = under(event);
    if (!at || at.agent < 0 || engine.frame?.playing) return;
    carry.current = at;
    event.currentTarget.setPointerCapture(event.pointerId);
  };
  const drag = (event: React.PointerEvent) => {
    const at = under(event);
    if (!carry.current || !at) return;
    carry.current = { ...carry.current, x: at.x, y: at.y };
    redraw({});
  };
  const putDown = () => {
    const moved = carry.current;
    carry.current = null;
    const { frame, program: running } = engine;
    if (!moved || !frame || !running) return;
    const from = bodyAt(frame, moved.agent);
    if (Math.hypot(from.x - moved.x, from.y - moved.y) < 0.2) return;
    engine.putDown(running.agents[moved.agent].name, moved.x, moved.y);
  };

  return (
    <Panel aria-label="Ground" data-commands="ground">
      <Bar>
        <span>Show</span>
        {OVERLAYS.map(({ id, name, tint, key }) => (
          <Toggle
            key={id}
            $tint={tint}
            isSelected={overlays[id]}
            onChange={() => dispatch(overlayToggled(id))}
            aria-label={`Show ${name} (${key.replace(/Digit|Key/, '')})`}
          >
            {name}
          </Toggle>
        ))}
        <Toggle isSelected={close} onChange={setClose} aria-label="Close view (0)">
          close
        </Toggle>
      </Bar>
      <CanvasStage
        ref={stage}
        tabIndex={0}
        role="application"
        aria-label={player ? `Ground. ${keysWords(player.title)}` : 'Ground'}
        data-testid="ground"
        onClick={choose}
        onDoubleClick={askAbout}
        onPointerDown={lift}
        onPointerMove={drag}
        onPointerUp={putDown}
        onKeyDown={keys.onKeyDown}
        onKeyUp={keys.onKeyUp}
        onFocus={() => setFocused(true)}
        onBlur={() => {
          setFocused(false);
          keys.onBlur();
        }}
      >
        <canvas ref={canvas} aria-hidden />
        <GameAbove />
      </CanvasStage>
      {close && program && (
        <OverOverview style={{ bottom: overviewHeight(program.ground, overview) }}>
          <Choice
            label="What the overview shows"
            value={overview}
            options={OVERVIEW_OPTIONS}
            onChoose={(id) => setOverview(id as Overview)}
          />
        </OverOverview>
      )}
      <Hint>
        <Explained text={player ? keysWords(player.title) : undefined}>
          {player === null
            ? 'Press X to play the watched agent'
            : focused
              ? keysHint(keys.fighting)
              : `Click, or press G, to play the ${player.title}`}
        </Explained>
      </Hint>
      <AgentList />
    </Panel>
  );
});

/** An agent on its way to another place under the pointer. */
function drawCarried({ context, view, tokens }: Painter, { x, y }: { x: number; y: number }): void {
  context.strokeStyle = tokens.bone;
  context.lineWidth = 1.5;
  context.setLineDash([3, 3]);
  context.beginPath();
  context.arc(toX(view, x), toY(view, y), 12, 0, 2 * Math.PI);
  context.stroke();
  context.setLineDash([]);
}
