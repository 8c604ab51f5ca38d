import {
  freshIn,
  GAIT_FIELDS,
  namesOf,
  usualNumber,
  type GaitDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { QuietButton, Toggle, RemoveButton } from '../ui/button.tsx';
import { PartName } from '../project/part-name.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { Explained } from '../ui/overlays/tooltip.tsx';
import { OwnMark } from './kind-field.tsx';
import { gaitNamed, seenOf } from './senses/notice-curves.ts';
import type { KindEditor } from './use-cast.ts';
import { TierValues } from '../project/tier-values.tsx';

export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    padding: 0 4px 2px 0;
    color: var(--mute);
    font-weight: 400;
    text-align: left;
  }
  td {
    padding: 1px 4px 1px 0;
    border-top: 1px solid var(--line);
    vertical-align: baseline;
  }
  button {
    min-height: 24px;
  }
`;

/** A gait that is only a speed is written as its speed. */
function shortest(gait: GaitDocument): number | GaitDocument {
  const { speed, ...rest } = gait;
  return Object.values(rest).some((value) => value !== undefined) ? gait : speed;
}

/** The ways a body can go: how fast, how loud, how much of it shows. */
export function GaitTable({ editor }: { editor: KindEditor }) {
  const { kind, base, of, put } = editor;
  const [fresh, setFresh] = useState<string | null>(null);
  const names = namesOf(kind.gaits);
  const set = (name: string, change: Partial<GaitDocument>) => {
    const gait = { ...gaitNamed(kind, name)!, ...change };
    for (const field of ['noise', 'crouched', 'visibility'] as const)
      if (gait[field] === undefined) delete gait[field];
    put(['gaits', name], shortest(gait));
  };
  return (
    <>
      <Table aria-label={`Gaits of ${of}`}>
        <thead>
          <tr>
            <th scope="col">Gait</th>
            <th scope="col">m/s</th>
            <th scope="col">
              <Explained text={GAIT_FIELDS.noise.about}>heard m</Explained>
            </th>
            <th scope="col">
              <Explained text={GAIT_FIELDS.visibility.about}>visible</Explained>
            </th>
            <th scope="col">
              <Explained text={GAIT_FIELDS.crouched.about}>crouched</Explained>
            </th>
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {names.map((name) => {
            const gait = gaitNamed(kind, name)!;
            const usual = kind.gait === name;
            return (
              <tr key={name}>
                <td>
                  {base ? (
                    name
                  ) : (
                    <PartName
                      label={`Name of the gait ${name} of ${of}`}
                      part="gaits"
                      name={name}
                      startsOpen={fresh === name}
                    />
                  )}
                  {usual && <Explained text="How it goes unless a mind says so">·</Explained>}
                  <OwnMark editor={editor} path={['gaits', name]} label={name} usual="" />
                </td>
                <td>
                  <NumberText
                    label={`Speed of ${name} of ${of}`}
                    spec={GAIT_FIELDS.speed}
                    value={gait.speed}
                    onCommit={(speed) => set(name, { speed })}
                  />
                  <TierValues path={`${editor.path}.gaits.${name}.speed`} />
                </td>
                <td>
                  <NumberText
                    label={`Steps of ${name} of ${of} are heard, metres`}
                    spec={GAIT_FIELDS.noise}
                    value={gait.noise ?? 0}
                    onCommit={(noise) => set(name, { noise: noise || undefined })}
                  />
                  <TierValues path={`${editor.path}.gaits.${name}.noise`} />
                </td>
                <td>
                  <NumberText
                    label={`Visibility of ${name} of ${of}`}
                    spec={GAIT_FIELDS.visibility}
                    value={seenOf(gait)}
                    onCommit={(seen) => {
                      const usual = usualNumber(GAIT_FIELDS.visibility, gait);
                      set(name, { visibility: seen === usual ? undefined : seen });
                    }}
                  />
                  <TierValues path={`${editor.path}.gaits.${name}.visibility`} />
                </td>
                <td>
                  <Toggle
                    aria-label={`Crouched: ${name} of ${of}`}
                    isSelected={gait.crouched === true}
                    onChange={(on) => set(name, { crouched: on || undefined })}
                  >
                    {gait.crouched ? 'yes' : 'no'}
                  </Toggle>
                </td>
                <td>
                  {!base && !usual && (
                    <RemoveButton
                      label={`Remove the gait ${name} of ${of}`}
                      onPress={() => put(['gaits', name], undefined)}
                    />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </Table>
      {!base && (
        <QuietButton
          style={{ minHeight: 24 }}
          onPress={() => {
            const name = freshIn(kind.gaits, 'gait');
            put(['gaits', name], 1);
            setFresh(name);
          }}
          aria-label={`Add a gait to ${of}`}
        >
          <Plus size={12} /> gait
        </QuietButton>
      )}
    </>
  );
}
