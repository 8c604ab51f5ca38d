import { NavLink, useParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';

/** What the Watch place shows beside the ground. */
const WATCH_VIEWS = [
  { id: 'ask', title: 'Ask' },
  { id: 'follow', title: 'Follow' },
  { id: 'observations', title: 'Observations' },
  { id: 'coverage', title: 'Coverage' },
  { id: 'branches', title: 'Branches' },
] as const;

export type WatchView = (typeof WATCH_VIEWS)[number]['id'];

/** The address of a view, with what else the address says. */
export function watchPath(project: string, view: WatchView): string {
  return view === 'ask' ? `/projects/${project}/watch` : `/projects/${project}/watch/${view}`;
}

/** Which view the address asks for. */
export function useWatchView(): WatchView {
  const { view } = useParams();
  // Links of before called them findings.
  if (view === 'findings') return 'observations';
  return WATCH_VIEWS.find(({ id }) => id === view)?.id ?? 'ask';
}

const Links = styled.nav`
  display: flex;
  padding: 0 10px;
  border-bottom: 1px solid var(--line);
  background: var(--panel);
  a {
    padding: 5px 8px;
    border-bottom: 2px solid transparent;
    color: var(--mute);
    text-decoration: none;
    &:hover {
      color: var(--bone);
    }
    &[aria-current='page'] {
      border-color: var(--bone);
      color: var(--bone);
    }
    &:focus-visible {
      outline-offset: -2px;
    }
  }
`;

/** From one view to another: the followed agent stays. */
export function WatchViews({ agent }: { agent: string | null }) {
  const id = useProject((project) => project.id);
  return (
    <Links aria-label="What is watched">
      {WATCH_VIEWS.map(({ id: view, title }) => (
        <NavLink
          key={view}
          end
          to={{ pathname: watchPath(id, view), search: agent === null ? '' : `agent=${agent}` }}
        >
          {title}
        </NavLink>
      ))}
    </Links>
  );
}
