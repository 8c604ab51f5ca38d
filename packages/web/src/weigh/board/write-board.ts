import {
  doneNow,
  type ChoiceDocument,
  type ChoiceReadout,
  type WeighedRow,
} from '@crooked-lantern/core';
import { BAR_WORDS, optionTitle, shortNumber } from '../words.ts';
import { writeAttribute, writeText } from '../../ui/timing/write-live.ts';

/** Writes what changes with each frame straight to the board’s elements. */

/** Below this a consideration holds its option down so much that it is worth seeing. */
const LOW = 0.3;
/** Scores this close together are marked: what decides is chance, or nearly. */
const NEAR = 0.005;

interface Size {
  width: number;
  height: number;
  /** Whether anything runs that could be read. */
  isRun: boolean;
}

function best(rows: readonly WeighedRow[]): WeighedRow | undefined {
  const competing = rows.filter(({ bar }) => bar === null);
  const among = competing.length > 0 ? competing : rows;
  return among.reduce<WeighedRow | undefined>(
    (most, row) => (most === undefined || row.score > most.score ? row : most),
    undefined,
  );
}

/** Why an option does not compete; a veto says whose. */
function barWords(row: WeighedRow, option: ChoiceDocument['options'][number]): string {
  if (row.bar === null) return '';
  if (row.bar !== 'veto') return BAR_WORDS[row.bar];
  const by = option.considerations?.find(({ veto }, i) => veto && row.cells[i]?.y === 0);
  return by ? `vetoed by ${by.title ?? by.input}` : BAR_WORDS.veto;
}

function writeRow(
  element: HTMLElement,
  row: WeighedRow | undefined,
  option: ChoiceDocument['options'][number],
  runs: boolean,
  { width, height }: Size,
): void {
  writeAttribute(element, 'data-runs', String(runs));
  const bar = element.querySelector<HTMLElement>('[data-bar]')!;
  const words = row ? barWords(row, option) : '';
  writeText(bar, words);
  for (const td of element.querySelectorAll<HTMLElement>('td[data-at]')) {
    const cell = row?.cells[Number(td.dataset.at)];
    const box = td.firstElementChild as HTMLElement | null;
    if (!box) continue;
    const text = box.querySelector('span')!;
    const circle = box.querySelector('circle');
    const isNothing = cell?.value === null;
    writeText(text, cell ? (isNothing ? 'none' : shortNumber(cell.y)) : '·');
    const isLow = cell !== undefined && !isNothing && cell.y < LOW;
    writeAttribute(box, 'data-low', String(isLow));
    writeAttribute(box, 'data-nothing', String(isNothing));
    if (!circle) continue;
    const isSomewhere = cell !== undefined && !isNothing;
    circle.style.display = isSomewhere ? '' : 'none';
    if (!isSomewhere) continue;
    writeAttribute(circle, 'cx', String(cell.x * width));
    writeAttribute(circle, 'cy', String((1 - cell.y) * height));
  }
  for (const grade of element.querySelectorAll<HTMLElement>('[data-grade]')) {
    const cell = row?.cells[Number(grade.dataset.grade)];
    writeText(grade.querySelector('b'), cell ? shortNumber(cell.y) : '·');
    writeAttribute(grade, 'data-low', String(cell !== undefined && cell.y < LOW));
  }
  const score = row && row.cells !== undefined && row.bar !== 'cooldown' ? row.score : null;
  writeText(
    element.querySelector('[data-score]'),
    score === null || row?.bar === 'noCandidate' ? '–' : score.toFixed(2),
  );
  element.querySelector<HTMLElement>('b')!.style.transform =
    `scaleX(${Math.max(0, Math.min(1, score ?? 0))})`;
}

/** What is said under the board: ties, or that nothing is worth doing. */
/** What the readout comes to in words, and the options that score the same as the best. */
function saidOf(
  document: ChoiceDocument,
  { options, active, running }: ChoiceReadout,
): { words: string; tied: readonly string[] } {
  const titleOf = (id: string) => {
    const option = document.options.find((each) => each.id === id);
    return option ? optionTitle(option) : id;
  };
  if (!active)
    return {
      words: 'The mind is doing something else now: this is what it would weigh.',
      tied: [],
    };
  const competing = options
    .flatMap(({ id, rows }) => {
      const row = best(rows);
      return row?.bar === null ? [{ id, score: row.score }] : [];
    })
    .sort((a, b) => b.score - a.score);
  if (competing.length === 0)
    return {
      words: running === null ? 'Nothing is worth doing now.' : 'Nothing else is worth doing now.',
      tied: [],
    };
  const [first] = competing;
  const level = competing.filter(({ score }) => first.score - score <= NEAR);
  if (level.length < 2) return { words: '', tied: [] };
  const names = level.map(({ id }) => titleOf(id));
  const list = `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
  const isTie = first.score - level[level.length - 1].score <= 1e-9;
  if (isTie)
    return {
      words: `▲ Tie: ${list} all score ${first.score.toFixed(2)}. What runs goes on; if none of them runs, chance decides. Give one a higher rank or weight.`,
      tied: level.map(({ id }) => id),
    };
  return {
    words: `▲ Nearly a tie: ${list} are within ${NEAR} of ${first.score.toFixed(2)}.`,
    tied: [],
  };
}

export function writeBoard(
  body: HTMLElement,
  said: HTMLElement,
  document: ChoiceDocument,
  readout: ChoiceReadout | null,
  size: Size,
): void {
  const none = size.isRun
    ? 'No agent weighs this now: none has this mind, or nothing in the mind calls the choice.'
    : '';
  const { words, tied } = readout ? saidOf(document, readout) : { words: none, tied: [] };
  writeText(said, words);
  for (const element of body.querySelectorAll<HTMLElement>('tr[data-option]')) {
    const id = element.dataset.option!;
    const option = document.options.find((each) => each.id === id);
    if (!option) continue;
    const rows = readout?.options.find((each) => each.id === id)?.rows ?? [];
    const running = rows.find(({ runs }) => runs);
    const row = running ?? best(rows);
    const runs = doneNow(readout) === id;
    const isTied = tied.includes(id);
    writeAttribute(element, 'data-tied', String(isTied));
    writeRow(element, row, option, runs, size);
  }
  for (const element of body.querySelectorAll<HTMLElement>('tr[data-candidate]')) {
    const id = element.dataset.candidate!;
    const option = document.options.find((each) => each.id === id);
    const rows = readout?.options.find((each) => each.id === id)?.rows ?? [];
    const row = rows[Number(element.dataset.index)];
    writeText(element.querySelector('[data-name]'), row?.of ?? '');
    if (option)
      writeRow(element, row, option, row?.runs === true && readout?.active === true, size);
  }
}
