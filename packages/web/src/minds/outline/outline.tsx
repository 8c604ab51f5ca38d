import {
  outlineOf,
  pathText,
  type ActionDocument,
  type ActionName,
  type ActivityDocument,
  type DocumentPath,
} from '@crooked-lantern/core';
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/react-virtual';
import { Plus } from 'lucide-react';
import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type RefObject,
} from 'react';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { useNever } from '../../engine/use-coverage.ts';
import { useEngine } from '../../engine/use-engine.tsx';
import { useAsk } from '../../shell/use-ask.ts';
import { performRowEdit } from '../../state/perform.ts';
import { useAppDispatch, useDocumentNow, useProject } from '../../state/store.ts';
import { QuietButton } from '../../ui/button.tsx';
import { ChooseFrom, type NamedChoice } from '../../ui/fields/choose-from.tsx';
import { MenuAt } from '../../ui/overlays/menu.tsx';
import { Kbd } from '../../ui/pill.tsx';
import { keyShown } from '../../ui/timing/pressed-key.ts';
import { whenFree } from '../../ui/timing/when-free.ts';
import { useFreshAction } from '../actions/action-line.tsx';
import type { OpenPart } from '../actions/activity-call.tsx';
import { useCopyLink } from '../use-copy-link.ts';
import { usePasteHere } from '../use-paste.tsx';
import { ROW_COMMANDS, type RowCommand } from './row-keys.ts';
import { commandsOf, RowView } from './row-view.tsx';
import { targetOfRow } from './row-target.ts';
import { rowSentence } from './row-words.ts';
import { useRowChoices } from './row-work.ts';
import { useRowActs, type Asked } from './use-row-acts.ts';
import { useLiveRows } from './use-live-rows.ts';
import { knownRows, rowsUnder, unfoldedFor, visibleRows, type KnownRow } from './visible-rows.ts';
import { runInBackground } from '../../state/failures.ts';

const Grid = styled.div`
  container-type: inline-size;
  position: relative;
  margin: 2px 0 4px;
  > [role='row'] {
    position: absolute;
    inset: 0 0 auto;
  }
`;

const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 12px;
  color: var(--mute);
  p {
    flex: 1;
    min-width: 24ch;
  }
  p[role='alert'] {
    color: var(--harm);
  }
`;

/** What there is to say of the row that has the focus. */
const Detail = styled.p`
  min-height: 1.4em;
  padding-left: 14px;
  color: var(--mute);
