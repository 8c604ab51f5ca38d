import {
  AWAY,
  HEADING,
  PLACE,
  namesOf,
  withoutUndefined,
  type SetupDocument,
} from '@crooked-lantern/core';
import { MapPin, Play, Plus, Trash2 } from 'lucide-react';
import { useEngine } from '../engine/use-engine.tsx';
import { bodyAt } from '../ground/drawing/bodies.ts';
import { Button, RemoveButton } from '../ui/button.tsx';
import { Choice, ChoiceField, Rows, SeedField } from '../ui/fields/fields.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { FindingsHere } from './findings-here.tsx';
import { Table } from './gait-table.tsx';
import { EntryHeading } from './heading.tsx';
import { Buttons, FormColumn } from './layout.ts';
import type { CastEditor } from './use-cast.ts';
import { runInBackground } from '../state/failures.ts';

type Places = NonNullable<SetupDocument['agents']>;

const round = (value: number) => Math.round(value * 100) / 100;

/** Another way to begin: who is played, who starts where, with which luck and input. */
export function SetupForm({ cast }: { cast: CastEditor }) {
  const { document, selection, change, tell, agents } = cast;
  const engine = useEngine();
  const { name } = selection;
  const setup = document.setups?.[name];
  if (!setup) return null;
  const { title, agents: places = {} } = setup;
  const set = (part: Partial<SetupDocument>) =>
    change({
      command: 'setInCast',
      part: 'setups',
      name,
      value: withoutUndefined({ ...setup, ...part }),
    });
  const setPlaces = (next: Places) =>
    set({ agents: Object.keys(next).length > 0 ? next : undefined });
  const titleOf = (agent: string) => agents[agent]?.title ?? agent;
  const where = (agent: string) => ({
    at: places[agent]?.at ?? agents[agent]?.at ?? ([0, 0] as [number, number]),
    heading: places[agent]?.heading ?? agents[agent]?.heading ?? 0,
  });
  /** Every agent where the run shows it now; agents that have not moved stay as on the ground. */
  const takePlaces = () => {
    const { frame, program } = engine;
    if (!frame || !program) return;
    const next: Places = {};
    program.agents.forEach((agent, i) => {
      const placed = agents[agent.name];
      if (!placed) return;
      const { x, y, heading, posture } = bodyAt(frame, i);
      if (posture === AWAY || Math.hypot(x - placed.at[0], y - placed.at[1]) < 0.05) return;
      next[agent.name] = {
        at: [round(x), round(y)],
        heading: Math.round((heading * 180) / Math.PI),
      };
    });
    setPlaces(next);
  };
  const others = namesOf(agents).filter((agent) => !Object.hasOwn(places, agent));
  return (
    <FormColumn aria-label={`Set-up ${title}`} style={{ gridColumn: '1 / -1' }}>
      <EntryHeading
        editor={cast}
        entry={setup}
        onChange={set}
        sort={
          <>
            <MapPin size={13} /> Set-up
          </>
        }
      />
      <Buttons>
        <Button onPress={() => runInBackground(engine.begin(name).then(tell))}>
          <Play size={13} /> Start it
        </Button>
        <Button onPress={takePlaces}>Take over where all stand now</Button>
        <Button onPress={() => change({ command: 'setInCast', part: 'setups', name, value: null })}>
          <Trash2 size={13} /> Remove
        </Button>
      </Buttons>
      <FindingsHere path={`setups.${name}`} />
      <Rows>
        <ChoiceField
          label="Played by you"
          of={title}
          value={setup.play ?? ''}
          options={[
            { id: '', title: 'as the project says' },
            ...namesOf(agents).map((id) => ({ id, title: titleOf(id) })),
          ]}
          onChoose={(id) => set({ play: id || undefined })}
        />
        <SeedField of={title} value={setup.seed} onCommit={(next) => set({ seed: next })} />
        <ChoiceField
          label="Scripted player"
          of={title}
          value={setup.player ?? ''}
          options={[
            { id: '', title: 'as the project says' },
            ...namesOf(document.players ?? {}).map((id) => ({
              id,
              title: document.players![id].title,
            })),
          ]}
          onChoose={(id) => set({ player: id || undefined })}
        />
      </Rows>
      <section aria-label="Agents with another start">
        <h3>Agents with another start</h3>
        {Object.keys(places).length === 0 ? (
          <p>Every agent starts as on the ground.</p>
        ) : (
          <Table aria-label={`Places of ${title}`} style={{ maxWidth: 460 }}>
            <thead>
              <tr>
                <th scope="col">Agent</th>
                <th scope="col">x m</th>
                <th scope="col">y m</th>
                <th scope="col">heading °</th>
                <th aria-label="Remove" />
              </tr>
            </thead>
            <tbody>
              {namesOf(places).map((agent) => {
                const { at, heading } = where(agent);
                const put = (next: Places[string]) =>
                  setPlaces({ ...places, [agent]: { ...places[agent], ...next } });
                const figure = (
                  label: string,
                  value: number,
                  onCommit: (value: number) => void,
                ) => (
                  <NumberText
                    label={`${label} of ${titleOf(agent)} in ${title}`}
                    spec={label === 'heading' ? HEADING : PLACE}
                    value={value}
                    onCommit={onCommit}
                  />
                );
                return (
                  <tr key={agent}>
                    <td>{titleOf(agent)}</td>
                    <td>{figure('x', at[0], (x) => put({ at: [x, at[1]] }))}</td>
                    <td>{figure('y', at[1], (y) => put({ at: [at[0], y] }))}</td>
                    <td>{figure('heading', heading, (value) => put({ heading: value }))}</td>
                    <td>
                      <RemoveButton
                        label={`${titleOf(agent)} starts as on the ground`}
                        onPress={() => {
                          const { [agent]: _, ...rest } = places;
                          setPlaces(rest);
                        }}
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </Table>
        )}
        {others.length > 0 && (
          <p style={{ display: 'flex', alignItems: 'center' }}>
            <Plus size={12} />
            <Choice
              label={`Add an agent with another start in ${title}`}
              value="add"
              options={[
                { id: 'add', title: 'an agent' },
                ...others.map((id) => ({ id, title: titleOf(id) })),
              ]}
              onChoose={(id) => id !== 'add' && setPlaces({ ...places, [id]: where(id) })}
            />
          </p>
        )}
      </section>
    </FormColumn>
  );
}
