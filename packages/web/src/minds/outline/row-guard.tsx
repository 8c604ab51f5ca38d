import type { NodeDocument } from '@crooked-lantern/core';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { useProject } from '../../state/store.ts';
import { Choice } from '../../ui/fields/fields.tsx';
import type { FieldsProps } from './row-fields.tsx';
import { GUARD_MODES, guardMode, MODE_FIELDS, type GuardMode } from './row-words.ts';

/** When a row may start: its guard, when that is looked at, and whether it is always obeyed. */

const CONDUCT = [
  { id: '', title: 'always' },
  { id: 'conduct', title: 'as a rule of conduct' },
];

/** Whether a guard is a rule of conduct; shown where some archetype may disobey one. */
export function RowConduct({
  value,
  where,
  onSet,
}: Pick<FieldsProps, 'where' | 'onSet'> & { value: true | undefined }) {
  const mayMatter = useProject(({ document }) =>
    Object.values(document.archetypes).some(({ obedience = 1 }) => obedience < 1),
  );
  if (!mayMatter && !value) return null;
  return (
    <Choice
      label={`whether it is always obeyed, ${where}`}
      value={value ? 'conduct' : ''}
      options={CONDUCT}
      onChoose={(id) => onSet({ conduct: id === 'conduct' ? true : undefined })}
    />
  );
}

export function RowGuard({
  node,
  mind,
  tree,
  pathText,
  where,
  onSet,
}: FieldsProps & { node: NodeDocument }) {
  if (node.when === undefined) return null;
  return (
    <>
      <small>if</small>
      <span data-field="guard">
        <ExpressionField
          mind={mind}
          label={`guard ${where}`}
          value={node.when}
          path={`${pathText}.when`}
          place={{ guard: true, tree }}
          onCommit={(text) => onSet({ when: text })}
          onClear={() => {
            onSet({ when: undefined, holds: undefined, preempts: undefined, conduct: undefined });
            return null;
          }}
        />
      </span>
      <Choice
        label={`when the guard is looked at, ${where}`}
        value={guardMode(node)}
        options={GUARD_MODES}
        onChoose={(id) => {
          onSet(MODE_FIELDS[id as GuardMode]);
        }}
      />
      <RowConduct value={node.conduct} where={where} onSet={onSet} />
    </>
  );
}
