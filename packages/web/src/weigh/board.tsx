import {
  addConsideration,
  addOption,
  columnName,
  copyColumn,
  duplicateOption,
  moveOption,
  removeColumn,
  removeOption,
  type ChoiceDocument,
  type ConsiderationDocument,
} from '@crooked-lantern/core';
import { ChevronDown, ChevronRight, MoreHorizontal, Plus } from 'lucide-react';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import styled from 'styled-components';
import { useDrawing, useEngineValue } from '../engine/use-engine.tsx';
import type { Editing } from '../state/use-edit.ts';
import { useAskText } from '../ui/ask-text.tsx';
import { Button, QuietButton } from '../ui/button.tsx';
import { checkTitle } from '../ui/fields.tsx';
import { Menu, type MenuEntry } from '../ui/menu.tsx';
import { RowFindings } from '../minds/row-findings.tsx';
import { columnsOf, type Column } from './columns.ts';
import { curvePath } from './curve-path.ts';
import type { Weighing } from './use-weighing.ts';
import { eachWords, optionTitle } from './words.ts';
import { writeBoard } from './write-board.ts';

const Scroll = styled.div`
  overflow-x: auto;
`;

const Table = styled.table`
  width: 100%;
  /* Numbers that change must not move the columns. */
  table-layout: fixed;
  border-collapse: collapse;
  col.option {
    width: 148px;
  }
  col.score {
    width: 128px;
  }
  th {
    padding: 4px 8px;
    color: var(--mute);
    font-weight: 600;
    text-align: left;
    vertical-align: bottom;
  }
  tbody tr {
    border-top: 1px solid var(--line);
  }
  /* However many columns there are, what an option is called and what it scores stay in sight. */
  tr > :first-child,
  tr > :last-child {
    position: sticky;
    left: 0;
    z-index: 1;
    background: var(--night);
  }
  tr > :last-child {
    right: 0;
    left: auto;
  }
  tbody tr[data-runs='true'] > :first-child,
  tbody tr[data-runs='true'] > :last-child {
    background: color-mix(in srgb, var(--lamp) 14%, var(--night));
  }
  tbody tr[data-runs='true'] {
    background: color-mix(in srgb, var(--lamp) 14%, transparent);
  }
  tbody tr[data-runs='true'] th {
    color: var(--lampText);
  }
  tbody tr[data-off='true'] {
    opacity: 0.55;
  }
  td {
    padding: 2px 4px;
  }
`;

const Option = styled.th.attrs({ scope: 'row' })`
  && {
    color: var(--bone);
    vertical-align: middle;
  }
  > div {
    display: flex;
    align-items: center;
    gap: 2px;
  }
  small {
    display: block;
    color: var(--mute);
    font-size: 0.92em;
    font-weight: 400;
  }
  small[data-bar] {
    color: var(--refuse);
  }
  small[data-bar]:empty {
    display: none;
  }
`;

const Heading = styled.span`
  display: flex;
  align-items: end;
  gap: 2px;
  > span {
    min-width: 0;
    overflow-wrap: anywhere;
  }
`;

const Name = styled.button`
  padding: 1px 3px;
  border: 0;
  border-radius: 5px;
  background: none;
  color: inherit;
  font-weight: inherit;
  text-align: left;
  &[aria-pressed='true'] {
    background: var(--raised);
  }
`;

const Cell = styled.button`
  display: flex;
  align-items: center;
  gap: 6px;
  width: 100%;
  min-height: 34px;
  padding: 2px 4px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: none;
  color: var(--bone);
  font-family: var(--mono);
  text-align: left;
  &:hover {
    border-color: var(--line2);
  }
  &[aria-pressed='true'] {
    background: var(--raised);
    border-color: var(--line2);
  }
  position: relative;
  small {
    position: absolute;
    right: 3px;
    bottom: -1px;
    color: var(--mute);
    font-size: 0.8em;
  }
  svg {
    flex: none;
    overflow: visible;
  }
  path {
    fill: none;
    stroke: var(--dim);
    stroke-width: 1.5;
  }
  tr[data-runs='true'] & path {
    stroke: var(--lamp);
  }
  circle {
    fill: var(--bone);
  }
  &[data-low='true'] span {
    color: var(--refuse);
  }
  &[data-nothing='true'] span {
    color: var(--mute);
  }
`;

const Add = styled(QuietButton)`
  && {
    min-height: 30px;
    opacity: 0;
  }
  tr:hover &&,
  tr:focus-within &&,
  &&[data-hovered],
  &&[data-focus-visible] {
    opacity: 1;
  }
`;

const Score = styled.td`
  > div {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  i {
    position: relative;
    flex: 1;
    min-width: 40px;
    height: 14px;
    overflow: hidden;
    border-radius: 4px;
    background: var(--raised);
  }
  b {
    position: absolute;
    inset: 0;
    background: var(--line2);
    transform-origin: left;
    transform: scaleX(0);
  }
  tr[data-runs='true'] & b {
    background: var(--lamp);
  }
  tr[data-tied='true']:not([data-runs='true']) & b {
    background: repeating-linear-gradient(90deg, var(--ember) 0 6px, var(--line2) 6px 12px);
  }
  span {
    width: 5ch;
    font-family: var(--mono);
    font-weight: 600;
    text-align: right;
  }
`;

const Said = styled.p`
  min-height: 1.5em;
  margin: 8px 8px 0;
  color: var(--mute);
`;

