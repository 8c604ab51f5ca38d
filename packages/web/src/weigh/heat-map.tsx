import type { ChoiceDocument, HeatPicture, OptionDocument } from '@crooked-lantern/core';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import styled from 'styled-components';
import { useDoing } from '../ledger/use-doing.ts';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { bodyAt, drawBodies, sceneOf } from '../ground/drawing/bodies.ts';
import { drawGates, drawGround } from '../ground/drawing/scene.ts';
import { fitView, toMetresX, toMetresY, toX, toY, type View } from '../ground/drawing/view.ts';
import { useSpace } from '../ground/use-ground.ts';
import { useTokens } from '../theme/use-tokens.ts';
import { Toggle } from '../ui/button.tsx';
import { sharpCanvas } from '../ui/canvas.ts';
import { CanvasStage } from '../ui/place.ts';
import type { Weighing } from './use-weighing.ts';
import { optionTitle } from './words.ts';
import { runInBackground } from '../state/failures.ts';

const Stage = styled(CanvasStage)`
  height: 200px;
  margin-top: 6px;
  border: 1px solid var(--line);
  border-radius: 6px;
  cursor: crosshair;
  touch-action: none;
`;

/** Metres from one place that is weighed to the next. */
const STEP = 0.5;
/** Milliseconds from one picture to the next, while the run goes on. */
const EVERY = 500;
/** Metres an arrow key moves the point. */
const NUDGE = 0.5;

/** The best of a choice at some place, in words. */
function useAnswer(
  point: [number, number] | null,
  of: string,
  choice: ChoiceDocument | null,
): string {
  const engine = useEngine();
  const tick = useEngineValue(({ frame }) => Math.floor((frame?.tick ?? 0) / 15));
  const [answer, setAnswer] = useState('');
  useEffect(() => {
    let current = true;
    if (!point) {
      setAnswer('');
      return undefined;
    }
    runInBackground(
      engine.choiceAt(...point).then((readout) => {
        if (!current) return;
        const best = (readout?.options ?? [])
          .flatMap(({ id, rows }) =>
            rows.flatMap(({ bar, score, of: candidate }) =>
              bar === null ? [{ id, score, candidate }] : [],
            ),
          )
          .sort((a, b) => b.score - a.score);
        const titleOf = (id: string) =>
          choice?.options.find((option) => option.id === id)?.title ?? id;
        const [x, y] = point.map((metres) => metres.toFixed(1));
        setAnswer(
          best.length === 0
            ? `At (${x}, ${y}) no option competes.`
            : `At (${x}, ${y}) it would pick ${titleOf(best[0].id)}${best[0].candidate === null ? '' : ` for ${best[0].candidate}`}: ${best[0].score.toFixed(2)}${best[1] ? `, before ${titleOf(best[1].id)} with ${best[1].score.toFixed(2)}` : ''}.`,
        );
      }),
    );
    return () => {
      current = false;
    };
  }, [engine, point, of, tick, choice]);
  return answer;
}

