import { COMMAND_GROUPS, type CommandGroup } from './command-groups.ts';
import type { GroupedCommand } from './commands.tsx';

export interface CommandSection {
  title: string;
  commands: GroupedCommand[];
}

/**
 * Commands as the list shows them: first those about what has the focus, then those used lately, then the others by
 * group. Each stands once, and no section is empty.
 */
export function listedCommands(
  commands: readonly GroupedCommand[],
  focused: CommandGroup,
  usedLately: readonly string[],
): CommandSection[] {
  const ofGroup = (wanted: CommandGroup) => commands.filter(({ group }) => group === wanted);
  const lately = usedLately
    .flatMap((id) => commands.find((command) => command.id === id) ?? [])
    .filter(({ group }) => group !== focused);
  const others = (Object.keys(COMMAND_GROUPS) as CommandGroup[]).filter(
    (group) => group !== focused,
  );
  return [
    { title: COMMAND_GROUPS[focused], commands: ofGroup(focused) },
    { title: 'Used lately', commands: lately },
    ...others.map((group) => ({
      title: COMMAND_GROUPS[group],
      commands: ofGroup(group).filter((command) => !lately.includes(command)),
    })),
  ].filter((section) => section.commands.length > 0);
}
