import type { Renaming } from '@crooked-lantern/core';
import { attempt, perform } from '../state/perform.ts';
import { useAppDispatch, useDocumentNow } from '../state/store.ts';
import { checkName } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';

/** The name of a part in the file, by which others refer to it. Another one is used wherever the old one was. */
export function PartName({
  label,
  part,
  name,
  of,
  onRenamed,
  insteadOfRenaming,
  startsOpen,
}: {
  label: string;
  onRenamed?: (to: string) => void;
  /** True where the new name was taken otherwise, with no other place changed. */
  insteadOfRenaming?: (to: string) => boolean;
  /** It is open as soon as it is there. */
  startsOpen?: boolean;
} & Omit<Renaming, 'to'>) {
  const dispatch = useAppDispatch();
  const documentNow = useDocumentNow();
  const command = (to: string) => ({ command: 'rename', part, name, to, of }) as const;
  return (
    <InlineText
      mono
      startsOpen={startsOpen}
      label={label}
      value={name}
      check={(to) => {
        const reason = checkName(name, {})(to);
        if (reason !== null || to === name || insteadOfRenaming) return reason;
        const outcome = attempt(documentNow(), command(to));
        return 'refused' in outcome ? outcome.refused : null;
      }}
      onCommit={(to) => {
        if (insteadOfRenaming?.(to)) return;
        if (dispatch(perform(command(to))) === null) onRenamed?.(to);
      }}
    />
  );
}
