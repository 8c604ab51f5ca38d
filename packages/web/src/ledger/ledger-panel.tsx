import {
  memo,
  useEffect,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
  type MouseEvent,
  type PointerEvent,
} from 'react';
import { ChevronRight } from 'lucide-react';
import { goesOnAt } from '../engine/lane-times.ts';
import type { Band } from '../engine/lanes.ts';
import { useDrawing, useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useTokens } from '../theme/use-tokens.ts';
import { QuietButton } from '../ui/button.tsx';
import { sharpCanvas } from '../ui/canvas.ts';
import { Menu } from '../ui/overlays/menu.tsx';
import { useHeight } from '../ui/timing/use-height.ts';
import { clockText } from '../ui/words/time.ts';
import { useCommands } from '../shell/commands.tsx';
import { useAsk } from '../shell/use-ask.ts';
import { askingAbout } from './asking-about.ts';
import { useProject } from '../state/store.ts';
import { drawLanes, laneHeight, markTicks, RULER, stripAt } from './draw-lanes.ts';
import { sleepOf } from './draw-bands.ts';
import { tickAt, windowFor, xOf, type Window } from './time-window.ts';
import { foldedLanes, laneRows, sleepersOf, type LaneRow } from './lane-titles.ts';
import { LanesLegend } from './lanes-legend.tsx';
import { useLedgerSearch } from './find-in-ledger.tsx';
import { Body, Foot, Names, Panel, Readout, Track } from './ledger-style.ts';
import { entryTitles } from '../engine/entry-titles.ts';
import { dotOf } from './mark-words.ts';
import { SHORTEST_RUN_SECONDS, spanOf, SPANS, ZOOM } from './spans.ts';
import { nestingsOf } from './stacked-bands.ts';
import { useLaneTitles } from './use-doing.ts';
import { useLaneChoice } from './use-lane-choice.tsx';
import { decisionTicks, nextMoment } from './moments.ts';
import { ticksOfKey } from './playhead-keys.ts';
import { Playhead } from './playhead.tsx';
import { Transport } from './transport.tsx';

