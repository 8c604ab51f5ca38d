import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type Context,
  type ReactNode,
} from 'react';
import { tinykeys } from 'tinykeys';
import type { CommandGroup } from './command-groups.ts';
import { keepOwnKeys, readOwnKeys, type OwnKeys } from './own-keys.ts';

/** Something the user can do from anywhere: by name in the command list, by its shortcut, often by a button. */
export interface Command {
  id: string;
  name: string;
  /** What else it is called: the command list finds it by these too. */
  aliases?: readonly string[];
  /** As tinykeys reads it: `$mod+KeyZ`; shown by {@link keysText}. */
  keys?: string;
  /** Why it can't be done now; undefined where it can. */
  disabled?: string;
  run: () => void;
}

export interface GroupedCommand extends Command {
  group: CommandGroup;
}

interface Registry {
  /** With the shortcuts that hold. */
  commands: GroupedCommand[];
  /** Changes a command’s shortcut; null restores the usual one. */
  setKeys(id: string, keys: string | null): void;
  ownKeys: OwnKeys;
}

type Offer = (owner: symbol, commands: GroupedCommand[] | null) => void;

const CommandContext = createContext<Registry | null>(null);
/** On its own, since it never changes: a component that offers commands is not rendered again with every other offer. */
const OfferContext = createContext<Offer | null>(null);

function useProvided<T>(context: Context<T | null>): T {
  const provided = useContext(context);
  if (!provided) throw new Error('There is no command registry around this component.');
  return provided;
}

/** Fields that are typed into, and what takes letters to find an entry by. */
const TYPED_INTO =
  'input, textarea, select, [contenteditable="true"], [role="dialog"], [role="menu"], [role="listbox"]';

/**
 * Whether what is typed belongs to a field, a menu or a dialog, or has been taken by what has the focus: a
 * shortcut without Ctrl must then stay out of the way. The event alone does not tell: a list that is
 * searched sends it on to its entries.
 */
function belongsElsewhere({ target, defaultPrevented }: KeyboardEvent): boolean {
  if (defaultPrevented) return true;
  return [target, document.activeElement].some(
    (element) => element instanceof Element && element.closest(TYPED_INTO) !== null,
  );
}

export function CommandProvider({ children }: { children: ReactNode }) {
  const [owned, setOwned] = useState<ReadonlyMap<symbol, GroupedCommand[]>>(new Map());
  const [ownKeys, setOwnKeys] = useState(readOwnKeys);
  const commands = useMemo(
    () =>
      [...owned.values()].flat().map((command) => {
        const keys = ownKeys[command.id];
        return keys === undefined ? command : { ...command, keys };
      }),
    [owned, ownKeys],
  );
  const latest = useRef(commands);
  latest.current = commands;
  const keys = [...new Set(commands.flatMap((command) => (command.keys ? [command.keys] : [])))]
    .sort()
    .join('\n');

  useEffect(() => {
    const bindings: Record<string, (event: KeyboardEvent) => void> = {};
    for (const key of keys.split('\n').filter(Boolean)) {
      bindings[key] = (event) => {
        // Keys that write nothing may be pressed in a field too.
        if (!key.startsWith('$mod') && !/^F\d+$/.test(key) && belongsElsewhere(event)) return;
        const command = latest.current.find(
          (candidate) => candidate.keys === key && candidate.disabled === undefined,
        );
        if (!command) return;
        event.preventDefault();
        command.run();
      };
    }
    return tinykeys(window, bindings);
  }, [keys]);

  const registry = useMemo<Registry>(
    () => ({
      commands,
      ownKeys,
      setKeys: (id, keys) =>
        setOwnKeys((before) => {
          const { [id]: _, ...rest } = before;
          const after = keys === null ? rest : { ...rest, [id]: keys };
          keepOwnKeys(after);
          return after;
        }),
    }),
    [commands, ownKeys],
  );
  const offer = useCallback<Offer>(
    (owner, list) =>
      setOwned((before) => {
        const after = new Map(before);
        if (list) after.set(owner, list);
        else after.delete(owner);
        return after;
      }),
    [],
  );
  return (
    <OfferContext.Provider value={offer}>
      <CommandContext.Provider value={registry}>{children}</CommandContext.Provider>
    </OfferContext.Provider>
  );
}

/** All commands that can be named now. */
export function useCommandList(): GroupedCommand[] {
  return useProvided(CommandContext).commands;
}

/** Changing shortcuts, and which have been changed. */
export function useShortcuts(): Pick<Registry, 'setKeys' | 'ownKeys'> {
  return useProvided(CommandContext);
}

/** Offers commands while the component is shown. `commands` must be memoised: it is taken again when it changes. */
export function useCommands(commands: Command[], group: CommandGroup = 'page'): void {
  const offer = useProvided(OfferContext);
  const owner = useRef(Symbol('commands'));
  useEffect(() => {
    const { current } = owner;
    offer(
      current,
      commands.map((command) => ({ ...command, group })),
    );
    return () => offer(current, null);
  }, [offer, commands, group]);
}

const IS_APPLE = /Mac|iPhone|iPad/.test(navigator.platform);
const NAMES: Record<string, string> = {
  $mod: IS_APPLE ? '⌘' : 'Ctrl',
  Space: 'Space',
  ArrowLeft: '←',
  ArrowRight: '→',
  Comma: ',',
  Period: '.',
};

/** A shortcut as people read it: Ctrl+Z. */
export function keysText(keys: string): string {
  return keys
    .split('+')
    .map((key) => NAMES[key] ?? key.replace(/^(Key|Digit)/, ''))
    .join('+');
}
