import { namesOf, withoutUndefined, type PlayerDocument } from '@crooked-lantern/core';
import { Footprints, Play, Trash2 } from 'lucide-react';
import { recordingOf } from '../engine/recording.ts';
import { useEngine } from '../engine/use-engine.tsx';
import { Button } from '../ui/button.tsx';
import { FlagField, Row, Rows, SeedField } from '../ui/fields/fields.tsx';
import { FindingsHere } from './findings-here.tsx';
import { EntryHeading } from './heading.tsx';
import { Buttons, FormColumn } from './layout.ts';
import type { CastEditor } from './use-cast.ts';

/** Input that was recorded once and is given again, tick by tick. */
export function PlayerForm({ cast }: { cast: CastEditor }) {
  const { document, selection, change, agents } = cast;
  const engine = useEngine();
  const { name } = selection;
  const player = document.players?.[name];
  if (!player) return null;
  const { title, seed, inputs } = player;
  const { start, ticksPerSecond = 60, setups = {} } = document;
  const set = (part: Partial<PlayerDocument>) =>
    change({
      command: 'setInCast',
      part: 'players',
      name,
      value: withoutUndefined({ ...player, ...part }),
    });
  const driven = [...new Set(inputs.map(({ agent }) => agent))];
  const begun = namesOf(setups).filter((setup) => setups[setup].player === name);
  return (
    <FormColumn aria-label={`Scripted player ${title}`} style={{ gridColumn: '1 / -1' }}>
      <EntryHeading
        editor={cast}
        entry={player}
        onChange={set}
        sort={
          <>
            <Footprints size={13} /> Scripted player
          </>
        }
      />
      <Buttons>
        <Button
          onPress={() => {
            const { recording, until } = recordingOf(player, { ...start, ticksPerSecond });
            engine.replay(recording, until);
          }}
        >
          <Play size={13} /> Replay it
        </Button>
        <Button
          onPress={() => change({ command: 'setInCast', part: 'players', name, value: null })}
        >
          <Trash2 size={13} /> Remove
        </Button>
      </Buttons>
      <FindingsHere path={`players.${name}`} />
      <Rows>
        <Row label="Lasts">
          {((inputs.at(-1)?.tick ?? 0) / ticksPerSecond).toFixed(1)} s, {inputs.length}{' '}
          {inputs.length === 1 ? 'input' : 'inputs'}
        </Row>
        <Row label="Drives">
          {driven.map((agent) => agents[agent]?.title ?? agent).join(', ') || 'no agent'}
        </Row>
        <SeedField
          label="Seed it was recorded with"
          of={title}
          value={seed}
          onCommit={(next) => set({ seed: next })}
        />
        <FlagField
          label="Plays from the start"
          of={title}
          value={start.player === name}
          onChange={(on) =>
            change({ command: 'changeStart', change: { player: on ? name : undefined } })
          }
        />
        {begun.length > 0 && (
          <Row label="Plays in the set-ups">
            {begun.map((setup) => setups[setup].title).join(', ')}
          </Row>
        )}
      </Rows>
    </FormColumn>
  );
}
