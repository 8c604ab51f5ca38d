import { namesOf } from '@crooked-lantern/core';
import { Eye, EyeOff, Lock, LockOpen } from 'lucide-react';
import { ListColumn, ListHead, ListItem } from '../../ui/place.ts';
import { QuietButton } from '../../ui/button.tsx';
import { keyOf, LAYERS, partsOf, titleOf, type PartRef } from './parts.ts';
import type { GroundEditor } from './use-ground-editor.ts';

function placeText(editor: GroundEditor, ref: PartRef): string {
  const part = partsOf(editor.ground, ref.kind).find(([name]) => name === ref.name)?.[1];
  const at = part?.at ?? part?.points?.[0];
  return at ? `${at[0]}, ${at[1]}` : '';
}

/** Everything on the ground by layer, for users who prefer a list; each layer can be hidden and locked. */
export function PartList({ editor }: { editor: GroundEditor }) {
  const { ground, layers, chosenSet, chosen } = editor;
  const press = (ref: PartRef, more: boolean) => {
    if (!more) return editor.choose([ref]);
    const has = chosenSet.has(keyOf(ref));
    editor.choose(has ? chosen.filter((other) => keyOf(other) !== keyOf(ref)) : [...chosen, ref]);
  };
  return (
    <ListColumn aria-label="Parts of the ground">
      <section aria-label="The game">
        <ListHead>
          <h2>The game</h2>
        </ListHead>
        <ListItem
          type="button"
          aria-pressed={chosen.length === 0}
          onClick={() => editor.choose([])}
        >
          Ground, director, waves <small>{namesOf(ground.waves ?? {}).length || ''}</small>
        </ListItem>
      </section>
      {LAYERS.map(({ id, title, kinds }) => {
        const refs = kinds.flatMap((kind) =>
          partsOf(ground, kind).map(([name]): PartRef => ({ kind, name })),
        );
        const hidden = layers.hidden.includes(id);
        const locked = layers.locked.includes(id);
        return (
          <section key={id} aria-label={title}>
            <ListHead>
              <h2>
                {title} <small>{refs.length}</small>
              </h2>
              <QuietButton
                aria-label={`${hidden ? 'Show' : 'Hide'} ${title}`}
                onPress={() => editor.toggle('hidden', id)}
              >
                {hidden ? <EyeOff size={13} /> : <Eye size={13} />}
              </QuietButton>
              <QuietButton
                aria-label={`${locked ? 'Unlock' : 'Lock'} ${title}`}
                onPress={() => editor.toggle('locked', id)}
              >
                {locked ? <Lock size={13} /> : <LockOpen size={13} />}
              </QuietButton>
            </ListHead>
            {refs.map((ref) => (
              <ListItem
                key={keyOf(ref)}
                type="button"
                aria-pressed={chosenSet.has(keyOf(ref))}
                onClick={(event) => press(ref, event.shiftKey)}
              >
                {titleOf(ground, ref)}{' '}
                <small style={{ fontFamily: 'var(--mono)' }}>{placeText(editor, ref)}</small>
              </ListItem>
            ))}
          </section>
        );
      })}
    </ListColumn>
  );
}
