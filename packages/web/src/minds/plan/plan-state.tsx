import type { PointerEvent } from 'react';
import type { PlacedState } from './plan-layout.ts';
import { SIGNS } from './signs.ts';

interface StateProps {
  placed: PlacedState;
  lit: boolean;
  lately: boolean;
  chosen: boolean;
  share: number | undefined;
  /** No agent has ever been in it, and that is to be shown. */
  never: boolean;
  /** For a closed room: title of what is active inside, or how much there is. */
  inside: string | null;
  /** That what it does has ended, or failed; null where it goes on. */
  ended: string | null;
  /** Id of what tells more about it. */
  describedBy: string | undefined;
  onChoose: () => void;
  onFold: () => void;
  onDrag: (event: PointerEvent<SVGElement>) => void;
}

const SHAPES: Record<PlacedState['kind'], string> = {
  leaf: 'State',
  room: 'Room',
  closed: 'Folded room',
  final: 'Final state',
  history: 'History',
  deepHistory: 'Deep history',
};

/** One state as the plan draws it; its classes are styled by the plan. Its keys are the plan's. */
export function PlanState({
  placed,
  lit,
  lately,
  chosen,
  share,
  never,
  inside,
  ended,
  describedBy,
  onChoose,
  onFold,
  onDrag,
}: StateProps) {
  const { x, y, width, height, kind, title, parallel, stays } = placed;
  const room = kind === 'room';
  const tone = `${lit ? ' lit' : ''}${lately && !lit ? ' lately' : ''}${chosen ? ' chosen' : ''}${never ? ' never' : ''}`;
  const radius = room ? 12 : kind === 'leaf' || kind === 'closed' ? 8 : height / 2;
  const percent = share === undefined ? 0 : Math.round(share * 100);
  const before = kind === 'history' || kind === 'deepHistory' ? `${SIGNS[kind]} ` : '';
  const below = inside ?? ended;
  const shown = `${before}${parallel ? `${SIGNS.parallel} ` : ''}${title}`;
  return (
    <g
      className="state"
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${SHAPES[kind]} ${title}${parallel ? ', parallel' : ''}${lit ? ', active' : ''}${ended === null ? '' : `, its activity ${ended === 'ended' ? 'has ended' : 'has failed'}`}${percent > 0 ? `, ${percent} % of the time` : ''}${never ? ', never entered' : ''}`}
      aria-describedby={describedBy}
      data-state={placed.id}
      data-active={lit}
      onPointerDown={onDrag}
      onClick={(event) => {
        event.stopPropagation();
        onChoose();
      }}
      onDoubleClick={(event) => {
        event.stopPropagation();
        if (room || kind === 'closed') onFold();
      }}
    >
      <rect
        className={`${room ? 'room' : 'leaf'}${parallel ? ' parallel' : ''}${tone}`}
        x={x}
        y={y}
        width={width}
        height={height}
        rx={radius}
      />
      {kind === 'final' && (
        <rect
          className="ring"
          x={x + 3.5}
          y={y + 3.5}
          width={width - 7}
          height={height - 7}
          rx={radius - 3.5}
        />
      )}
      {room ? (
        <text className={`title-room${lit ? ' lit' : ''}`} x={x + 14} y={y + 19}>
          {shown}
        </text>
      ) : (
        <text
          className={`title-leaf${lit ? ' lit' : ''}`}
          x={x + width / 2}
          // What stands in the lower corners must not cover the name.
          y={y + height / 2 + (below === null && percent === 0 && stays === 0 && !never ? 4.5 : -1)}
          textAnchor="middle"
        >
          {shown}
        </text>
      )}
      {below !== null && !(room && inside === null) && (
        <text className="share" x={x + 6} y={y + height - 5}>
          {below}
        </text>
      )}
      {!room && stays > 0 && below === null && (
        <text className="share" x={x + 6} y={y + height - 5}>
          {SIGNS.internal}
          {stays}
        </text>
      )}
      {!room && never && (
        <text className="share" x={x + width - 6} y={y + height - 5} textAnchor="end">
          never
        </text>
      )}
      {!room && percent > 0 && !never && (
        <text className="share" x={x + width - 6} y={y + height - 5} textAnchor="end">
          {percent}%
        </text>
      )}
      <rect
        className="focus"
        x={x - 3}
        y={y - 3}
        width={width + 6}
        height={height + 6}
        rx={radius + 3}
      />
    </g>
  );
}

/** Share of the time spent in it, or in what is inside it. */
export function shareOf(
  placed: PlacedState,
  shares: ReadonlyMap<string, number>,
): number | undefined {
  if (placed.kind !== 'closed') return shares.get(placed.id);
  const sum = placed.inside.reduce((total, id) => total + (shares.get(id) ?? 0), 0);
  return sum > 0 ? sum : undefined;
}

/** What a closed room says it holds: the state active inside, else how many there are. */
export function insideOf(
  placed: PlacedState,
  active: ReadonlySet<string>,
  titles: ReadonlyMap<string, string>,
): string | null {
  if (placed.kind !== 'closed') return null;
  const now = placed.inside.findLast((id) => active.has(id));
  return now === undefined ? `${placed.inside.length} inside` : (titles.get(now) ?? now);
}
