import styled from 'styled-components';
import { Jump } from '../../ui/button.tsx';
import { wholeReason, titleOf, type ListedState } from '../document-names.ts';
import { LiveGuard } from '../live/live-guard.tsx';
import { signsOf } from '../plan/signs.ts';

const Around = styled.div`
  padding: 6px 0 0;
  color: var(--mute);
  li {
    display: grid;
    grid-template-columns: 14px minmax(0, 1fr) 140px;
    gap: 8px;
    padding: 1px 4px;
  }
`;

/** The ways out of the rooms around a state, the nearest first: by them it is left too. */
export function WaysAround({
  of,
  agent,
  states,
  onSelect,
}: {
  of: ListedState;
  agent: string | null;
  states: readonly ListedState[];
  onSelect: (state: string) => void;
}) {
  const title = (id: string | undefined) => {
    const found = states.find(({ state }) => state.id === id);
    return found ? titleOf(found.state) : (id ?? 'stays');
  };
  return of.around.toReversed().map((id) => {
    const room = states.find(({ state }) => state.id === id)?.state;
    if (!room?.transitions) return null;
    return (
      <Around key={id}>
        In{' '}
        <Jump type="button" onClick={() => onSelect(id)}>
          {titleOf(room)}
        </Jump>{' '}
        it also leaves when:
        <ol aria-label={`Transitions of ${titleOf(room)}`}>
          {room.transitions.map((leave, i) => (
            <li key={i}>
              <span>
                {i + 1}
                {signsOf(leave)}
              </span>
              <span>
                {wholeReason(leave)} → {title(leave.to)}
              </span>
              <LiveGuard
                agent={agent}
                state={id}
                order={i + 1}
                read={({ around }) => {
                  const outer = around.find((each) => each.id === id);
                  return { leave: outer?.transitions[i], active: true };
                }}
              />
            </li>
          ))}
        </ol>
      </Around>
    );
  });
}
