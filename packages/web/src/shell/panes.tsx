import { isObject } from '@crooked-lantern/core';
import { useMemo, useRef, type KeyboardEvent, type ReactNode, type RefObject } from 'react';
import {
  Group,
  Panel,
  Separator,
  useDefaultLayout,
  useGroupRef,
  usePanelRef,
  type PanelImperativeHandle,
  type PanelProps,
} from 'react-resizable-panels';
import styled from 'styled-components';
import { readKept } from '../state/kept-settings.ts';
import { useCommands, type Command } from './commands.tsx';
import { NARROW } from '../ui/place.ts';

/** A part of a place whose size can be changed. Sizes are in `px` or `%`. */
interface Pane {
  /** What its border and its command call it. */
  name: string;
  content: ReactNode;
  size: string;
  least: string;
}

interface PlacePanesProps {
  /** Under this name the sizes are remembered. */
  place: string;
  /** Left of the work; left out where there is nothing to choose from. */
  list?: Pane | null;
  /** Over the work; null where there is nothing. */
  plan?: Pane | null;
  work: ReactNode;
  side: Pane;
  /** Which pane stays in sight where all stand in one column: the one with the ground. */
  kept?: 'work' | 'side';
  ledger: ReactNode;
}

/** What is left of the ledger when it is folded: its toolbar. */
const FOLDED_LEDGER = '41px';

/**
 * In a narrow or low window, and where the page is magnified, the parts stand in one column that scrolls:
 * panes are then nothing but their content.
 */
const Whole = styled.div`
  flex: 1;
  min-height: 0;
  .pane {
    display: grid;
    grid-template: minmax(0, 1fr) / minmax(0, 1fr);
    overflow: hidden !important;
  }
  main {
    height: 100%;
  }
  @media ${NARROW} {
    display: flex;
    flex-direction: column;
    [data-group],
    [data-panel],
    .pane,
    main {
      display: contents !important;
    }
    [data-separator] {
      display: none;
    }
    .kept {
      display: grid !important;
      position: sticky;
      top: 0;
      z-index: 3;
      order: -1;
      height: max(38vh, 150px);
      max-height: none !important;
      background: var(--night);
    }
    .plan {
      display: grid !important;
      height: 300px;
      max-height: none !important;
    }
  }
`;

const Border = styled(Separator)`
  position: relative;
  flex: none;
  &[aria-orientation='vertical'] {
    width: 5px;
  }
  &[aria-orientation='horizontal'] {
    height: 5px;
  }
  &::after {
    content: '';
    position: absolute;
    inset: 0;
    margin: auto;
    background: var(--line);
  }
  &[aria-orientation='vertical']::after {
    width: 1px;
  }
  &[aria-orientation='horizontal']::after {
    height: 1px;
  }
  &:hover::after,
  &[data-separator='active']::after {
    background: var(--line2);
    width: auto;
    height: auto;
  }
  &:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -1px;
  }
`;

function fold(pane: RefObject<PanelImperativeHandle | null>): void {
  if (pane.current?.isCollapsed()) pane.current.expand();
  else pane.current?.collapse();
}

function foldCommand(
  id: string,
  keys: string,
  name: string,
  panel: RefObject<PanelImperativeHandle | null>,
): Command {
  return { id: `fold-${id}`, name: `Fold or unfold ${name}`, keys, run: () => fold(panel) };
}

/** The border between two panes: dragged, or moved by arrows; Enter folds what it is named after. */
function PaneBorder({ of, panel }: { of: string; panel: RefObject<PanelImperativeHandle | null> }) {
  // The package folds only what comes before a border; here it is whatever the border is named after.
  const onKeyDownCapture = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    event.stopPropagation();
    fold(panel);
  };
  return (
    <Border
      aria-label={`Size of ${of}`}
      title="Drag it, or use the arrows; Enter folds"
      onKeyDownCapture={onKeyDownCapture}
    />
  );
}

const isSizes = (value: unknown): value is Record<string, number> =>
  isObject(value) && Object.values(value).every(Number.isFinite);

/** The library reads what it has kept as it is; sizes that are none are set aside before. */
const checkedStorage = {
  getItem(key: string): string | null {
    const sizes = readKept(key, isSizes);
    return sizes && JSON.stringify(sizes);
  },
  setItem: (key: string, value: string) => localStorage.setItem(key, value),
};

/** The sizes of a group's panes, kept in the browser. */
function useKeptSizes(id: string, panelIds: string[]) {
  return useDefaultLayout({ id: `panes of ${id}`, panelIds, storage: checkedStorage });
}

/** Fine pointers meet a border on itself alone, so that scroll bars beside it stay within reach. */
const GRIP = { coarse: 20, fine: 5 };

