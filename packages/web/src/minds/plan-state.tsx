import type { PlacedState } from './plan-layout.ts';

interface StateProps {
  placed: PlacedState;
  lit: boolean;
  lately: boolean;
  chosen: boolean;
  share: number | undefined;
  /** For a closed room: title of what is active inside, or how much there is. */
  inside: string | null;
  onChoose: () => void;
}

/** One state as the plan draws it; its classes are styled by the plan. */
export function PlanState({ placed, lit, lately, chosen, share, inside, onChoose }: StateProps) {
  const { x, y, width, height, kind, title } = placed;
  const room = kind === 'room';
  const tone = `${lit ? ' lit' : ''}${lately && !lit ? ' lately' : ''}${chosen ? ' chosen' : ''}`;
  const radius = room ? 12 : kind === 'leaf' || kind === 'closed' ? 8 : height / 2;
  return (
    <g
      className="state"
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${room ? 'Room' : 'State'} ${title}${lit ? ', active' : ''}${share ? `, ${Math.round(share * 100)} % of the time` : ''}`}
      data-state={placed.id}
      data-active={lit}
      onClick={(event) => {
        event.stopPropagation();
        onChoose();
      }}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        event.stopPropagation();
        onChoose();
      }}
    >
      <rect
        className={`${room ? 'room' : 'leaf'}${placed.parallel ? ' parallel' : ''}${tone}`}
        x={x}
        y={y}
        width={width}
        height={height}
        rx={radius}
      />
      {room ? (
        <text className={`title-room${lit ? ' lit' : ''}`} x={x + 14} y={y + 19}>
          {title}
        </text>
      ) : (
        <text
          className={`title-leaf${lit ? ' lit' : ''}`}
          x={x + width / 2}
          y={y + height / 2 + (inside === null ? 4.5 : 1)}
          textAnchor="middle"
        >
          {title}
        </text>
      )}
      {inside !== null && (
        <text className="share" x={x + width / 2} y={y + height - 7} textAnchor="middle">
          {inside}
        </text>
      )}
      {!room && share !== undefined && share >= 0.005 && (
        <text className="share" x={x + width - 5} y={y + 11} textAnchor="end">
          {Math.round(share * 100)}%
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
