import {
  freshName,
  MODE_FIELDS,
  SCHEDULE_FIELDS,
  type ScheduleDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { QuietButton, RemoveButton } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/fields/fields.tsx';
import { PartName } from '../../../project/part-name.tsx';
import { NumberText } from '../../../ui/fields/number-text.tsx';
import { TierValues } from '../../../project/tier-values.tsx';

const Modes = styled.ol`
  margin: 4px 0;
  li {
    display: grid;
    grid-template-columns: 120px minmax(0, 1fr) auto;
    align-items: baseline;
    gap: 6px;
  }
`;

const AFTERWARDS = [
  { id: 'again', title: 'the first again' },
  { id: 'stay', title: 'nothing: the last stays' },
  { id: 'end', title: 'the run ends' },
];

/** The modes by the clock, one after the other. */
export function ScheduleForm({
  schedule,
  path,
  onChange,
}: {
  schedule: ScheduleDocument | undefined;
  /** Of the schedule in the document. */
  path: string;
  onChange: (schedule: ScheduleDocument | undefined) => void;
}) {
  const [fresh, setFresh] = useState<string | null>(null);
  const modes = schedule?.modes ?? [];
  const set = (next: ScheduleDocument['modes']) =>
    onChange(next.length === 0 ? undefined : { ...schedule, modes: next });
  const total = modes.reduce((sum, mode) => sum + mode.for, 0);
  const change = (i: number, part: Partial<ScheduleDocument['modes'][number]>) =>
    set(modes.map((mode, n) => (n === i ? { ...mode, ...part } : mode)));
  return (
    <>
      {modes.length > 0 && (
        <Modes aria-label="Modes by the clock">
          {modes.map(({ mode, for: seconds }, i) => (
            <li key={i}>
              <PartName
                label={`Name of mode ${i + 1}`}
                part="modes"
                name={mode}
                startsOpen={fresh === mode}
                // Of a mode that comes more than once, or is to be another’s, one entry changes.
                insteadOfRenaming={(to) => {
                  const isItsOwn = modes.filter((other) => other.mode === mode).length === 1;
                  if (isItsOwn && modes.every((other) => other.mode !== to)) return false;
                  change(i, { mode: to });
                  return true;
                }}
              />
              <span>
                for{' '}
                <NumberText
                  label={`Seconds of mode ${i + 1}`}
                  spec={MODE_FIELDS.for}
                  value={seconds}
                  onCommit={(value) => change(i, { for: value })}
                />{' '}
                s
                <TierValues path={`${path}.modes[${i}].for`} />
              </span>
              <RemoveButton
                label={`Remove mode ${i + 1}, ${mode}`}
                onPress={() => set(modes.filter((_, n) => n !== i))}
              />
            </li>
          ))}
        </Modes>
      )}
      {modes.length > 0 && (
        <p>
          After {Number(total.toFixed(2))} s{' '}
          <Choice
            label="What comes after the last mode"
            value={schedule?.afterwards ?? SCHEDULE_FIELDS.afterwards.usual}
            options={AFTERWARDS}
            onChoose={(id) =>
              onChange({
                modes,
                ...(id === SCHEDULE_FIELDS.afterwards.usual
                  ? {}
                  : { afterwards: id as ScheduleDocument['afterwards'] }),
              })
            }
          />
        </p>
      )}
      <QuietButton
        onPress={() => {
          const name = freshName('mode', (each) => modes.some(({ mode }) => mode === each));
          set([...modes, { mode: name, for: 30 }]);
          setFresh(name);
        }}
      >
        <Plus size={13} /> Add mode
      </QuietButton>
    </>
  );
}