const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px;
`;

/** Pixels a column takes at least. */
const COLUMN = 84;
/** Pixels of a small curve. */
const WIDTH = 38;
const HEIGHT = 15;

function CurveCell({
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
  const columns = useMemo(() => columnsOf(document), [document]);
  const counts = useCandidateCounts();
  const [opened, setOpened] = useState<ReadonlySet<string>>(new Set());
  const { ask, dialog } = useAskText();
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

  const newOption = () =>
    ask({
      title: 'A new option',
      label: 'Title',
      verb: 'Add it',
      value: 'New option',
      check: checkTitle,
      onGive: (title) => {
        let id = '';
        const refused = editing.attempt((project) => {
          const added = addOption(project, place, title);
          id = added.id;
          return added.command;
        });
        if (refused === null) select({ option: id });
        return refused;
      },
    });
  const newColumn = (to: number[]) =>
    ask({
      title: 'A new consideration',
      label: 'What it looks at: an expression for a number',
      verb: 'Add it',
      value: 'distance(attention.of)',
      check: (text) => (text.trim() === '' ? 'It takes an expression.' : null),
      onGive: (input) => {
        const refused = editing.attempt((project) =>
          addConsideration(project, place, to, { input: input.trim() }),
        );
        if (refused === null)
          select({
            option: document.options[to[0]].id,
            cell: document.options[to[0]].considerations?.length ?? 0,
          });
        return refused;
      },
    });

  const optionEntries = (at: number): MenuEntry[] => {
    const { id, off } = document.options[at];
    const entry = (key: string, text: string, onAction: () => void): MenuEntry => ({
      id: key,
      text,
      label: text,
      onAction,
    });
    return [
      entry('duplicate', 'Duplicate', () => {
        let copy = id;
        const done = run((project) => {
          const made = duplicateOption(project, place, at);
          copy = made.id;
          return made.command;
        });
        if (done) select({ option: copy });
      }),
      ...(at > 0
        ? [entry('up', 'Move up', () => run((project) => moveOption(project, place, at, at - 1)))]
        : []),
      ...(at < document.options.length - 1
        ? [
            entry('down', 'Move down', () =>
              run((project) => moveOption(project, place, at, at + 1)),
            ),
          ]
        : []),
      entry('off', off ? 'Switch on' : 'Switch off', () =>
        editing.put(
          ['minds', mind, 'choices', choice, 'options', at, 'off'],
          off ? undefined : true,
        ),
      ),
      entry('consider', 'Add a consideration …', () => newColumn([at])),
      entry('remove', 'Remove', () => {
        if (run((project) => removeOption(project, place, at))) select({ option: null });
      }),
    ];
  };

  const columnEntries = (column: Column): MenuEntry[] => {
    const from = column.cells.findIndex((cell) => cell !== null);
    const lacking = column.cells.some((cell) => cell === null);
    return [
      ...(lacking
        ? [
            {
              id: 'copy',
              text: 'Copy to all other options',
              label: 'Copy to all other options',
              onAction: () =>
                run((project) => copyColumn(project, place, from, column.cells[from]!)),
            },
          ]
        : []),
      {
        id: 'remove',
        text: 'Remove from all options',
        label: 'Remove from all options',
        onAction: () => {
          if (run((project) => removeColumn(project, place, column.name))) select({ cell: null });
        },
      },
    ];
  };

  return (
    <>
      <Scroll>
        <Table
          aria-label={`Options of ${document.title ?? choice}`}
          onKeyDown={walk}
          style={{ minWidth: 276 + COLUMN * columns.length }}
        >
          <colgroup>
            <col className="option" />
            {columns.map(({ name }, i) => (
              <col key={`${name} ${i}`} />
            ))}
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
                        style={{ minHeight: 20, padding: 0 }}
                      >
                        <MoreHorizontal size={13} />
                      </QuietButton>
                    </Menu>
                  </Heading>
                </th>
              ))}
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
                          style={{ minHeight: 20, padding: 0 }}
                          onPress={() =>
                            setOpened((before) => {
                              const next = new Set(before);
                              if (!next.delete(option.id)) next.add(option.id);
                              return next;
                            })
                          }
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
                          style={{ minHeight: 20, padding: 0 }}
                        >
                          <MoreHorizontal size={13} />
                        </QuietButton>
                      </Menu>
                    </div>
                    {option.each && <small>{eachWords(option.each)}</small>}
                    <small data-bar />
                    <RowFindings path={`${path}.options[${at}]`} />
                  </Option>
                  {columns.map(({ name, cells }, i) => {
                    const cell = cells[at];
                    if (cell === null) {
                      const source = cells.findIndex((other) => other !== null);
                      const like = document.options[source].considerations![cells[source]!];
                      return (
                        <td key={`${name} ${i}`}>
                          {document.combine !== 'graded' && (
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
                  <Score>
                    <div>
                      <i aria-hidden="true">
                        <b />
                      </i>
                      <span data-score>·</span>
                    </div>
                  </Score>
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
                    <Score>
                      <div>
                        <i aria-hidden="true">
                          <b />
                        </i>
                        <span data-score>·</span>
                      </div>
                    </Score>
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
        {document.options.length > 0 && document.combine !== 'graded' && (
          <Button onPress={() => newColumn(document.options.map((_, i) => i))}>
            <Plus size={14} /> Add a consideration to all
          </Button>
        )}
      </Foot>
      {dialog}
    </>
  );
}
