import {
  ROLE_FIELDS,
  SQUAD_FIELDS,
  archetypeOf,
  freshName,
  namesOf,
  type RoleDocument,
  type SquadDocument,
  withoutUndefined,
} from '@crooked-lantern/core';
import { ArrowDown, ArrowUp, Plus, Trash2, Users, X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { ExpressionField } from '../expression/expression-field.tsx';
import { Button, QuietButton, RemoveButton } from '../ui/button.tsx';
import { NumberField, Rows } from '../ui/fields/fields.tsx';
import { PartName } from '../project/part-name.tsx';
import { NumberText, OptionalNumberText } from '../ui/fields/number-text.tsx';
import { AgentLinks } from './agent-links.tsx';
import { FindingsHere } from './findings-here.tsx';
import { Table } from './gait-table.tsx';
import { EntryHeading } from './heading.tsx';
import { Buttons, FormColumn } from './layout.ts';
import type { CastEditor } from './use-cast.ts';
import { TierValues } from '../project/tier-values.tsx';

const Wide = styled(Table)`
  max-width: 760px;
  td:nth-child(2) {
    width: 50%;
  }
`;

const SCORE_PLACE = { score: true } as const;

/** Agents that share memory and what they are told, and the parts they take. */
export function SquadForm({ cast }: { cast: CastEditor }) {
  const [fresh, setFresh] = useState<string | null>(null);
  const { document, selection, change, agents } = cast;
  const { name } = selection;
  const squad = document.squads?.[name];
  if (!squad) return null;
  const set = (part: Partial<SquadDocument>) =>
    change({
      command: 'setInCast',
      part: 'squads',
      name,
      value: withoutUndefined({ ...squad, ...part }),
    });
  const roles = squad.roles ?? [];
  const setRoles = (list: RoleDocument[]) => set({ roles: list.length > 0 ? list : undefined });
  const setRole = (index: number, part: Partial<RoleDocument>) =>
    setRoles(roles.map((role, i) => (i === index ? withoutUndefined({ ...role, ...part }) : role)));
  const move = (from: number, to: number) => {
    const rest = roles.filter((_, i) => i !== from);
    setRoles([...rest.slice(0, to), roles[from], ...rest.slice(to)]);
  };
  const members = namesOf(agents).filter((agent) => {
    const placed = agents[agent];
    return (placed.squad ?? archetypeOf(document, placed)?.squad) === name;
  });
  const { title } = squad;
  return (
    <FormColumn aria-label={`Squad ${title}`} style={{ gridColumn: '1 / -1' }}>
      <EntryHeading
        editor={cast}
        entry={squad}
        onChange={set}
        sort={
          <>
            <Users size={13} /> Squad
          </>
        }
      />
      <p>
        {members.length === 0
          ? 'It has no members. Choose it for an archetype or a placed agent.'
          : 'In it: '}
        <AgentLinks cast={cast} names={members} />
      </p>
      <Rows>
        <NumberField
          spec={SQUAD_FIELDS.reach}
          label="Reach of words and shared memory"
          of={title}
          value={squad.reach}
          onCommit={(reach) => set({ reach })}
        >
          {squad.reach !== undefined && (
            <QuietButton style={{ minHeight: 24 }} onPress={() => set({ reach: undefined })}>
              <X size={12} /> limit
            </QuietButton>
          )}
          <TierValues path={`squads.${name}.reach`} />
        </NumberField>
        <NumberField
          spec={SQUAD_FIELDS.delay}
          label="Words arrive after"
          of={title}
          value={squad.delay ?? SQUAD_FIELDS.delay.usual}
          onCommit={(delay) =>
            set({ delay: delay === SQUAD_FIELDS.delay.usual ? undefined : delay })
          }
        >
          <TierValues path={`squads.${name}.delay`} />
        </NumberField>
      </Rows>
      <section aria-label="Roles">
        <h3>Roles</h3>
        <p>
          Assigned from the top down to the members with the best scores. A member keeps its role
          until another scores better by more than the commitment. Minds ask for{' '}
          <code>self.role</code>.
        </p>
        <FindingsHere path={`squads.${name}`} />
        {roles.length > 0 && (
          <Wide aria-label={`Roles of ${title}`}>
            <thead>
              <tr>
                <th scope="col">Role</th>
                <th scope="col">Suits by</th>
                <th scope="col">Slots</th>
                <th scope="col">Steady</th>
                <th aria-label="Order and removal" />
              </tr>
            </thead>
            <tbody>
              {roles.map((role, i) => (
                <tr key={i}>
                  <td>
                    <PartName
                      label={`Role ${i + 1} of ${title}`}
                      part="roles"
                      name={role.role}
                      startsOpen={fresh === role.role}
                    />
                  </td>
                  <td>
                    <ExpressionField
                      mind={null}
                      label={`Score of ${role.role} of ${title}`}
                      value={role.score}
                      path={`squads.${name}.roles[${i}].score`}
                      place={SCORE_PLACE}
                      onCommit={(score) => setRole(i, { score })}
                    />
                  </td>
                  <td>
                    <OptionalNumberText
                      label={`Slots of ${role.role} of ${title}`}
                      spec={ROLE_FIELDS.slots}
                      value={role.slots}
                      placeholder="any"
                      onCommit={(slots) => setRole(i, { slots })}
                    />
                    <TierValues path={`squads.${name}.roles[${i}].slots`} />
                  </td>
                  <td>
                    <NumberText
                      label={`Steadiness of ${role.role} of ${title}`}
                      spec={ROLE_FIELDS.commitment}
                      value={role.commitment ?? ROLE_FIELDS.commitment.usual}
                      onCommit={(steady) =>
                        setRole(i, {
                          commitment: steady === ROLE_FIELDS.commitment.usual ? undefined : steady,
                        })
                      }
                    />
                  </td>
                  <td style={{ whiteSpace: 'nowrap' }}>
                    <QuietButton
                      aria-label={`Move ${role.role} up`}
                      isDisabled={i === 0}
                      onPress={() => move(i, i - 1)}
                    >
                      <ArrowUp size={12} />
                    </QuietButton>
                    <QuietButton
                      aria-label={`Move ${role.role} down`}
                      isDisabled={i === roles.length - 1}
                      onPress={() => move(i, i + 1)}
                    >
                      <ArrowDown size={12} />
                    </QuietButton>
                    <RemoveButton
                      label={`Remove the role ${role.role} of ${title}`}
                      onPress={() => setRoles(roles.filter((_, n) => n !== i))}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </Wide>
        )}
      </section>
      <Buttons>
        <Button
          isDisabled={roles.length >= 16}
          onPress={() => {
            const role = freshName('role', (other) => roles.some((each) => each.role === other));
            setRoles([...roles, { role, score: '-distance(attention.place)' }]);
            setFresh(role);
          }}
        >
          <Plus size={13} /> Add a role
        </Button>
        <Button onPress={() => change({ command: 'setInCast', part: 'squads', name, value: null })}>
          <Trash2 size={13} /> Remove the squad
        </Button>
      </Buttons>
    </FormColumn>
  );
}
