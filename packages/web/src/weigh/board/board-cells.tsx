import { columnName, type ConsiderationDocument, type OptionDocument } from '@crooked-lantern/core';
import { useMemo } from 'react';
import { useProject } from '../../state/store.ts';
import { Cell, Grade, Score } from './board-style.ts';
import { curvePath } from '../curve/curve-path.ts';
import { gradeWords } from '../words.ts';

/** What stands in the cells of the board. */

/** Pixels of a small curve. */
export const WIDTH = 32;
export const HEIGHT = 15;

export function CurveCell({
  consideration,
  where,
  isChosen,
  onChoose,
}: {
  consideration: ConsiderationDocument;
  where: string;
  isChosen: boolean;
  onChoose: () => void;
}) {
  const path = useMemo(
    () => curvePath(consideration.curve, WIDTH, HEIGHT, 20),
    [consideration.curve],
  );
  return (
    <Cell
      type="button"
      data-cell
      aria-pressed={isChosen}
      aria-label={`${columnName(consideration)} of ${where}`}
      onClick={onChoose}
    >
      <svg width={WIDTH} height={HEIGHT} aria-hidden="true">
        <path d={path} />
        <circle r="2.5" cx="-9" cy="-9" />
      </svg>
      <span>·</span>
      {consideration.veto && <small title="At 0 it makes the whole score 0">veto</small>}
    </Cell>
  );
}

/** What makes an option strong: its graded rows, each with what it comes to now. */
export function GradesCell({ option, onChoose }: { option: OptionDocument; onChoose: () => void }) {
  const bands = useProject(({ document }) => document.bands);
  const words = gradeWords(option, (set) => bands?.[set]?.title ?? set);
  return (
    <td>
      {words.map((text, i) => (
        <Grade
          key={i}
          type="button"
          data-grade={i}
          aria-label={`${text}, of ${option.title ?? option.id}`}
          onClick={onChoose}
        >
          <span>{text}</span>
          <b>·</b>
        </Grade>
      ))}
    </td>
  );
}

export function ScoreCell() {
  return (
    <Score>
      <div>
        <i aria-hidden="true">
          <b />
        </i>
        <span data-score>·</span>
      </div>
    </Score>
  );
}
