import { AWAY, type GamePicture, type WavePicture } from '@crooked-lantern/core';
import { useRef } from 'react';
import styled from 'styled-components';
import type { Frame } from '../engine/protocol.ts';
import { useDrawing, useEngineValue } from '../engine/use-engine.tsx';
import { writeText } from '../ui/timing/write-live.ts';
import { RESULT_WORDS } from '../ledger/run-end.tsx';
import { bodyAt } from './drawing/bodies.ts';

const Above = styled.div`
  position: absolute;
  inset: 6px 8px auto;
  display: flex;
  flex-wrap: wrap;
  align-items: start;
  gap: 4px 6px;
  pointer-events: none;
  > span {
    padding: 2px 9px;
    border-radius: 6px;
    background: color-mix(in srgb, var(--panel) 88%, transparent);
    color: var(--bone);
    &:empty {
      display: none;
    }
    b {
      font-family: var(--mono);
      font-weight: 600;
    }
  }
`;

/** Pixels above the ground that one row of it takes. */
export const GAME_HEIGHT = 26;

const Said = styled.span`
  flex-basis: 100%;
  background: none !important;
  font-style: italic;
  text-align: center;
  text-shadow:
    0 0 4px var(--night),
    0 0 4px var(--night);
`;

const Result = styled.div`
  position: absolute;
  inset: 0;
  display: grid;
  place-content: center;
  justify-items: center;
  pointer-events: none;
  > div {
    padding: 18px 34px;
    border: 1px solid var(--line2);
    border-radius: 10px;
    background: color-mix(in srgb, var(--night) 90%, transparent);
    text-align: center;
  }
  strong {
    display: block;
    color: var(--lamp);
    font: 400 30px/1.2 var(--title);
  }
  strong[data-how='lost'] {
    color: var(--harm);
  }
  p {
    margin-top: 4px;
    font-size: 15px;
  }
  small {
    color: var(--mute);
    font-size: 13px;
  }
`;

/** “foraging · 12 s, then guarding”. */
function modeWords({ mode, left, next }: GamePicture): string {
  if (mode === '') return '';
  const time = left === null ? '' : ` · ${Math.ceil(left)} s`;
  return `${mode}${time}${next === '' ? '' : `, then ${next}`}`;
}

function waveWords({ title, alive, toCome, isHeld, why }: WavePicture): string {
  if (alive === 0 && toCome === 0) return '';
  return `${title} ${alive}${toCome > 0 ? ` · ${toCome} to come` : ''}${isHeld ? `: ${why}` : ''}`;
}

/** What a director says now; empty for nothing. */
function saidBy(frame: Frame): string {
  const said = frame.speech.find(({ agent }) => bodyAt(frame, agent).posture === AWAY);
  return said?.text ?? '';
}

const scoreText = (value: number) => String(Number(value.toFixed(2)));

/** Mode, time, scores and waves above the ground, what its director says, and how the run ended. */
export function GameAbove() {
  const box = useRef<HTMLDivElement>(null);
  // Only what there is of the game changes what is rendered; how it stands is written as it changes.
  const names = useEngineValue(({ frame }) =>
    frame?.game ? JSON.stringify([frame.game.scores, frame.game.waves].map(titlesOf)) : null,
  );
  const result = useEngineValue(({ frame }) =>
    frame?.game?.result ? JSON.stringify(frame.game.result) : null,
  );
  useDrawing(({ frame }) => {
    if (!box.current || !frame?.game) return;
    const { game } = frame;
    const write = (name: string, text: string) =>
      writeText(box.current!.querySelector(`[data-part="${name}"]`), text);
    write('mode', modeWords(game));
    for (const { name, value } of game.scores) write(`score ${name}`, scoreText(value));
    for (const wave of game.waves) write(`wave ${wave.name}`, waveWords(wave));
    write('said', saidBy(frame));
  });
  if (names === null) return null;
  const [scores, waves] = JSON.parse(names) as Titled[][];
  const ended = result === null ? null : (JSON.parse(result) as NonNullable<GamePicture['result']>);
  return (
    <>
      <Above ref={box} role="group" aria-label="The game">
        {scores.map(({ name, title }) => (
          <span key={name}>
            {title} <b data-part={`score ${name}`} />
          </span>
        ))}
        <span data-part="mode" />
        {waves.map(({ name }) => (
          <span key={name} data-part={`wave ${name}`} />
        ))}
        <Said data-part="said" />
      </Above>
      {ended && (
        <Result role="status">
          <div>
            <strong data-how={ended.how}>{RESULT_WORDS[ended.how]}</strong>
            <p>{ended.words}</p>
            <small>R starts again</small>
          </div>
        </Result>
      )}
    </>
  );
}

interface Titled {
  name: string;
  title: string;
}

function titlesOf(list: readonly Titled[]): Titled[] {
  return list.map(({ name, title }) => ({ name, title }));
}