/** A size as a share of what there is, in percent. */
function share(size: string, pixels: number): number {
  const value = Number.parseFloat(size);
  return size.endsWith('%') ? value : (100 * value) / pixels;
}

/** A pane that can be folded. */
function Side({ id, pane, className = 'pane', ...props }: SideProps) {
  return (
    <Panel
      id={id}
      className={className}
      defaultSize={pane.size}
      minSize={pane.least}
      collapsible
      {...props}
    >
      {pane.content}
    </Panel>
  );
}

type SideProps = { id: string; pane: Pane } & Pick<
  PanelProps,
  'className' | 'panelRef' | 'collapsedSize'
>;

/** A list, the work, what goes with it, and the ledger under them, with borders that can be dragged. */
export function PlacePanes({
  place,
  list = null,
  plan = null,
  work,
  side,
  kept,
  ledger,
}: PlacePanesProps) {
  const foot: Pane = { name: 'the ledger', content: ledger, size: '34%', least: '100px' };
  const listPanel = usePanelRef();
  const planPanel = usePanelRef();
  const sidePanel = usePanelRef();
  const footPanel = usePanelRef();
  const groups = { rows: useGroupRef(), columns: useGroupRef(), work: useGroupRef() };
  const whole = useRef<HTMLDivElement>(null);
  const usualSizes = useRef(() => {});
  usualSizes.current = () => {
    const { clientWidth = 0 } = whole.current ?? {};
    const ledgerShare = share(foot.size, 0);
    groups.rows.current?.setLayout({ upper: 100 - ledgerShare, ledger: ledgerShare });
    const listShare = list ? share(list.size, clientWidth) : 0;
    const sideShare = share(side.size, clientWidth);
    groups.columns.current?.setLayout({
      ...(list && { list: listShare }),
      work: 100 - listShare - sideShare,
      side: sideShare,
    });
    if (!plan) return;
    const planShare = share(plan.size, 0);
    groups.work.current?.setLayout({ plan: planShare, sheet: 100 - planShare });
  };
  const planName = plan?.name;
  const listName = list?.name;
  useCommands(
    useMemo<Command[]>(
      () => [
        ...(listName === undefined ? [] : [foldCommand('list', 'Alt+1', listName, listPanel)]),
        ...(planName === undefined ? [] : [foldCommand('plan', 'Alt+2', planName, planPanel)]),
        foldCommand('side', 'Alt+3', side.name, sidePanel),
        foldCommand('ledger', 'Alt+4', foot.name, footPanel),
        {
          id: 'usual-sizes',
          name: 'Give all parts of the page their usual sizes',
          run: () => usualSizes.current(),
        },
      ],
      [listName, planName, side.name, foot.name, listPanel, planPanel, sidePanel, footPanel],
    ),
    'everywhere',
  );
  return (
    <Whole ref={whole}>
      <Group
        orientation="vertical"
        resizeTargetMinimumSize={GRIP}
        groupRef={groups.rows}
        {...useKeptSizes(`${place}, rows`, ['upper', 'ledger'])}
      >
        <Panel id="upper" className="pane" minSize="160px">
          <main>
            <Group
              resizeTargetMinimumSize={GRIP}
              groupRef={groups.columns}
              {...useKeptSizes(
                `${place}, columns`,
                list ? ['list', 'work', 'side'] : ['work', 'side'],
              )}
            >
              {list && <Side id="list" pane={list} panelRef={listPanel} />}
              {list && <PaneBorder of={list.name} panel={listPanel} />}
              <Panel id="work" className="pane" minSize="260px">
                <Group
                  orientation="vertical"
                  resizeTargetMinimumSize={GRIP}
                  groupRef={groups.work}
                  {...useKeptSizes(`${place}, work`, plan ? ['plan', 'sheet'] : ['sheet'])}
                >
                  {plan && (
                    <Side id="plan" className="pane plan" pane={plan} panelRef={planPanel} />
                  )}
                  {plan && <PaneBorder of={plan.name} panel={planPanel} />}
                  <Panel
                    id="sheet"
                    className={kept === 'work' ? 'pane kept' : 'pane'}
                    minSize="100px"
                  >
                    {work}
                  </Panel>
                </Group>
              </Panel>
              <PaneBorder of={side.name} panel={sidePanel} />
              <Side
                id="side"
                className={kept === 'side' ? 'pane kept' : 'pane'}
                pane={side}
                panelRef={sidePanel}
              />
            </Group>
          </main>
        </Panel>
        <PaneBorder of={foot.name} panel={footPanel} />
        <Side id="ledger" pane={foot} panelRef={footPanel} collapsedSize={FOLDED_LEDGER} />
      </Group>
    </Whole>
  );
}
