import {
  applyCommand,
  CommandError,
  NAME_ABOUT,
  NAME_PATTERN,
  type Renaming,
} from '@crooked-lantern/core';
import { useAppDispatch, useAppStore } from '../state/store.ts';
import { perform } from '../state/perform.ts';
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
  const store = useAppStore();
  const command = (to: string) => ({ command: 'rename', part, name, to, of }) as const;
  return (
    <InlineText
      mono
      startsOpen={startsOpen}
      label={label}
      value={name}
      check={(to) => {
        if (to === name) return null;
        if (!NAME_PATTERN.test(to)) return `It takes ${NAME_ABOUT}.`;
        if (insteadOfRenaming) return null;
        const { project } = store.getState();
        return project.status === 'open' ? whyNot(project.document, command(to)) : null;
      }}
      onCommit={(to) => {
        if (insteadOfRenaming?.(to)) return;
        if (dispatch(perform(command(to))) === null) onRenamed?.(to);
      }}
    />
  );
}

/** Why a command does not fit a document; null where it does. */
function whyNot(...[document, command]: Parameters<typeof applyCommand>): string | null {
  try {
    applyCommand(document, command);
    return null;
  } catch (error) {
    if (error instanceof CommandError) return error.message;
    throw error;
  }
}
