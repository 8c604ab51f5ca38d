import {
  CHILD_WEIGHT,
  kindOfNode,
  nodeSpec,
  type ActionDocument,
  type DocumentPath,
  type ExpressionPlace,
  type NodeDocument,
  type NodeFieldSpec,
  type OutlineRow,
  type RuleDocument,
  type TreeCallDocument,
} from '@crooked-lantern/core';
import { memo } from 'react';
import styled from 'styled-components';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { useProject } from '../../state/store.ts';
import { Choice } from '../../ui/fields/fields.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { checkNumber, numberIn, OptionalNumberText } from '../../ui/fields/number-text.tsx';
import { Explained } from '../../ui/overlays/tooltip.tsx';
import { CallArguments } from '../actions/call-arguments.tsx';
import { ActionParameters } from '../actions/action-parameters.tsx';
import { partOf } from './visible-rows.ts';
import { RowConduct, RowGuard } from './row-guard.tsx';
import { kindTitle } from './row-words.ts';
import { TierValues } from '../../project/tier-values.tsx';

/** What a row says, each part edited where it stands. */

const Words = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 5px;
  min-width: 0;
  b {
    font-weight: 600;
  }
  small {
    color: var(--mute);
    font-size: 1em;
  }
`;

export interface FieldsProps {
  mind: string;
  path: DocumentPath;
  pathText: string;
  /** The tree it is written in. */
  tree: string | undefined;
  /** “in row 3 of Comb the place”, for readers. */
  where: string;
  /** Fields that are undefined are removed. */
  onSet: (change: Record<string, unknown>) => void;
}

/** A number, or an expression for one. */
function NumberOrExpression({
  value,
  field,
  spec,
  place,
  mind,
  pathText,
  where,
  onSet,
}: FieldsProps & {
  value: unknown;
  field: string;
  spec: { about: string; unit?: 's'; minimum: number; maximum: number };
  place: ExpressionPlace;
}) {
  const label = `${field} ${where}`;
  if (typeof value === 'string')
    return (
      <ExpressionField
        mind={mind}
        label={label}
        value={value}
        path={`${pathText}.${field}`}
        place={place}
        onCommit={(text) => onSet({ [field]: numberIn(text) ?? text })}
      />
    );
  const check = checkNumber(spec);
  return (
    <span>
      <InlineText
        mono
        label={label}
        about={`${spec.about}; a number or an expression`}
        value={String(value)}
        check={(text) => (text.trim() === '' || numberIn(text) !== null ? check(text) : null)}
        onCommit={(text) => onSet({ [field]: numberIn(text) ?? text.trim() })}
      />
      {spec.unit && <small> {spec.unit}</small>}
    </span>
  );
}

function NodeField({
  field,
  spec,
  node,
  ...rest
}: FieldsProps & { field: string; spec: NodeFieldSpec; node: NodeDocument }) {
  const { mind, tree, pathText, where, onSet } = rest;
  const value = (node as unknown as Record<string, unknown>)[field];
  const label = `${field} ${where}`;
  switch (spec.kind) {
    case 'node':
    case 'nodes':
      return null;
    case 'expression':
      return (
        <ExpressionField
          mind={mind}
          label={label}
          value={String(value)}
          path={`${pathText}.${field}`}
          place={{ guard: true, tree }}
          onCommit={(text) => onSet({ [field]: text })}
        />
      );
    case 'number':
      return (
        <span>
          {field !== 'seconds' && <small>{field} </small>}
          <NumberOrExpression
            {...rest}
            value={value}
            field={field}
            spec={spec}
            place={{ number: true, unit: spec.unit, tree }}
          />
        </span>
      );
    case 'whole':
      return (
        <span>
          <small>{field} </small>
          <OptionalNumberText
            label={label}
            about={spec.about}
            spec={{ ...spec, whole: true }}
            value={value as number | undefined}
            placeholder={field === 'times' ? 'without end' : field === 'failures' ? '1' : 'all'}
            onCommit={(number) =>
              (number !== undefined || !spec.required) && onSet({ [field]: number })
            }
          />
          <TierValues path={`${pathText}.${field}`} />
        </span>
      );
    case 'flag':
      // What is usual goes without saying; the row's commands set it.
      return value === true ? <small>from its first row each decision</small> : null;
    case 'result':
      return (
        <span>
          <small>until </small>
          <Choice
            label={label}
            value={String(value ?? '')}
            options={[
              { id: '', title: 'either result' },
              { id: 'success', title: 'success' },
              { id: 'failure', title: 'failure' },
            ]}
            onChoose={(id) => onSet({ [field]: id || undefined })}
          />
        </span>
      );
    case 'name':
      return <CalledName {...rest} field={field} value={String(value)} />;
    case 'arguments':
      return (
        <CallArguments
          mind={mind}
          call={node as TreeCallDocument}
          within={tree}
          path={pathText}
          where={where}
          onChange={(given) => onSet({ with: given })}
        />
      );
  }
}

/** Which tree, rules or choice is called. */
function CalledName({
  mind,
  where,
  field,
  value,
  onSet,
}: FieldsProps & { field: string; value: string }) {
  const named = useProject(({ document }) => {
    const { trees, rules, choices } = document.minds[mind];
    return field === 'tree' ? trees : field === 'choice' ? choices : rules;
  });
  return (
    <Choice
      label={`${field} ${where}`}
      value={value}
      options={Object.entries(named ?? {}).map(([id, { title }]) => ({ id, title: title ?? id }))}
      onChoose={(id) => onSet({ [field]: id })}
    />
  );
}

/** What is not the same in both; undefined where it is gone. */
function changedFields(before: ActionDocument, after: ActionDocument): Record<string, unknown> {
  const fields = new Set([...Object.keys(before), ...Object.keys(after)]);
  return Object.fromEntries(
    [...fields].flatMap((field) => (before[field] === after[field] ? [] : [[field, after[field]]])),
  );
}

function NodeWords({
  row,
  node,
  weighed,
  ...rest
}: FieldsProps & { row: OutlineRow; node: NodeDocument; weighed: boolean }) {
  const { where, onSet, path } = rest;
  const kind = kindOfNode(node);
  return (
    <>
      {node.title !== undefined && (
        <b data-field="title">
          <InlineText
            label={`title ${where}`}
            value={node.title}
            check={(text) => (text.length > 80 ? 'It takes up to 80 characters.' : null)}
            onCommit={(text) => onSet({ title: text.trim() || undefined })}
          />
        </b>
      )}
      <Explained text={node.note}>
        {node.title === undefined ? (
          <b>{kindTitle(row)}</b>
        ) : (
          <small>{kindTitle(row).toLowerCase()}</small>
        )}
      </Explained>
      {kind === 'do' ? (
        <ActionParameters
          mind={rest.mind}
          tree={rest.tree}
          action={node as unknown as ActionDocument}
          path={rest.pathText}
          where={where}
          // Only what the action is done with is changed; what any row may carry stays.
          onChange={(action) => onSet(changedFields(node as unknown as ActionDocument, action))}
        />
      ) : (
        Object.entries(nodeSpec(kind).fields).map(([field, spec]) => (
          <NodeField key={field} field={field} spec={spec} node={node} {...rest} />
        ))
      )}
      {'uninterrupted' in node && <small>uninterrupted</small>}
      <RowGuard node={node} {...rest} />
      {(weighed || node.weight !== undefined) && (
        <span>
          <small>weight </small>
          <NumberOrExpression
            {...rest}
            path={path}
            value={node.weight ?? 1}
            field="weight"
            spec={{ ...CHILD_WEIGHT, unit: undefined }}
            place={{ number: true, tree: rest.tree }}
            onSet={({ weight }) => onSet({ weight: weight === 1 ? undefined : weight })}
          />
        </span>
      )}
    </>
  );
}

function RuleWords({ rule, ...rest }: FieldsProps & { rule: RuleDocument }) {
  const { mind, pathText, where, onSet } = rest;
  return (
    <>
      {rule.title !== undefined && (
        <b data-field="title">
          <InlineText
            label={`title ${where}`}
            value={rule.title}
            onCommit={(text) => onSet({ title: text.trim() || undefined })}
          />
        </b>
      )}
      <Explained text={rule.note}>
        <b>{rule.edge ? 'when' : 'while'}</b>
      </Explained>
      <ExpressionField
        mind={mind}
        label={`test ${where}`}
        value={rule.when}
        path={`${pathText}.when`}
        place={{ guard: true }}
        onCommit={(text) => onSet({ when: text })}
      />
      <Choice
        label={`when it fires, ${where}`}
        value={String(rule.edge === true)}
        options={[
          { id: 'false', title: 'holds: each decision' },
          { id: 'true', title: 'turns true: once' },
        ]}
        onChoose={(id) => onSet({ edge: id === 'true' ? true : undefined })}
      />
      <RowConduct value={rule.conduct} where={where} onSet={onSet} />
    </>
  );
}

/**
 * One row in words. `weighed`: it is a child of a random. With an edit elsewhere a row gets a new place in the
 * outline while it says the same: it is then left as it is.
 */
export const RowFields = memo(
  function RowFields({ row, pathText, ...rest }: RowFieldsProps) {
    const { path } = row;
    const fields = {
      ...rest,
      path,
      pathText,
      tree: placeIn(path),
    };
    switch (row.kind) {
      case 'rule':
        return (
          <Words>
            <RuleWords rule={row.rule} {...fields} />
          </Words>
        );
      case 'else':
        return (
          <Words>
            <b>else</b>
          </Words>
        );
      case 'set':
        return (
          <Words>
            <b>Rules</b> <code>{row.rules}</code>
          </Words>
        );
      case 'options':
        return (
          <Words>
            <b>Choice</b> <code>{row.choice}</code>
          </Words>
        );
      default:
        return (
          <Words>
            {row.option !== undefined && <b>{row.option}:</b>}{' '}
            <NodeWords row={row} node={row.node} {...fields} />
          </Words>
        );
    }
  },
  (before, after) =>
    partOf(before.row) === partOf(after.row) &&
    before.row.kind === after.row.kind &&
    before.pathText === after.pathText &&
    before.where === after.where &&
    before.mind === after.mind &&
    before.weighed === after.weighed,
);

/** Where a row is written, whose own names its expressions may use: a tree, or an option of a choice. */
function placeIn(path: OutlineRow['path']): string | undefined {
  if (path[2] === 'trees') return String(path[3]);
  return path[2] === 'choices' ? `${path[3]}.${path[5]}` : undefined;
}

type RowFieldsProps = Omit<FieldsProps, 'path' | 'tree'> & { row: OutlineRow; weighed: boolean };
