import {
  archetypeOf,
  namesOf,
  type ArchetypeDocument,
  freshIn,
  WATCHFUL_SIGHT,
} from '@crooked-lantern/core';
import type { ReactNode } from 'react';
import { compareNames } from '../ui/words/compare-names.ts';
import { useTokens } from '../theme/use-tokens.ts';
import { ListGroup, ListName } from '../ui/overlays/list-group.tsx';
import { ListColumn, ListItem } from '../ui/place.ts';
import { factionNames, factionTint, hostileFaction } from './factions.ts';
import { AgentGlyph, ArchetypeGlyph } from './glyphs.tsx';
import { overridden } from './kind-values.ts';
import type { CastEditor, CastSelection } from './use-cast.ts';

/** It sees, and its steps are heard: what is new can be met at once. */
const NEW_ARCHETYPE: Omit<ArchetypeDocument, 'faction'> = {
  title: 'Newcomer',
  body: { radius: 0.3, acceleration: 12, turnRate: 360 },
  gaits: { run: { speed: 3.5, noise: 9 }, walk: { speed: 1.5, noise: 4 } },
  gait: 'walk',
  sight: WATCHFUL_SIGHT,
};

/** Every agent and everything of the cast; archetypes as outlines, placed agents filled. */
export function CastList({ cast }: { cast: CastEditor }) {
  const { document, selection, select, change, agents } = cast;
  const { archetypes, squads = {}, setups = {}, players = {} } = document;
  const tokens = useTokens();
  const tint = (faction: string) => factionTint(document, faction, tokens.factions);
  const item = (part: CastSelection['part'], name: string, shown: ReactNode, aside?: ReactNode) => (
    <ListItem
      key={name}
      type="button"
      aria-current={selection.part === part && selection.name === name}
      onClick={() => select(part, name)}
    >
      <ListName>{shown}</ListName> {aside !== undefined && <small>{aside}</small>}
    </ListItem>
  );
  return (
    <ListColumn aria-label="Cast">
      <ListGroup
        title="Archetypes"
        add={{
          what: 'an archetype',
          run: () => {
            const name = freshIn(archetypes, 'newcomer');
            const faction = hostileFaction(document);
            const value = { ...NEW_ARCHETYPE, faction };
            if (change({ command: 'setInCast', part: 'archetypes', name, value }))
              select('archetypes', name);
          },
        }}
      >
        {namesOf(archetypes).map((name) =>
          item(
            'archetypes',
            name,
            <>
              <ArchetypeGlyph tint={tint(archetypes[name].faction)} /> {archetypes[name].title}
            </>,
            `${Object.values(agents).filter(({ archetype }) => archetype === name).length} placed`,
          ),
        )}
      </ListGroup>
      <ListGroup title="Placed agents">
        {namesOf(agents)
          .toSorted(compareNames)
          .map((name) => {
            const kind = archetypeOf(document, agents[name]);
            const own = overridden(agents[name].overrides).length;
            return item(
              'agents',
              name,
              <>
                <AgentGlyph tint={tint(kind?.faction ?? '')} /> {agents[name].title ?? name}
              </>,
              own > 0 ? `${own} own` : archetypes[agents[name].archetype]?.title,
            );
          })}
      </ListGroup>
      <ListGroup
        title="Squads"
        add={{
          what: 'a squad',
          run: () => {
            const name = freshIn(squads, 'squad');
            const value = { title: 'New squad' };
            if (change({ command: 'setInCast', part: 'squads', name, value }))
              select('squads', name);
          },
        }}
      >
        {namesOf(squads).map((name) => item('squads', name, squads[name].title))}
      </ListGroup>
      <ListGroup title="Factions">
        <ListItem
          type="button"
          aria-current={selection.part === 'factions'}
          onClick={() => select('factions')}
        >
          Stances <small>{factionNames(document).length}</small>
        </ListItem>
      </ListGroup>
      <ListGroup
        title="Set-ups"
        add={{
          what: 'a set-up',
          run: () => {
            const name = freshIn(setups, 'setup');
            const value = { title: 'New set-up' };
            if (change({ command: 'setInCast', part: 'setups', name, value }))
              select('setups', name);
          },
        }}
      >
        {namesOf(setups).map((name, i) =>
          item('setups', name, setups[name].title, i < 9 ? `Shift+${i + 1}` : undefined),
        )}
      </ListGroup>
      <ListGroup title="Scripted players">
        {namesOf(players).map((name) => item('players', name, players[name].title))}
        {namesOf(players).length === 0 && (
          <p style={{ padding: '2px 8px', color: 'var(--mute)' }}>
            None yet. Play, then save the input from the command list (Ctrl+K).
          </p>
        )}
      </ListGroup>
    </ListColumn>
  );
}
