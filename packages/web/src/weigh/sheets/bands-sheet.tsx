import {
  BAND_FIELDS,
  endsOfBand,
  freshName,
  namesOf,
  type BandDocument,
  type BandSetDocument,
} from '@crooked-lantern/core';
import { ArrowLeft, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { RowFindings } from '../../findings/row-findings.tsx';
import { Buttons, PartTitle, Trouble } from '../../minds/sheet-layout.ts';
import { SideSheet } from '../layout.ts';
import { useProject } from '../../state/store.ts';
import type { Editing } from '../../state/use-edit.ts';
import { Button, RemoveButton } from '../../ui/button.tsx';
import { PartName } from '../../project/part-name.tsx';
import { checkTitle } from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { NoteText } from '../../ui/fields/note-text.tsx';
import { OptionalNumberText } from '../../ui/fields/number-text.tsx';

const Picture = styled.svg`
  width: 100%;
  height: auto;
  overflow: visible;
  margin: 8px 0;
  path {
    fill: color-mix(in srgb, var(--sight) 16%, transparent);
    stroke: var(--sight);
  }
  text {
    fill: var(--mute);
    font: 11px var(--mono);
  }
`;

const Table = styled.table`
  border-collapse: collapse;
  th {
    color: var(--mute);
    font-weight: 600;
    text-align: left;
  }
  th,
  td {
    padding: 2px 6px 2px 0;
  }
`;

const WIDTH = 320;
const HEIGHT = 70;

/** All bands of a set over their number: how far each holds where. */
function BandPicture({ bands }: { bands: readonly BandDocument[] }) {
  const ends = bands.flatMap((band) => endsOfBand(band)).filter(Number.isFinite);
  const [low, high] = [Math.min(...ends), Math.max(...ends)];
  if (!(high > low)) return null;
  const room = (high - low) * 0.1;
  const x = (value: number) => {
    const held = Math.max(low - room, Math.min(high + room, value));
    return ((held - low + room) / (high - low + 2 * room)) * WIDTH;
  };
  return (
    <Picture
      viewBox={`0 0 ${WIDTH} ${HEIGHT + 34}`}
      role="img"
      aria-label="How far each band holds where"
    >
      <g transform="translate(0 18)">
        {bands.map((band, i) => {
          const [from, fullFrom, fullTo, to] = endsOfBand(band).map(x);
          return (
            <g key={`${band.name} ${i}`}>
              <path d={`M${from} ${HEIGHT}L${fullFrom} 0L${fullTo} 0L${to} ${HEIGHT}`} />
              <text x={(fullFrom + fullTo) / 2} y={-4} textAnchor="middle">
                {band.name}
              </text>
            </g>
          );
        })}
        {[...new Set(ends)].map((end) => (
          <text key={end} x={x(end)} y={HEIGHT + 13} textAnchor="middle">
            {end}
          </text>
        ))}
      </g>
    </Picture>
  );
}

/** Names for parts of a number, with the numbers beside them. */
export function BandsSheet({
  name,
  set,
  editing,
  onClose,
  onRenamed,
}: {
  name: string;
  set: BandSetDocument;
  editing: Editing;
  onClose: () => void;
  onRenamed: (name: string) => void;
}) {
  const [fresh, setFresh] = useState<string | null>(null);
  const { put, run, trouble } = editing;
  const others = useProject(({ document }) => document.bands) ?? {};
  const path = ['bands', name];
  const change = (index: number, field: keyof BandDocument, value: unknown) =>
    put([...path, 'bands', index, field], value);
  return (
    <SideSheet aria-label={`Bands ${set.title ?? name}`}>
      <PartTitle>
        <InlineText
          label={`Title of the bands ${name}`}
          value={set.title ?? name}
          check={(title) => checkTitle(title)}
          onCommit={(title) => put([...path, 'title'], title.trim())}
        />
      </PartTitle>
      <span style={{ color: 'var(--mute)' }}>
        bands{' '}
        <PartName
          label={`Name of the bands ${name} in the file`}
          part="bandSets"
          name={name}
          onRenamed={onRenamed}
        />{' '}
        of{' '}
        <InlineText
          mono
          label={`Number of the bands ${name}`}
          about="an expression, read in whichever mind asks"
          value={set.input}
          check={(text) => (text.trim() === '' ? 'It takes an expression.' : null)}
          onCommit={(input) => put([...path, 'input'], input.trim())}
        />
      </span>
      <div>
        <NoteText
          label={`Note on the bands ${name}`}
          note={set.note}
          onCommit={(note) => put([...path, 'note'], note)}
        />
      </div>
      <BandPicture bands={set.bands} />
      <Table>
        <thead>
          <tr>
            <th scope="col">Band</th>
            {Object.values(BAND_FIELDS).map(({ label }) => (
              <th scope="col" key={label}>
                {label}
              </th>
            ))}
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {set.bands.map((band, i) => (
            <tr key={i}>
              <td>
                <PartName
                  label={`Name of band ${i + 1} of ${name}`}
                  part="bands"
                  of={name}
                  name={band.name}
                  startsOpen={fresh === band.name}
                />
              </td>
              {(['from', 'fullFrom', 'fullTo', 'to'] as const).map((field) => (
                <td key={field}>
                  <OptionalNumberText
                    label={`${BAND_FIELDS[field].label} of ${band.name}`}
                    about={BAND_FIELDS[field].about}
                    spec={BAND_FIELDS[field]}
                    value={band[field]}
                    placeholder="open"
                    onCommit={(value) => change(i, field, value)}
                  />
                </td>
              ))}
              <td>
                {set.bands.length > 1 && (
                  <RemoveButton
                    label={`Remove the band ${band.name}`}
                    onPress={() =>
                      run({ command: 'put', how: 'remove', path: [...path, 'bands', i] })
                    }
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p style={{ color: 'var(--mute)' }}>
        In expressions: <code>{`inBand(${name}, '${set.bands[0]?.name ?? '…'}')`}</code> is how far
        it holds, <code>{`bandOf(${name})`}</code> the name of the one that holds most.
      </p>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <RowFindings path={`bands.${name}`} />
      <Buttons>
        <Button
          onPress={() => {
            const added = freshName('band', (other) =>
              set.bands.some(({ name }) => name === other),
            );
            const last = endsOfBand(set.bands[set.bands.length - 1])[2];
            const from = Number.isFinite(last) ? last : 0;
            run({
              command: 'put',
              how: 'insert',
              path: [...path, 'bands', set.bands.length],
              value: { name: added, from, fullFrom: from + 1 },
            });
            setFresh(added);
          }}
        >
          <Plus size={14} /> Add a band
        </Button>
        <Button onPress={onClose}>
          <ArrowLeft size={14} /> Back to the choice
        </Button>
        <Button
          onPress={() => {
            const last = namesOf(others).length === 1;
            if (put(last ? ['bands'] : path, undefined)) onClose();
          }}
        >
          <Trash2 size={14} /> Remove these bands
        </Button>
      </Buttons>
    </SideSheet>
  );
}