/** The ledger under every place: transport, one lane an agent, and a playhead to drag. */
export const LedgerPanel = memo(function LedgerPanel({
  agent,
  onSelectAgent,
}: {
  agent: string | null;
  onSelectAgent: (agent: string) => void;
}) {
  const engine = useEngine();
  const program = useEngineValue((client) => client.program);
  const [span, setSpan] = useState(SPANS[1]);
  const [hover, setHover] = useState<{ x: number; text: string } | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const window = useRef<Window>({ from: 0, to: 1, width: 1 });
  const dragging = useRef(false);
  const comers = useEngineValue(({ lanes }) => lanes.comers);
  const all = useMemo(() => laneRows(program, comers), [program, comers]);
  const { rows: agents, menu, unfold } = useLaneChoice(program, all, agent);
  const folded = useMemo(() => foldedLanes(agents), [agents]);
  const titles = useLaneTitles(program);
  const called = useProject(({ document }) => entryTitles(document));
  const nestings = useMemo(() => nestingsOf(program), [program]);
  const sleepers = useMemo(() => sleepersOf(program), [program]);
  const around = Math.max(0, ...agents.map(({ name }) => nestings.get(name)?.rows ?? 0));
  const further = around + useEngineValue(({ lanes }) => lanes.furtherRows);
  const tokens = useTokens();
  const search = useLedgerSearch();
  const ask = useAsk();
  const zoom = (factor: number) => {
    const second = program?.ticksPerSecond ?? 60;
    const shown = (window.current.to - window.current.from) / second;
    setSpan(spanOf(shown * factor));
  };
  const watchedLane = useRef<HTMLButtonElement>(null);
  const body = useRef<HTMLDivElement>(null);
  const over = useRef<HTMLSpanElement>(null);
  const covered = useRef(0);
  const shownHeight = useHeight(body);
  const lane = laneHeight(shownHeight, agents.length, further);
  const height = RULER + agents.length * lane;
  // Asking the element in each frame would have the page laid out each time.
  const scrolled = useRef(0);
  // The followed agent is in sight, however many lanes there are; the page itself stays where it is.
  useEffect(() => {
    const [lane, frame] = [watchedLane.current, body.current];
    if (!lane || !frame) return;
    const top = lane.offsetTop - frame.offsetTop;
    const bottom = top + lane.offsetHeight;
    if (top - RULER < frame.scrollTop) frame.scrollTop = top - RULER;
    else if (bottom > frame.scrollTop + frame.clientHeight)
      frame.scrollTop = bottom - frame.clientHeight;
  }, [agent, agents]);

  const redraw = useDrawing(({ frame, lanes, program: running }) => {
    const surface = sharpCanvas(canvas.current);
    if (!surface || !frame || !running) return;
    const { context, width, height: full } = surface;
    // Under a drag the picture must hold still.
    if (!dragging.current)
      window.current = windowFor(
        frame,
        span.seconds * running.ticksPerSecond,
        SHORTEST_RUN_SECONDS * running.ticksPerSecond,
        width,
      );
    window.current.width = width;
    drawLanes(
      context,
      {
        lanes,
        frame,
        ticksPerSecond: running.ticksPerSecond,
        agents: agents.map(({ name }) => name),
        folded,
        titles,
        nestings,
        sleepers,
        tokens,
        covered: covered.current,
      },
      window.current,
      { top: scrolled.current, height: full, lane },
    );
    markTicks(context, search.ticks, window.current, tokens);
  });
  // What stands over the ruler is as wide as its words, which change with a render.
  useEffect(() => {
    covered.current = over.current?.offsetWidth ?? 0;
  });
  // React's own listeners for the wheel can't keep the browser from magnifying the whole page.
  const onZoom = useRef(zoom);
  onZoom.current = zoom;
  useEffect(() => {
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return;
      event.preventDefault();
      onZoom.current(event.deltaY > 0 ? ZOOM : 1 / ZOOM);
    };
    const { current } = canvas;
    current!.addEventListener('wheel', onWheel, { passive: false });
    return () => current!.removeEventListener('wheel', onWheel);
  }, []);
  const place = (event: MouseEvent) => {
    const box = canvas.current!.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };

  const seekTo = (event: PointerEvent) => {
    const { frame } = engine;
    if (frame)
      engine.seek(
        Math.max(
          frame.keptFrom,
          Math.min(frame.head, Math.round(tickAt(window.current, place(event).x))),
        ),
      );
  };

  /** The mark of a lane that stands within reach of a tick, the last of several. */
  const dotNear = (name: string, tick: number) =>
    engine.lanes.byAgent
      .get(name)
      ?.dots.filter(
        (dot) => Math.abs(xOf(window.current, dot.tick) - xOf(window.current, tick)) < 5,
      )
      .at(-1);

  /** Asks about a lane at a tick: about the mark there, else why the agent does what it does. */
  const askAt = (row: LaneRow, tick: number) => {
    const { frame } = engine;
    const isPlayed = program?.agents[program.play]?.name === row.name;
    // Without a mind nothing is decided.
    if (!frame || row.isOfGame || isPlayed || tick < 1 || tick > frame.head) return;
    const dot = dotNear(row.name, tick);
    engine.seek(dot?.tick ?? tick);
    const isAgent = (name: string) => program?.agents.some((each) => each.name === name) ?? false;
    ask({ agent: row.name, asking: askingAbout(dot?.entry, isAgent) });
  };

  /** What there is at a tick, in words: a mark within reach of it, else the state it is in. */
  const wordsAt = (row: { name: string; title: string }, tick: number): string => {
    const { lanes } = engine;
    const isNear = (other: { tick: number }) =>
      Math.abs(xOf(window.current, other.tick) - xOf(window.current, tick)) < 5;
    const of = lanes.byAgent.get(row.name);
    const dot = dotNear(row.name, tick);
    const edit = lanes.edits.filter(isNear).at(-1);
    const named = (name: string) => titles.get(row.name)?.get(name) ?? name;
    const at = (bands: readonly Band[] = []) => {
      const found = bands.find((band) => goesOnAt(band, tick));
      return found ? named(found.state) : null;
    };
    // Those around it come first, as one enters them.
    const active = (of?.stays ?? []).filter((stay) => goesOnAt(stay, tick));
    const states = active.map(({ state }) => named(state)).join(' › ');
    const isAsleep = sleepOf(of, sleepers.has(row.name)).some((sleep) => goesOnAt(sleep, tick));
    const here = states || at(of?.bands);
    const asleep = isAsleep ? 'asleep' : null;
    const none = here || asleep ? null : 'no state';
    const state = [here || null, asleep, none, at(of?.picks), at(of?.moves)]
      .filter((each) => each !== null)
      .join(' · ');
    const mark = edit && `edit ${edit.edit} comes into force`;
    const words = (dot && dotOf(dot.entry, tokens, called)?.words) ?? mark ?? state;
    return `${clockText(tick, program!.ticksPerSecond, 1)} ${row.title}: ${words}`;
  };

  /** The lane under the pointer, of a folded squad the member, and the tick; null where there is none. */
  const under = (event: MouseEvent) => {
    const { x, y } = place(event);
    const tick = Math.round(tickAt(window.current, x));
    const down = y - RULER + scrolled.current;
    const row = agents[Math.floor(down / lane)];
    if (!row || !engine.frame || y < RULER || tick < 0 || tick > engine.frame.head) return null;
    const { members } = row;
    const meant = members ? members[stripAt(down % lane, members.length, lane)] : row;
    return { x, tick, row: meant };
  };

  const readOut = (event: MouseEvent) => {
    const found = program && under(event);
    setHover(found ? { x: found.x, text: wordsAt(found.row, found.tick) } : null);
  };

  /** The row of the followed agent, else of the first there is. */
  const followedRow = () =>
    agents.find(({ name }) => name === agent) ?? agents.find((each) => !each.isOfGame);

  /** The same for the keyboard: what the followed agent has at the playhead. */
  const tellAt = (tick: number) => {
    const row = followedRow();
    if (row) setHover({ x: xOf(window.current, tick), text: wordsAt(row, tick) });
  };

  /** Ticks of the watched agent's marks, and of edits. */
  const marks = () => {
    const { lanes } = engine;
    const dots = (agent && lanes.byAgent.get(agent)?.dots) || [];
    return [...dots, ...lanes.edits].map(({ tick }) => tick);
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const { frame } = engine;
    if (!frame || !program) return;
    const jumps: Record<string, number | undefined> = {
      Home: frame.keptFrom,
      End: frame.head,
      ArrowUp: Math.max(frame.keptFrom, ...marks().filter((tick) => tick < frame.tick)),
      ArrowDown: Math.min(frame.head, ...marks().filter((tick) => tick > frame.tick)),
    };
    const asked = followedRow();
    if (event.key === 'Enter' && asked) {
      event.preventDefault();
      askAt(asked, frame.tick);
      return;
    }
    const step = ticksOfKey(event, program.ticksPerSecond);
    if (event.key === '+' || event.key === '-') {
      event.preventDefault();
      zoom(event.key === '+' ? 1 / ZOOM : ZOOM);
      return;
    }
    const to = step === undefined ? jumps[event.key] : frame.tick + step;
    if (to === undefined) return;
    event.preventDefault();
    // Steps add up, however fast they come.
    if (step === undefined) engine.seek(to);
    else engine.nudge(step);
    tellAt(Math.max(frame.keptFrom, Math.min(frame.head, to)));
  };

  useCommands(
    useMemo(
      () =>
        (['back', 'onward'] as const).flatMap((way) => {
          const keys = way === 'back' ? 'Comma' : 'Period';
          const words = way === 'back' ? 'Back to the decision before' : 'On to the next decision';
          const go = (of: string | null) => {
            const to = nextMoment(decisionTicks(engine.lanes, of), engine.frame?.tick ?? 0, way);
            if (to !== undefined) engine.seek(to);
          };
          return [
            {
              id: `decision-${way}`,
              name: `${words} of the followed agent`,
              keys: `Alt+${keys}`,
              run: () => go(agent),
            },
            {
              id: `decision-${way}-all`,
              name: `${words} of any agent`,
              keys: `Alt+Shift+${keys}`,
              run: () => go(null),
            },
          ];
        }),
      [engine, agent],
    ),
    'ledger',
  );

  return (
    <Panel aria-label="Ledger" data-commands="ledger">
      {search.dialog}
      <Transport />
      <Body
        ref={body}
        onScroll={(event) => {
          scrolled.current = event.currentTarget.scrollTop;
          redraw();
        }}
      >
        <Names style={{ '--lane': `${lane}px` } as CSSProperties}>
          {agents.map(({ name, title, isOfGame, members }) =>
            isOfGame ? (
              <span key={name}>{title}</span>
            ) : members ? (
              <button
                key={name}
                type="button"
                aria-expanded={false}
                aria-label={`Unfold ${title}`}
                onClick={() => unfold(name)}
              >
                <ChevronRight size={12} aria-hidden /> {title}
              </button>
            ) : (
              <button
                key={name}
                type="button"
                ref={name === agent ? watchedLane : undefined}
                aria-pressed={name === agent}
                onClick={() => onSelectAgent(name)}
              >
                {title}
              </button>
            ),
          )}
        </Names>
        <Track style={{ minHeight: height, '--shown': `${shownHeight}px` } as CSSProperties}>
          <Foot>
            <span ref={over}>
              {search.shown}
              {menu}
              <Menu
                label="Stretch of time shown"
                entries={SPANS.map((option) => ({
                  id: option.id,
                  text: option.name,
                  label: option.name,
                  onAction: () => setSpan(option),
                }))}
              >
                <QuietButton aria-label={`Shows the ${span.name}. Choose`}>{span.name}</QuietButton>
              </Menu>
              <LanesLegend />
            </span>
          </Foot>
          <Playhead
            onKeyDown={onKeyDown}
            onFocus={() => engine.frame && program && tellAt(engine.frame.tick)}
            onBlur={() => setHover(null)}
            words={hover?.text ?? null}
          >
            <canvas
              ref={canvas}
              aria-hidden
              data-testid="lanes"
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                dragging.current = true;
                setHover(null);
                seekTo(event);
              }}
              onPointerMove={(event) => (dragging.current ? seekTo(event) : readOut(event))}
              onPointerUp={() => {
                dragging.current = false;
              }}
              onPointerLeave={() => setHover(null)}
              onDoubleClick={(event) => {
                const found = under(event);
                if (found) askAt(found.row, found.tick);
              }}
            />
          </Playhead>
          {hover && (
            <Readout
              style={{
                top: scrolled.current + RULER + 2,
                left: Math.max(0, Math.min(hover.x + 10, window.current.width - 220)),
              }}
            >
              {hover.text}
            </Readout>
          )}
        </Track>
      </Body>
    </Panel>
  );
});
