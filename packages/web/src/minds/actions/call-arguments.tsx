import type { TreeCallDocument } from '@crooked-lantern/core';
import { Fragment } from 'react';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { useProject } from '../../state/store.ts';
import { numberIn } from '../../ui/fields/number-text.tsx';

/** What a tree is called with: a field for each of its parameters, and for what it is given without having one. */
export function CallArguments({
  mind,
  call: { tree: called, with: given = {} },
  within,
  path,
  where,
  onChange,
}: {
  mind: string;
  call: Pick<TreeCallDocument, 'tree' | 'with'>;
  /** The tree that the call is written in. */
  within?: string;
  /** Path of the call in the document. */
  path: string;
  /** “in row 3 of Comb the place”, for readers. */
  where: string;
  onChange: (given: TreeCallDocument['with']) => void;
}) {
  const parameters = useProject(({ document }) => document.minds[mind].trees?.[called]?.parameters);
  const names = [...new Set([...Object.keys(parameters ?? {}), ...Object.keys(given)])].sort();
  return names.map((name) => (
    <Fragment key={name}>
      <small>{name}</small>
      <ExpressionField
        mind={mind}
        label={`${name} ${where}`}
        value={String(given[name] ?? '')}
        path={`${path}.with.${name}`}
        place={{ argument: parameters?.[name] ?? 'number', tree: within }}
        onCommit={(text) => onChange({ ...given, [name]: numberIn(text) ?? text })}
        onClear={() => {
          const { [name]: _, ...left } = given;
          onChange(Object.keys(left).length > 0 ? left : undefined);
          return null;
        }}
      />
    </Fragment>
  ));
}
