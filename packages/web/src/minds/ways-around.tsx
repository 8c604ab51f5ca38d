import styled from 'styled-components';
import { Jump } from '../ui/button.tsx';
import { shortReason, titleOf, type ListedState } from './document-names.ts';

const Around = styled.p`
  padding: 6px 0 0;
  color: var(--mute);
`;

/** The ways out of the rooms around a state, the nearest first: by them it is left too. */
export function WaysAround({
  of,
  states,
  onSelect,
}: {
  of: ListedState;
  states: readonly ListedState[];
  onSelect: (state: string) => void;
}) {
  const title = (id: string | undefined) => {
    const found = states.find(({ state }) => state.id === id);
    return found ? titleOf(found.state) : (id ?? 'stays');
  };
  return of.around.toReversed().map((id) => {
    const room = states.find(({ state }) => state.id === id)?.state;
    if (!room?.leaves) return null;
    return (
      <Around key={id}>
        In{' '}
        <Jump type="button" onClick={() => onSelect(id)}>
          {titleOf(room)}
        </Jump>{' '}
        it also leaves when:{' '}
        {room.leaves
          .map(
            (leave) =>
              `${shortReason(leave)} → ${title(leave.to)}${leave.urgent ? ' (urgent)' : ''}`,
          )
          .join(' · ')}
      </Around>
    );
  });
}
