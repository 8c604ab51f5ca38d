import { CAST_PARTS } from '@crooked-lantern/core';
import type { ReactNode } from 'react';
import { PartName } from '../project/part-name.tsx';
import { checkTitle } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { NoteText } from '../ui/fields/note-text.tsx';
import { Sort, Title, Trouble } from './layout.ts';
import type { CastEditor } from './use-cast.ts';

/** Title, name and note of an entry of the cast, each edited where it stands. */
export function EntryHeading({
  editor,
  entry,
  onChange,
  sort,
}: {
  editor: CastEditor;
  entry: { title?: string; note?: string };
  onChange: (change: { title?: string; note?: string }) => void;
  sort: ReactNode;
}) {
  const { selection, select, trouble } = editor;
  const part = CAST_PARTS.find((candidate) => candidate === selection.part)!;
  const { name } = selection;
  const shown = entry.title ?? name;
  return (
    <>
      <Title>
        <InlineText
          label={`Title of ${shown}`}
          value={shown}
          check={(text) => checkTitle(text)}
          onCommit={(title) => onChange({ title: title.trim() })}
        />
      </Title>
      <Sort>
        {sort}
        <PartName
          label={`Name of ${shown} in the file`}
          part={part}
          name={name}
          onRenamed={(to) => select(part, to)}
        />
      </Sort>
      <NoteText
        label={`Note on ${shown}`}
        note={entry.note}
        onCommit={(note) => onChange({ note })}
      />
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </>
  );
}
