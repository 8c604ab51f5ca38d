import { addConsideration, type ChoiceDocument } from '@crooked-lantern/core';
import { ChevronDown, ChevronRight, MoreHorizontal, Plus } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { useNever } from '../../engine/use-coverage.ts';
import { useDrawing, useEngineValue } from '../../engine/use-engine.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import type { Editing } from '../../state/use-edit.ts';
import { Button, QuietButton } from '../../ui/button.tsx';
import { CoverageToggle, useCoverageCommand } from '../../shell/coverage-toggle.tsx';
import { Menu } from '../../ui/overlays/menu.tsx';
import { toggled } from '../../ui/words/toggled.ts';
import { CurveCell, GradesCell, HEIGHT, ScoreCell, WIDTH } from './board-cells.tsx';
import { Add, Cell, Foot, Heading, Name, Option, Said, Scroll, Table } from './board-style.ts';
import { columnsOf } from './columns.ts';
import { HiddenColumns } from './hidden-columns.tsx';
import { useBoardMenus } from './use-board-menus.ts';
import type { Weighing } from '../use-weighing.ts';
import { eachWords, optionTitle } from '../words.ts';
import { writeBoard } from './write-board.ts';

/** Pixels a column takes at least. */
const COLUMN = 71;
interface BoardProps {
  weighing: Weighing;
  document: ChoiceDocument;
  editing: Editing;
}

/**
 * How many candidates each option has now, as one text that changes only when that does: what they are called
 * changes too often to render for it.
 */
function useCandidateCounts(): Map<string, number> {
  const text = useEngineValue(({ frame }) =>
    (frame?.choice?.options ?? [])
      .map(({ id, rows }) => `${id} ${rows.filter(({ of }) => of !== null).length}`)
      .join('\n'),
  );
  return useMemo(
    () =>
      new Map(
        text.split('\n').map((line): [string, number] => {
          const [id, count] = line.split(' ');
          return [id, Number(count)];
        }),
      ),
    [text],
  );
}

/** From cell to cell by the arrows, over rows and columns. */
function walk(event: KeyboardEvent<HTMLTableElement>): void {
  const steps: Record<string, [number, number]> = {
    ArrowUp: [-1, 0],
    ArrowDown: [1, 0],
    ArrowLeft: [0, -1],
    ArrowRight: [0, 1],
  };
  const step = steps[event.key];
  if (!step || event.altKey || !(event.target instanceof HTMLElement)) return;
  const cell = event.target.closest('td, th');
  const row = cell?.closest('tr');
  if (!cell || !row || !(cell instanceof HTMLTableCellElement)) return;
  const rows = [...event.currentTarget.tBodies[0].rows];
  let [down, right] = [rows.indexOf(row), cell.cellIndex];
  for (;;) {
    down += step[0];
    right += step[1];
    const next = rows[down]?.cells[right];
    if (!next) return;
    const target = next.querySelector<HTMLElement>('button');
    if (!target) continue;
    target.focus();
    event.preventDefault();
    return;
  }
}

