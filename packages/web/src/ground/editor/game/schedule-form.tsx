import {
  freshName,
  MODE_FIELDS,
  NAME_ABOUT,
  NAME_PATTERN,
  SCHEDULE_FIELDS,
  type ScheduleDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import styled from 'styled-components';
import { QuietButton, RemoveButton } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/fields/fields.tsx';
import { InlineText } from '../../../ui/fields/inline-text.tsx';
import { NumberText } from '../../../ui/fields/number-text.tsx';
import { TierValues } from '../../../project/tier-values.tsx';

const Modes = styled.ol`
  margin: 4px 0;
  li {
    display: flex;
    align-items: baseline;
    gap: 6px;
  }
  li > :last-child {
    margin-left: auto;
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
              <InlineText
                mono
                label={`Name of mode ${i + 1}`}
                value={mode}
                check={(text) => (NAME_PATTERN.test(text) ? null : `It takes ${NAME_ABOUT}.`)}
                onCommit={(text) => change(i, { mode: text })}
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
        }}
      >
        <Plus size={13} /> Add mode
      </QuietButton>
    </>
  );
}
