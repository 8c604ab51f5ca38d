import { Jump } from '../ui/button.tsx';
import type { CastEditor } from './use-cast.ts';

/** Agents by their titles, each leading to itself. */
export function AgentLinks({ cast, names }: { cast: CastEditor; names: readonly string[] }) {
  const { agents, select } = cast;
  return names.map((name, i) => (
    <span key={name}>
      {i > 0 && ', '}
      <Jump type="button" onClick={() => select('agents', name)}>
        {agents[name].title ?? name}
      </Jump>
    </span>
  ));
}
