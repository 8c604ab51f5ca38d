import {
  actionSpec,
  EVENT_PATTERN,
  namesFor,
  WORD_PATTERN,
  type ActionDocument,
  type ParameterSpec,
} from '@crooked-lantern/core';
import { Fragment } from 'react';
import styled from 'styled-components';
import { ExpressionField } from '../../expression/expression-field.tsx';
import { useProject } from '../../state/store.ts';
import { QuietButton } from '../../ui/button.tsx';
import { InlineText } from '../../ui/fields/inline-text.tsx';
import { Menu } from '../../ui/overlays/menu.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import { useDeclareKey } from '../../expression/declare-key.tsx';
import { TierValues } from '../../project/tier-values.tsx';

const Small = styled.span`
  color: var(--mute);
`;

const Choice = styled(QuietButton)`
  min-height: 24px;
  color: var(--bone);
  font-family: var(--mono);
  font-weight: 400;
`;

interface ParameterProps {
  mind: string;
  /** The tree it stands in, whose parameters are names too. */
  tree?: string;
  action: ActionDocument;
  name: string;
  spec: ParameterSpec;
  path: string;
  where: string;
  onChange: (action: ActionDocument) => void;
}

/** What is written as it is, in words of the mind's own, with why a text can't be taken. */
const WORDS: Partial<Record<ParameterSpec['kind'], (text: string) => string | null>> = {
  word: (text) => (WORD_PATTERN.test(text) ? null : 'It takes one word of letters and digits.'),
  event: (text) =>
    EVENT_PATTERN.test(text) ? null : 'An event name has letters, digits and dots.',
};

function Parameter({ mind, tree, action, name, spec, path, where, onChange }: ParameterProps) {
  const document = useProject((project) => project.document);
  const { ask, dialog } = useDeclareKey(mind);
  const value = action[name];
  const label = `${name} of ${action.do}, ${where}`;
  const set = (next: string | number) => onChange({ ...action, [name]: next });
  const names = namesFor(document, mind, action.do, spec);
  if (names) {
    const chosen = value ?? spec.default;
    const isKey = spec.kind === 'key' || spec.kind === 'list';
    const entries = names.map((option) => ({
      id: option,
      text: option,
      label: option,
      onAction: () => set(option),
    }));
    const declare = {
      // No key can have this name.
      id: '+',
      text: 'Declare a new one',
      label: 'Declare a new one …',
      onAction: () => ask({ list: spec.kind === 'list', onDeclared: set }),
    };
    return (
      <>
        <Menu label={label} entries={isKey ? [...entries, declare] : entries}>
          <Choice aria-label={`${label}: ${chosen}. Choose`}>{chosen}</Choice>
        </Menu>
        {dialog}
      </>
    );
  }
  if (spec.kind === 'text') {
    return (
      <InlineText
        shown={`“${String(value)}”`}
        label={label}
        value={String(value)}
        check={(text) =>
          text === '' || text.length > 200 ? 'It takes 1 to 200 characters.' : null
        }
        onCommit={set}
      />
    );
  }
  const checkWords = WORDS[spec.kind];
  if (checkWords)
    return (
      <InlineText mono label={label} value={String(value)} check={checkWords} onCommit={set} />
    );
  if (spec.kind === 'number' && typeof value !== 'string') {
    const shown = value ?? spec.default ?? 0;
    return (
      <span>
        <NumberText
          label={label}
          spec={{ minimum: -1e4, maximum: 1e4, ...spec }}
          value={Number(shown)}
          onCommit={set}
        />
        {spec.unit && <Small> {spec.unit === 'deg' ? '°' : spec.unit}</Small>}
        <TierValues path={`${path}.${name}`} />
      </span>
    );
  }
  return (
    <ExpressionField
      mind={mind}
      label={label}
      value={String(value ?? spec.default ?? '')}
      path={`${path}.${name}`}
      place={{ tree, action, parameter: name }}
      onCommit={set}
      onClear={() => {
        if (spec.required) return `“${name}” can’t be left out: ${spec.about}.`;
        const { [name]: _, ...rest } = action;
        onChange(rest as ActionDocument);
        return null;
      }}
    />
  );
}

/** What an action is done with, each edited where it stands. */
export function ActionParameters({ action, ...rest }: Omit<ParameterProps, 'name' | 'spec'>) {
  const parameters = Object.entries<ParameterSpec>(actionSpec(action.do)?.parameters ?? {});
  return parameters.map(([name, spec], i) => (
    <Fragment key={name}>
      {i > 0 && <Small>{spec.kind === 'value' ? '=' : name}</Small>}
      <Parameter action={action} name={name} spec={spec} {...rest} />
    </Fragment>
  ));
}
