import type { ActionDocument } from '@crooked-lantern/core';
import type { MenuEntry } from '../../ui/overlays/menu.tsx';
import { ActionLine } from './action-line.tsx';

/** Actions one after the other, each edited where it stands; Alt with the arrows changes their order. */
export function ActionList({
  mind,
  actions,
  path,
  where,
  onChange,
  moreFor,
}: {
  mind: string;
  actions: readonly ActionDocument[];
  /** Path of the list in the document. */
  path: string;
  /** “on entry of Chase”, for readers. */
  where: string;
  /** Undefined where none is left. */
  onChange: (actions: ActionDocument[] | undefined) => void;
  /** More that can be done with one of them. */
  moreFor?: (index: number) => MenuEntry[];
}) {
  const give = (list: ActionDocument[]) => onChange(list.length > 0 ? list : undefined);
  const move = (from: number, to: number) => {
    if (to < 0 || to >= actions.length) return;
    const rest = actions.filter((_, i) => i !== from);
    give([...rest.slice(0, to), actions[from], ...rest.slice(to)]);
  };
  return actions.map((action, index) => (
    <ActionLine
      // Actions have no names; their place is what tells them apart.
      key={index}
      mind={mind}
      action={action}
      path={`${path}[${index}]`}
      where={where}
      onChange={(next) => give(actions.map((other, i) => (i === index ? next : other)))}
      onRemove={() => give(actions.filter((_, i) => i !== index))}
      onDuplicate={() => give([...actions.slice(0, index + 1), ...actions.slice(index)])}
      more={moreFor?.(index)}
      onMove={actions.length > 1 ? (by) => move(index, index + by) : undefined}
    />
  ));
}