/** Options down, considerations across: what each is worth now, the score last, what runs lit. */
export function Board({ weighing, document, editing }: BoardProps) {
  const { mind, choice, option: chosen, cell: chosenCell, select } = weighing;
  const { run } = editing;
  const place = { mind, choice };
  const isGraded = document.combine === 'graded';
  const columns = useMemo(() => columnsOf(document), [document]);
  const counts = useCandidateCounts();
  const isNever = useNever(mind);
  useCoverageCommand();
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const scroll = useRef<HTMLDivElement>(null);
  const body = useRef<HTMLTableSectionElement>(null);
  const said = useRef<HTMLParagraphElement>(null);
  useDrawing(({ frame, program }) => {
    if (body.current && said.current)
      writeBoard(body.current, said.current, document, frame?.choice ?? null, {
        height: HEIGHT,
        width: WIDTH,
        isRun: program !== null,
      });
  });
  const path = `minds.${mind}.choices.${choice}`;

  const { newOption, newColumn, optionEntries, columnEntries, dialog } = useBoardMenus(
    weighing,
    document,
    editing,
  );

  return (
    <>
      <HiddenColumns of={scroll} column={COLUMN} count={columns.length} />
      <Scroll ref={scroll}>
        <Table
          aria-label={`Options of ${document.title ?? choice}`}
          onKeyDown={walk}
          style={{ minWidth: 258 + COLUMN * columns.length }}
        >
          <colgroup>
            <col className="option" />
            {columns.map(({ name }, i) => (
              <col key={`${name} ${i}`} />
            ))}
            {isGraded && <col />}
            <col className="score" />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">Option</th>
              {columns.map((column, i) => (
                <th scope="col" key={`${column.name} ${i}`}>
                  <Heading>
                    <span>{column.name}</span>
                    <Menu label={`What to do with ${column.name}`} entries={columnEntries(column)}>
                      <QuietButton
                        aria-label={`More on ${column.name}`}
                        style={{ minHeight: 24, padding: 0 }}
                      >
                        <MoreHorizontal size={13} />
                      </QuietButton>
                    </Menu>
                  </Heading>
                </th>
              ))}
              {isGraded && <th scope="col">What makes it strong</th>}
              <th scope="col">Score now</th>
            </tr>
          </thead>
          <tbody ref={body}>
            {document.options.map((option, at) => {
              const title = optionTitle(option);
              const isOpen = opened.has(option.id);
              const rows = isOpen ? Array.from({ length: counts.get(option.id) ?? 0 }) : [];
              return [
                <tr key={option.id} data-option={option.id} data-off={option.off === true}>
                  <Option>
                    <div>
                      {option.each && (
                        <QuietButton
                          aria-label={`${isOpen ? 'Fold' : 'Unfold'} the candidates of ${title}`}
                          aria-expanded={isOpen}
                          style={{ minHeight: 24, padding: 0 }}
                          onPress={() => setOpened((before) => toggled(before, option.id))}
                        >
                          {isOpen ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
                        </QuietButton>
                      )}
                      <Name
                        type="button"
                        aria-pressed={at === chosen && chosenCell < 0}
                        onClick={() => select({ option: option.id })}
                      >
                        {title}
                      </Name>
                      <Menu label={`What to do with ${title}`} entries={optionEntries(at)}>
                        <QuietButton
                          aria-label={`More on ${title}`}
                          style={{ minHeight: 24, padding: 0 }}
                        >
                          <MoreHorizontal size={13} />
                        </QuietButton>
                      </Menu>
                    </div>
                    {option.each && <small>{eachWords(option.each)}</small>}
                    <small data-bar />
                    {isNever('option', `${choice}:${option.id}`) && <small>never picked</small>}
                    <RowFindings path={`${path}.options[${at}]`} />
                  </Option>
                  {columns.map(({ name, cells }, i) => {
                    const cell = cells[at];
                    if (cell === null) {
                      const source = cells.findIndex((other) => other !== null);
                      const like = document.options[source].considerations![cells[source]!];
                      return (
                        <td key={`${name} ${i}`}>
                          {!isGraded && (
                            <Add
                              aria-label={`Consider ${name} for ${title}`}
                              onPress={() => {
                                const added = run((project) =>
                                  addConsideration(project, place, [at], like),
                                );
                                if (added)
                                  select({
                                    option: option.id,
                                    cell: option.considerations?.length ?? 0,
                                  });
                              }}
                            >
                              <Plus size={12} />
                            </Add>
                          )}
                        </td>
                      );
                    }
                    return (
                      <td key={`${name} ${i}`} data-at={cell}>
                        <CurveCell
                          consideration={option.considerations![cell]}
                          where={title}
                          isChosen={at === chosen && cell === chosenCell}
                          onChoose={() => select({ option: option.id, cell })}
                        />
                      </td>
                    );
                  })}
                  {isGraded && (
                    <GradesCell option={option} onChoose={() => select({ option: option.id })} />
                  )}
                  <ScoreCell />
                </tr>,
                ...rows.map((_, k) => (
                  <tr key={`${option.id} ${k}`} data-candidate={option.id} data-index={k}>
                    <Option>
                      <small data-name style={{ paddingLeft: 22 }} />
                      <small data-bar style={{ paddingLeft: 22 }} />
                    </Option>
                    {columns.map(({ name, cells }, i) => (
                      <td key={`${name} ${i}`} data-at={cells[at] ?? undefined}>
                        {cells[at] !== null && (
                          <Cell as="div" data-cell>
                            <span>·</span>
                          </Cell>
                        )}
                      </td>
                    ))}
                    {isGraded && <td />}
                    <ScoreCell />
                  </tr>
                )),
              ];
            })}
          </tbody>
        </Table>
      </Scroll>
      <Said ref={said} aria-live="off" data-testid="board-said" />
      <Foot>
        <Button onPress={newOption}>
          <Plus size={14} /> Add an option
        </Button>
        {document.options.length > 0 && !isGraded && (
          <Button onPress={() => newColumn(document.options.map((_, i) => i))}>
            <Plus size={14} /> Add a consideration to all
          </Button>
        )}
        <CoverageToggle />
      </Foot>
      {dialog}
    </>
  );
}