`;

/** Pixels a row takes at first sight; then it is measured. */
const ROW_HEIGHT = 26;

/** The box that scrolls around an element. */
function scrollerOf(element: HTMLElement | null): HTMLElement | null {
  for (let at = element?.parentElement ?? null; at; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return null;
}

/** The box that scrolls an element, and how far down in it the element begins, in pixels. */
function useScroller(grid: RefObject<HTMLElement | null>, content: unknown) {
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const [margin, setMargin] = useState(0);
  useLayoutEffect(() => setScroller(scrollerOf(grid.current)), [grid]);
  useLayoutEffect(() => {
    const box = scroller;
    if (!box) return undefined;
    const measure = () => {
      if (!grid.current) return;
      const { top } = grid.current.getBoundingClientRect();
      const next = top - box.getBoundingClientRect().top + box.scrollTop;
      setMargin((last) => (Math.abs(last - next) < 1 ? last : next));
    };
    measure();
    box.addEventListener('scroll', measure, { passive: true });
    return () => box.removeEventListener('scroll', measure);
    // What is above may have changed its height with the content.
  }, [grid, scroller, content]);
  return { scroller, margin };
}

const HINT = (['insert', 'wrap', 'kind', 'guard', 'nest', 'up', 'remove'] satisfies RowCommand[])
  .map((id) => `${keyShown(ROW_COMMANDS[id].keys[0])} ${ROW_COMMANDS[id].name.toLowerCase()}`)
  .join(' · ');

/** What the list that was asked for is called. */
function askedWords({ what, known }: Asked, rows: readonly KnownRow[], place: string): string {
  switch (what) {
    case 'insert':
      return `A row beneath row ${rows.findIndex(({ id }) => id === known.id) + 1} of ${place}`;
    case 'wrap':
      return 'Wrap in';
    case 'kind':
      return 'Change the kind to';
    case 'find':
      return `Find a row of ${place}`;
  }
}

/** All rows, to be found by anything they say. */
function rowChoices(all: readonly KnownRow[]): NamedChoice[] {
  return all.map(({ id, row }, index) => {
    const about = rowSentence(row);
    return { id, name: `Row ${index + 1}`, about, found: `${index + 1} ${about}` };
  });
}

/**
 * A tree, rules or a choice from top to bottom, edited row by row: what each row is, what it came to lately, one tick
 * a column, and what it comes to now.
 */
export function Outline({
  mind,
  activity,
  label,
  place,
  onOpen,
  only,
  startsFocused = false,
}: {
  mind: string;
  activity: ActivityDocument;
  label: string;
  /** What is outlined, for readers: “Comb the place”. */
  place: string;
  /** Only the row that is written there, and those inside it. */
  only?: DocumentPath;
  /** Opens a tree, rules or a choice by themselves. */
  onOpen?: OpenPart;
  /** Its first row takes the focus when it opens. */
  startsFocused?: boolean;
}) {
  const dispatch = useAppDispatch();
  const copyLink = useCopyLink();
  const document = useProject((project) => project.document.minds[mind]);
  const onlyText = only && pathText(only);
  const outline = useMemo(() => {
    const rows = document ? outlineOf(mind, document, activity) : [];
    return onlyText === undefined ? rows : rowsUnder(rows, onlyText);
  }, [mind, document, activity, onlyText]);
  const before = useRef<KnownRow[]>([]);
  const all = useMemo(() => {
    before.current = knownRows(outline, before.current);
    return before.current;
  }, [outline]);
  const [folded, setFolded] = useState<ReadonlySet<string>>(new Set());
  const rows = useMemo(() => visibleRows(all, folded), [all, folded]);
  const [current, setCurrent] = useState<string | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [asked, setAsked] = useState<Asked | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const grid = useRef<HTMLDivElement>(null);
  const askedAt = useRef<Element | null>(null);
  /** The row whose menu is open. */
  const [menu, setMenu] = useState<KnownRow | null>(null);
  /** Which row is to have the focus, and which of its fields is to be opened, once they are there. */
  const wanted = useRef<{ id: string; field?: string } | null>(null);
  const choices = useRowChoices(mind);
  const paste = usePasteHere();
  const { withKeys, dialog: keyDialog } = useFreshAction(mind);
  const currentIndex = Math.max(
    0,
    rows.findIndex(({ id }) => id === current),
  );

  const { scroller, margin } = useScroller(grid, rows);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => ROW_HEIGHT,
    getItemKey: (index) => rows[index].id,
    overscan: 12,
    scrollMargin: margin,
    initialRect: { width: 600, height: 800 },
    // The row that has the focus must stay, wherever one scrolls to.
    rangeExtractor: (range: Range) => {
      const shown = defaultRangeExtractor(range);
      return shown.includes(currentIndex) || currentIndex >= rows.length
        ? shown
        : [...shown, currentIndex].sort((a, b) => a - b);
    },
  });
  const detail = useRef<HTMLParagraphElement>(null);
  const isNever = useNever(mind);
  useLiveRows({ grid, detail, mind, all, outline, current: rows[currentIndex]?.id, isNever });

  const focusRow = useCallback((id: string, field?: string) => {
    wanted.current = { id, field };
    setCurrent(id);
    setChosen(new Set([id]));
  }, []);
  useEffect(() => {
    const aim = wanted.current;
    if (!aim) return;
    const index = rows.findIndex(({ id }) => id === aim.id);
    if (index < 0) return;
    virtual.scrollToIndex(index);
    const element = grid.current?.querySelector<HTMLElement>(
      `[role="row"][data-id="${CSS.escape(aim.id)}"]`,
    );
    if (!element) return;
    wanted.current = null;
    const field =
      aim.field && element.querySelector<HTMLElement>(`[data-field="${aim.field}"] button`);
    if (field) field.click();
    else element.focus({ preventScroll: true });
    element.scrollIntoView({ block: 'nearest' });
  });

  const reveal = useCallback(
    (id: string) => {
      setFolded((set) => unfoldedFor(all, set, id));
      focusRow(id);
    },
    [all, focusRow],
  );
  // An address that names a row opens with it.
  const [search] = useSearchParams();
  const linked = search.get('row');
  const opened = useRef<string | null>(null);
  useEffect(() => {
    if (linked === null || linked === opened.current) return;
    if (!all.some(({ id }) => id === linked)) return;
    opened.current = linked;
    reveal(linked);
  }, [linked, all, reveal]);

  useEffect(() => {
    if (!startsFocused) return;
    whenFree(() => grid.current?.querySelector<HTMLElement>('[role="row"]')?.focus());
  }, [startsFocused]);

  const edit = useCallback(
    (work: Parameters<typeof performRowEdit>[0], field?: string) => {
      const outcome = dispatch(performRowEdit(work));
      if ('refused' in outcome) {
        setTrouble(outcome.refused);
        return false;
      }
      setTrouble(null);
      focusRow(pathText(outcome.focus), field);
      return true;
    },
    [dispatch, focusRow],
  );

  const documentNow = useDocumentNow();
  const engine = useEngine();
  const askWhy = useAsk();
  const acts = useRowActs({
    documentNow,
    mind,
    rows,
    current,
    chosen,
    grid,
    edit,
    setCurrent,
    setChosen,
    setFolded,
    setTrouble,
    focusRow,
    onOpen,
    onLink: (row) => runInBackground(copyLink({ row }).then(setTrouble)),
    onWhy: (path) => {
      const { agent } = engine.watched;
      if (agent === null) return setTrouble('No agent is followed: choose one that has this mind.');
      const target = targetOfRow(documentNow(), { agent, mind, path });
      if ('refused' in target) return setTrouble(target.refused);
      const asking = { ask: 'whyNot', target: target.target } as const;
      askWhy({ agent, asking, mind });
    },
    reveal,
    openMenu: (known, at) => {
      askedAt.current = at;
      setMenu(known);
    },
    ask: (next) => {
      askedAt.current =
        grid.current?.querySelector(`[role="row"][data-id="${CSS.escape(next.known.id)}"]`) ?? null;
      setAsked(next);
    },
  });

  const close = () => {
    setAsked(null);
    if (asked) focusRow(asked.known.id);
  };
  const isEmpty = rows.length === 0;
  return (
    <div>
      <Grid
        ref={grid}
        role="treegrid"
        aria-label={label}
        aria-multiselectable="true"
        aria-rowcount={rows.length}
        onCopy={acts.copy}
        onCut={acts.cut}
        onPaste={(event) => acts.paste(event, paste)}
        style={{ height: virtual.getTotalSize() }}
      >
        {virtual.getVirtualItems().map((item) => {
          const known = rows[item.index];
          return (
            <RowView
              key={item.key}
              known={known}
              mind={mind}
              number={item.index + 1}
              place={place}
              isCurrent={item.index === currentIndex}
              isChosen={chosen.has(known.id)}
              isFolded={folded.has(known.id)}
              start={item.start - margin}
              acts={acts.row}
              measure={virtual.measureElement}
            />
          );
        })}
      </Grid>
      <Detail ref={detail} />
      <Foot>
        {!isEmpty && (
          <QuietButton
            onPress={() => acts.row.command('insert', rows[currentIndex] ?? rows[0])}
            aria-label={`Add a row to ${place}`}
          >
            <Plus size={14} /> Add a row
          </QuietButton>
        )}
        {trouble ? <p role="alert">{trouble}</p> : <p>{HINT} · Esc, then Tab leaves the rows</p>}
      </Foot>
      {menu && (
        <MenuAt
          at={askedAt}
          label={`Commands for row ${rows.findIndex(({ id }) => id === menu.id) + 1} of ${place}`}
          entries={commandsOf(menu).map((id) => ({
            id,
            text: ROW_COMMANDS[id].name,
            label: (
              <>
                {ROW_COMMANDS[id].name} <Kbd>{keyShown(ROW_COMMANDS[id].keys[0])}</Kbd>
              </>
            ),
            onAction: () => acts.row.command(id, menu),
          }))}
          onClose={() => setMenu(null)}
        />
      )}
      {asked && (
        <ChooseFrom
          key={asked.what}
          label={askedWords(asked, rows, place)}
          at={askedAt}
          choices={
            asked.what === 'find' ? rowChoices(all) : choices[asked.what](asked.known.row.path)
          }
          onChoose={(choice) => {
            const { known, what } = asked;
            setAsked(null);
            const take = (made?: ActionDocument) => {
              if (!acts.take(asked, choice, made)) focusRow(known.id);
            };
            const [kind, action] = choice.split(' ');
            if (kind === 'do' && what !== 'find') withKeys(action as ActionName, take);
            else take();
          }}
          onClose={close}
        />
      )}
      {keyDialog}
    </div>
  );
}
