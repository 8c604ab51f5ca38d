import { namesOf, STANCES, type Stance, freshName } from '@crooked-lantern/core';
import { Minus, Plus, ShieldAlert, Sprout, type LucideIcon } from 'lucide-react';
import styled from 'styled-components';
import { useTokens } from '../theme/use-tokens.ts';
import { Button, QuietButton, RemoveButton } from '../ui/button.tsx';
import { checkTitle } from '../ui/fields/fields.tsx';
import { PartName } from '../project/part-name.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { Menu } from '../ui/overlays/menu.tsx';
import { factionNames, factionTint, factionTitle, stanceOf } from './factions.ts';
import { FindingsHere } from './findings-here.tsx';
import { AgentGlyph } from './glyphs.tsx';
import { Buttons, FormColumn, Title, Trouble } from './layout.ts';
import type { CastEditor } from './use-cast.ts';

const Stances = styled.table`
  margin-top: 12px;
  border-collapse: collapse;
  th,
  td {
    padding: 5px 10px 5px 4px;
    border-bottom: 1px solid var(--line);
    text-align: left;
    font-weight: 400;
    white-space: nowrap;
  }
  thead th {
    color: var(--mute);
  }
  td small {
    display: block;
    padding-left: 0.6em;
    color: var(--mute);
  }
`;

const GLYPHS: Record<Stance, LucideIcon> = {
  hostile: ShieldAlert,
  neutral: Minus,
  friendly: Sprout,
};

/** How every faction stands to every other, each way on its own. */
export function FactionTable({ cast }: { cast: CastEditor }) {
  const { document, change, trouble } = cast;
  const { factions = {}, archetypes } = document;
  const tokens = useTokens();
  const names = factionNames(document);
  const setTitle = (name: string, title: string) =>
    change({ command: 'setInCast', part: 'factions', name, value: { ...factions[name], title } });
  const members = (name: string) =>
    namesOf(archetypes).filter((archetype) => archetypes[archetype].faction === name);
  return (
    <FormColumn aria-label="Factions" style={{ gridColumn: '1 / -1' }}>
      <Title>Factions</Title>
      <p>
        Read along a row: how this side stands to the others. Hostile agents draw attention, neutral
        agents are seen and ignored, friendly agents are not looked at.
      </p>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <FindingsHere path="factions" />
      <Stances aria-label="How factions stand to each other">
        <thead>
          <tr>
            <th scope="col">Faction</th>
            {names.map((name) => (
              <th key={name} scope="col">
                toward {factionTitle(document, name)}
              </th>
            ))}
            <th scope="col">Archetypes</th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {names.map((of) => (
            <tr key={of}>
              <th scope="row">
                <AgentGlyph tint={factionTint(document, of, tokens.factions)} />{' '}
                <InlineText
                  label={`Title of the faction ${of}`}
                  value={factionTitle(document, of)}
                  check={(text) => checkTitle(text)}
                  onCommit={(title) => setTitle(of, title.trim())}
                />{' '}
                <PartName
                  label={`Name of the faction ${of} in the file`}
                  part="factions"
                  name={of}
                />
              </th>
              {names.map((toward) => {
                const stance = stanceOf(factions, of, toward);
                const back = stanceOf(factions, toward, of);
                const Glyph = GLYPHS[stance];
                const label = `${factionTitle(document, of)} toward ${factionTitle(document, toward)}`;
                return (
                  <td key={toward}>
                    <Menu
                      label={label}
                      entries={STANCES.map((id) => ({
                        id,
                        text: id,
                        label: id,
                        onAction: () => change({ command: 'setStance', of, toward, stance: id }),
                      }))}
                    >
                      <QuietButton
                        aria-label={`${label}: ${stance}. Choose`}
                        style={stance === 'hostile' ? { color: 'var(--bone)' } : undefined}
                      >
                        <Glyph size={14} /> {of === toward ? `${stance} to its own` : stance}
                      </QuietButton>
                    </Menu>
                    {of !== toward && back !== stance && <small>they: {back}</small>}
                  </td>
                );
              })}
              <td>
                {members(of)
                  .map((archetype) => archetypes[archetype].title)
                  .join(', ') || '—'}
              </td>
              <td>
                {members(of).length === 0 && Object.hasOwn(factions, of) && (
                  <RemoveButton
                    label={`Remove the faction ${factionTitle(document, of)}`}
                    onPress={() =>
                      change({ command: 'setInCast', part: 'factions', name: of, value: null })
                    }
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Stances>
      <Buttons>
        <Button
          onPress={() => {
            const name = freshName('faction', (each) => names.includes(each));
            change({
              command: 'setInCast',
              part: 'factions',
              name,
              value: { title: 'New faction' },
            });
          }}
        >
          <Plus size={13} /> Add a faction
        </Button>
      </Buttons>
    </FormColumn>
  );
}
