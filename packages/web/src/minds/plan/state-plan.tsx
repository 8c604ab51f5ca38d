import { clipText, findState, parentOf, type ProjectDocument } from '@crooked-lantern/core';
import { CircleHelp, FoldVertical, Minus, Plus, Scan, UnfoldVertical } from 'lucide-react';
import {
  useCallback,
  useEffect,
  useId,
  useMemo,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
} from 'react';
import { useNever } from '../../engine/use-coverage.ts';
import { useProject } from '../../state/store.ts';
import { useEdit } from '../../state/use-edit.ts';
import { QuietButton } from '../../ui/button.tsx';
import { CoverageToggle } from '../../shell/coverage-toggle.tsx';
import { Dialog } from '../../ui/overlays/dialog.tsx';
import { whenFree } from '../../ui/timing/when-free.ts';
import { commandPressed, keyShown, pressed } from '../../ui/timing/pressed-key.ts';
import { listStates, titleOf, wholeReason } from '../document-names.ts';
import { STATE_COMMANDS } from '../states/state-keys.ts';
import { usePasteHere } from '../use-paste.tsx';
import type { Selection } from '../use-selection.ts';
import type { StateWork } from '../states/use-state-work.tsx';
import { nearestState, type Direction } from './nearest-state.ts';
import { LABEL_LINE, type PlacedState } from './plan-layout.ts';
import { Line } from './plan-line.tsx';
import { insideOf, PlanState, shareOf } from './plan-state.tsx';
import { Corner, Frame, PlanTrouble, Scroll, Svg, Waiting } from './plan-style.ts';
import { Legend } from '../../ui/legend.ts';
import { SIGN_WORDS, signsOf } from './signs.ts';
import { SmallMap } from './small-map.tsx';
import { Leaving } from './leaving.tsx';
import { useLivePlan } from './use-live-plan.ts';
import { usePlanLayout } from './use-plan-layout.ts';
import { useRoom } from './use-room.ts';
import { useStateDrag } from './use-state-drag.ts';
import { useZoom } from './use-zoom.ts';

/** Pixels around what is brought into sight. */
const ROUND_ABOUT = 20;
/** Pixels that a scrollbar below the plan takes, at most. */
const SCROLLBAR = 18;

/** Scrolls the box, and nothing around it, by as little as it takes. */
function bringIntoSight(box: Element, drawn: Element): void {
  const [frame, at] = [box.getBoundingClientRect(), drawn.getBoundingClientRect()];
  const by = (from: number, to: number, start: number, end: number) => {
    if (from - ROUND_ABOUT < start) return from - ROUND_ABOUT - start;
    return Math.max(0, to + ROUND_ABOUT - end);
  };
  box.scrollLeft += by(at.left, at.right, frame.left, frame.right);
  box.scrollTop += by(at.top, at.bottom, frame.top, frame.bottom);
}

function focusedState(target: EventTarget): string | undefined {
  return (target as Element).closest('[data-state]')?.getAttribute('data-state') ?? undefined;
}

/** What a state's keys do besides those of the commands. */
const PLAN_KEYS: [string, string][] = [
  ['Arrows', 'to the nearest state'],
  ['1 to 9', 'along the transition of that number'],
  ['Enter', 'choose, and edit it below'],
  ['Space', 'fold or unfold a room'],
  ['Z', 'fold or unfold all rooms'],
  ['+ and −', 'larger and smaller'],
  ['0', 'fitted'],
];

function PlanLegend({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Signs and keys of the plan" isOpen onClose={onClose}>
      <Legend>
        {[
          ...SIGN_WORDS,
          ...PLAN_KEYS,
          ...Object.values(STATE_COMMANDS).map(({ name, keys }) => [keyShown(keys[0]), name]),
        ].map(([sign, words]) => [
          <dt key={`${sign} ${words}`}>{sign}</dt>,
          <dd key={words}>{words}</dd>,
        ])}
      </Legend>
    </Dialog>
  );
}

/** What the plan says of states besides their places: titles by id, ids of rooms, and by line what each is taken for. */
function readStates(document: ProjectDocument, mind: string) {
  const states = listStates(document, mind).map(({ state }) => state);
  return {
    titles: new Map(states.map((state) => [state.id, titleOf(state)])),
    rooms: states.filter((state) => state.states?.length).map(({ id }) => id),
    reasons: new Map(
      states.flatMap(({ id, transitions = [] }) =>
        transitions.map((leave, i): [string, string] => [
          `${id} ${i + 1}`,
          `${i + 1}${signsOf(leave)} ${wholeReason(leave)}`,
        ]),
      ),
    ),
  };
}