/** What an option would be worth wherever the agent stood, as light over the ground; and what would be picked at a point. */
export function HeatMap({ weighing, option }: { weighing: Weighing; option: OptionDocument }) {
  const { agent, mind, choice } = weighing;
  const engine = useEngine();
  const tokens = useTokens();
  const [isShown, setShown] = useState(false);
  const [heat, setHeat] = useState<HeatPicture | null>(null);
  const [point, setPoint] = useState<[number, number] | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const view = useRef<View>({ scale: 1, left: 0, top: 0 });
  const program = useEngineValue((client) => client.program);
  const space = useSpace(program);
  const doing = useDoing(program);
  const name = optionTitle(option);
  const answer = useAnswer(isShown ? point : null, `${agent} ${mind} ${choice}`, weighing.document);

  useEffect(() => {
    if (!isShown) return undefined;
    let current = true;
    let asking = false;
    let last = { tick: -1, time: -Infinity };
    const ask = () => {
      const tick = engine.frame?.tick ?? -1;
      const time = performance.now();
      if (asking || tick === last.tick || (engine.frame?.playing && time - last.time < EVERY))
        return;
      asking = true;
      last = { tick, time };
      runInBackground(
        engine.heat(option.id, STEP).then((next) => {
          asking = false;
          if (current) setHeat(next);
        }),
      );
    };
    ask();
    const unsubscribe = engine.onFrame(ask);
    return () => {
      current = false;
      unsubscribe();
    };
    // The option may have been edited since.
  }, [engine, isShown, option]);

  useDrawing(({ frame, program: running }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface) return;
    const { context, width, height } = surface;
    context.fillStyle = tokens.night;
    context.fillRect(0, 0, width, height);
    if (!frame || !running || !space) return;
    const { ground } = running;
    view.current = fitView(ground.width, ground.height, width, height, 0);
    const painter = { context, view: view.current, tokens, width, height };
    const chosen = running.agents.findIndex((each) => each.name === agent);
    const scene = sceneOf(view.current, { program: running, space, frame, chosen, doing });
    drawGround(painter, ground);
    if (heat) {
      context.fillStyle = tokens.lamp;
      const size = heat.step * view.current.scale;
      heat.scores.forEach((score, i) => {
        if (!(score > 0)) return;
        context.globalAlpha = Math.min(0.85, score * 0.85);
        const x = (i % heat.columns) * heat.step;
        const y = Math.floor(i / heat.columns) * heat.step;
        context.fillRect(toX(view.current, x), toY(view.current, y), size + 0.5, size + 0.5);
      });
      context.globalAlpha = 1;
    }
    drawGates(painter, ground, frame.gates);
    drawBodies(painter, scene, false);
    const at = point ?? (chosen >= 0 ? [bodyAt(frame, chosen).x, bodyAt(frame, chosen).y] : null);
    if (!at) return;
    context.strokeStyle = tokens.bone;
    context.lineWidth = 1.5;
    context.beginPath();
    context.arc(toX(view.current, at[0]), toY(view.current, at[1]), 7, 0, Math.PI * 2);
    context.stroke();
  });

  const putPoint = (event: PointerEvent<HTMLDivElement>) => {
    if (event.buttons !== 1) return;
    const box = event.currentTarget.getBoundingClientRect();
    setPoint([
      toMetresX(view.current, event.clientX - box.left),
      toMetresY(view.current, event.clientY - box.top),
    ]);
  };
  const nudge = (event: KeyboardEvent) => {
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-NUDGE, 0],
      ArrowRight: [NUDGE, 0],
      ArrowUp: [0, -NUDGE],
      ArrowDown: [0, NUDGE],
    };
    const step = steps[event.key];
    if (!step) return;
    event.preventDefault();
    const { frame, program: running } = engine;
    const chosen = running?.agents.findIndex((each) => each.name === agent) ?? -1;
    if (!frame || chosen < 0) return;
    const body = bodyAt(frame, chosen);
    const [x, y] = point ?? [body.x, body.y];
    setPoint([x + step[0], y + step[1]]);
  };

  return (
    <section aria-label={`Worth of ${name} over the ground`}>
      <h3 style={{ marginTop: 10 }}>
        If it stood elsewhere{' '}
        <Toggle
          isSelected={isShown}
          onChange={setShown}
          aria-label="Show its worth over the ground"
        >
          {isShown ? 'shown' : 'show'}
        </Toggle>
      </h3>
      {isShown && (
        <>
          <Stage
            tabIndex={0}
            role="application"
            aria-label="The ground: drag a point, or move it by the arrows, to see what would be picked there"
            onPointerDown={putPoint}
            onPointerMove={putPoint}
            onKeyDown={nudge}
          >
            <canvas ref={canvas} aria-hidden="true" />
          </Stage>
          <p role="status" style={{ color: 'var(--mute)', minHeight: '3em' }}>
            {answer ||
              `The brighter, the more ${name} would be worth there. Drag a point to see what would be picked.`}
          </p>
        </>
      )}
    </section>
  );
}
