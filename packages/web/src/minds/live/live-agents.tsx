import { Choice } from '../../ui/fields/fields.tsx';
import { ListGroup } from '../../ui/overlays/list-group.tsx';
import { ListItem } from '../../ui/place.ts';
import type { AgentWith } from '../use-selection.ts';

/** So many stand in a list; among more, such as a swarm, one is found by typing. */
const MOST_LISTED = 12;

/** The agents that have a mind, to choose the one it is shown live in. */
export function LiveAgents({
  agents,
  shown,
  onChoose,
}: {
  agents: readonly AgentWith[];
  /** By name. */
  shown: string | null;
  onChoose: (name: string) => void;
}) {
  if (agents.length === 0) return null;
  return (
    <ListGroup title="Shown live in">
      {agents.length > MOST_LISTED ? (
        <Choice
          label="Shown live in"
          value={shown ?? ''}
          options={agents.map(({ name, title }) => ({ id: name, title }))}
          onChoose={onChoose}
        />
      ) : (
        agents.map(({ name, title }) => (
          <ListItem
            key={name}
            type="button"
            aria-current={name === shown}
            onClick={() => onChoose(name)}
          >
            {title}
          </ListItem>
        ))
      )}
    </ListGroup>
  );
}