/** The state machine, laid out by itself; what is lit is running in the chosen agent. */
export function StatePlan({
  selection,
  shown,
  onSelect,
  work,
  startsFocused,
}: {
  selection: Selection;
  shown: string | null;
  onSelect: (state: string) => void;
  work: StateWork;
  /** The chosen state takes the focus, unless something else has it. */
  startsFocused: boolean;
}) {
  const { mind } = selection;
  const [box, setBox] = useState<HTMLElement | null>(null);
  const room = useRoom(box);
  const [folds, setFolds] = useState<ReadonlyMap<string, boolean>>(new Map());
  const [legend, setLegend] = useState(false);
  /** The state that is pointed at or has the focus. */
  const [met, setMet] = useState<string | null>(null);
  const leavingId = useId();
  const { layout, isBusy } = usePlanLayout(mind, selection.state, room, folds);
  const live = useLivePlan(selection.agent);
  const isNever = useNever(mind);
  const { scale, zoom, zoomBy, fit, pan } = useZoom(box, room, layout);
  const document = useProject((project) => project.document);
  const { run, trouble } = useEdit();
  const paste = usePasteHere();
  const machine = document.minds[mind]?.machine;
  const { titles, rooms, reasons } = useMemo(() => readStates(document, mind), [document, mind]);
  const states = layout?.states ?? [];
  const drawnOf = useCallback(
    (id: string) => box?.querySelector<SVGElement>(`[data-state="${id}"]`) ?? null,
    [box],
  );

  // What is chosen, else what is active, comes into sight, wherever on the plan it lies.
  useEffect(() => {
    if (!box || !layout || shown === null) return;
    const placed =
      layout.states.find(({ id }) => id === shown) ??
      layout.states.findLast(({ inside }) => inside.includes(shown));
    const drawn = placed && drawnOf(placed.id);
    if (drawn) bringIntoSight(box, drawn);
  }, [box, room, layout, shown, drawnOf]);
  // The focus stays on what was made or moved, as soon as it is drawn.
  const { giveFocus } = work;
  useEffect(() => giveFocus(drawnOf));

  // A user who comes back to the states goes on where they left off.
  const [first] = useState(startsFocused ? selection.state : null);
  const isLaidOut = layout !== null;
  useEffect(() => {
    if (!isLaidOut || first === null) return;
    whenFree(() => {
      if (window.document.activeElement === window.document.body) drawnOf(first)?.focus();
    });
  }, [isLaidOut, first, drawnOf]);

  const fold = ({ id, kind }: PlacedState) =>
    setFolds((before) => new Map(before).set(id, kind === 'room'));
  const isAnyOpen = states.some(({ kind }) => kind === 'room');
  const foldAll = () => setFolds(new Map(rooms.map((id) => [id, isAnyOpen])));
  const { target, begin } = useStateDrag((state, onto) => {
    if (!machine) return;
    const found = onto === null ? undefined : findState(machine.states, onto);
    // Onto a room: into it. Onto a state: beside it. Onto nothing: out of all.
    const parent = found?.states ? found : found && parentOf(machine.states, found.id);
    const among = parent?.states ?? (parent ? [] : machine.states);
    const others = among.filter(({ id }) => id !== state);
    const beside = found?.states ? -1 : others.findIndex(({ id }) => id === onto);
    const at = beside < 0 ? others.length : beside + 1;
    run({ command: 'moveState', mind, state, parent: parent?.id ?? null, at });
    onSelect(state);
  });

  /** Where the way out of a number leads, as far as it is on the plan. */
  const along = (from: string, number: number): string | undefined => {
    const to = machine && findState(machine.states, from)?.transitions?.[number - 1]?.to;
    return (
      to &&
      (states.find(({ id }) => id === to) ?? states.find(({ inside }) => inside.includes(to)))?.id
    );
  };

  /** Puts the state that has the focus on the clipboard, with all inside, and gives its id. */
  const copy = (event: ClipboardEvent): string | undefined => {
    const id = focusedState(event.target);
    const found = id === undefined || !machine ? undefined : findState(machine.states, id);
    if (!found) return undefined;
    event.preventDefault();
    event.clipboardData.setData('text/plain', clipText(document, mind, { states: [found] }));
    return id;
  };

  const onKeyDown = (event: KeyboardEvent<HTMLElement>) => {
    const press = pressed(event);
    const views: Record<string, () => void> = {
      '+': () => zoomBy(1),
      '=': () => zoomBy(1),
      '-': () => zoomBy(-1),
      '0': fit,
      z: foldAll,
    };
    const id = focusedState(event.target);
    const placed = states.find((state) => state.id === id);
    const go = (to: string | undefined) => to !== undefined && drawnOf(to)?.focus();
    const work_ = (): (() => unknown) | undefined => {
      if (views[press]) return views[press];
      if (!placed) return undefined;
      if (press.startsWith('Arrow'))
        return () => go(nearestState(states, placed, press as Direction)?.id);
      if (/^[1-9]$/.test(press)) return () => go(along(placed.id, Number(press)));
      if (press === 'Enter') return () => onSelect(placed.id);
      if (press === ' ')
        return () =>
          placed.kind === 'room' || placed.kind === 'closed' ? fold(placed) : onSelect(placed.id);
      const command = commandPressed(STATE_COMMANDS, event);
      return command ? () => work.act(command, placed.id, drawnOf(placed.id)) : undefined;
    };
    const done = work_();
    if (!done) return;
    event.preventDefault();
    done();
  };

  const metState = met !== null && machine ? findState(machine.states, met) : undefined;
  const isWide = layout !== null && layout.width * scale > room.width;
  const inner = layout && {
    width: Math.max(room.width - 1, layout.width * scale),
    height: Math.max(room.height - (isWide ? SCROLLBAR : 4), layout.height * scale),
  };
  // In the middle of the box, where it has room to spare.
  const seen = inner && [
    (layout.width - inner.width / scale) / 2,
    (layout.height - inner.height / scale) / 2,
    inner.width / scale,
    inner.height / scale,
  ];
  return (
    <Frame
      aria-label="State plan"
      aria-busy={isBusy}
      onKeyDown={onKeyDown}
      onFocus={({ target: focused }) => setMet(focusedState(focused) ?? null)}
      onBlur={() => setMet(null)}
      onPointerOver={({ target: under }) => setMet(focusedState(under) ?? null)}
      onPointerLeave={() => setMet(focusedState(window.document.activeElement!) ?? null)}
      onCopy={(event) => copy(event)}
      onCut={(event) => {
        const id = copy(event);
        if (id !== undefined) work.act('remove', id);
      }}
      onPaste={(event) => {
        const id = focusedState(event.target);
        const text = event.clipboardData.getData('text/plain');
        if (paste(text, id === undefined ? null : { state: id })) event.preventDefault();
      }}
    >
      <Scroll ref={setBox} onPointerDown={pan}>
        {layout === null && <Waiting role="status">Laying out the states …</Waiting>}
        {layout && seen && (
          <Svg width={inner.width} height={inner.height} viewBox={seen.join(' ')}>
            {states.map((placed) => (
              <g key={placed.id} className={target === placed.id ? 'state target' : undefined}>
                <PlanState
                  placed={placed}
                  lit={live.active.has(placed.id)}
                  lately={live.lately.has(placed.id)}
                  chosen={shown === placed.id && selection.state !== null}
                  share={shareOf(placed, live.shares)}
                  never={isNever('state', placed.id)}
                  inside={insideOf(placed, live.active, titles)}
                  ended={live.ended.get(placed.id) ?? null}
                  describedBy={met === placed.id ? leavingId : undefined}
                  onChoose={() => onSelect(placed.id)}
                  onFold={() => fold(placed)}
                  onDrag={(event) => begin(placed.id, event)}
                />
              </g>
            ))}
            <g pointerEvents="none">
              {layout.lines.map((line) => (
                <Line
                  key={`${line.from} ${line.order}`}
                  line={line}
                  taken={live.taken === `${line.from} ${line.order}`}
                  never={isNever('transition', `${line.from} ${line.order}`)}
                />
              ))}
              {layout.lines.map(
                (line) =>
                  line.label && (
                    <text
                      key={`${line.from} ${line.order}`}
                      className={`label${live.taken === `${line.from} ${line.order}` ? ' taken' : ''}`}
                      x={line.label.x}
                      y={line.label.y + 10}
                    >
                      <title>{reasons.get(`${line.from} ${line.order}`)}</title>
                      {line.label.lines.map((words, i) => (
                        <tspan key={words} x={line.label!.x} dy={i === 0 ? 0 : LABEL_LINE}>
                          {words}
                        </tspan>
                      ))}
                    </text>
                  ),
              )}
            </g>
          </Svg>
        )}
      </Scroll>
      {box && layout && <SmallMap box={box} layout={layout} active={live.active} scale={scale} />}
      <Corner role="group" aria-label="View of the plan">
        <QuietButton aria-label="Smaller (−)" onPress={() => zoomBy(-1)}>
          <Minus size={13} />
        </QuietButton>
        <QuietButton aria-label="Fitted (0)" isDisabled={zoom === 1} onPress={fit}>
          <Scan size={13} />
        </QuietButton>
        <QuietButton aria-label="Larger (+)" onPress={() => zoomBy(1)}>
          <Plus size={13} />
        </QuietButton>
        {rooms.length > 0 && (
          <QuietButton
            aria-label={isAnyOpen ? 'Fold all rooms (Z)' : 'Unfold all rooms (Z)'}
            onPress={foldAll}
          >
            {isAnyOpen ? <FoldVertical size={13} /> : <UnfoldVertical size={13} />}
          </QuietButton>
        )}
        <CoverageToggle />
        <QuietButton aria-label="Signs and keys of the plan" onPress={() => setLegend(true)}>
          <CircleHelp size={13} />
        </QuietButton>
      </Corner>
      {metState && <Leaving id={leavingId} state={metState} titles={titles} />}
      {(trouble ?? work.trouble) && (
        <PlanTrouble role="alert">{trouble ?? work.trouble}</PlanTrouble>
      )}
      {legend && <PlanLegend onClose={() => setLegend(false)} />}
    </Frame>
  );
}
