import { InlineText } from './inline-text.tsx';

/** A note that is edited where it stands; an empty one is none. */
export function NoteText({
  label,
  note,
  onCommit,
}: {
  /** “Note on Chase”. */
  label: string;
  note: string | undefined;
  onCommit: (note: string | undefined) => void;
}) {
  return (
    <InlineText
      label={label}
      value={note ?? ''}
      placeholder="note …"
      check={(text) => (text.length > 4000 ? 'It takes at most 4000 characters.' : null)}
      onCommit={(text) => onCommit(text === '' ? undefined : text)}
    />
  );
}
