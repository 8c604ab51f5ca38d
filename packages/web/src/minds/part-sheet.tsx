import {
  namesOf,
  PARAMETER_TYPES,
  type ActivityDocument,
  type ClipContent,
  type TreeDocument,
} from '@crooked-lantern/core';
import { ArrowLeft, Plus } from 'lucide-react';
import { memo, useMemo } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';
import { useEdit, type Editing } from '../state/use-edit.ts';
import { Button, QuietButton, RemoveButton } from '../ui/button.tsx';
import { CoverageToggle } from '../shell/coverage-toggle.tsx';
import { checkName, checkTitle, Choice } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { NoteText } from '../ui/fields/note-text.tsx';
import type { CalledPart } from './actions/activity-call.tsx';
import { CopyButton } from './copy-button.tsx';
import { Mentions, useMentions } from './mentions.tsx';
import { Outline } from './outline/outline.tsx';
import { RowFindings } from '../findings/row-findings.tsx';
import { PartTitle, Sheet, Trouble } from './sheet-layout.ts';
import { isWriting } from './use-paste.tsx';
import type { Selection } from './use-selection.ts';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 10px;
  padding-bottom: 6px;
  border-bottom: 1px solid var(--line);
  color: var(--mute);
  > div {
    display: flex;
    gap: 6px;
    margin-left: auto;
  }
`;

const NONE: NonNullable<TreeDocument['parameters']> = {};

/** What a call of the tree must bring. */
const Parameters = memo(function Parameters({
  mind,
  tree,
  editing,
}: {
  mind: string;
  tree: string;
  editing: Editing;
}) {
  const parameters = useProject(
    ({ document }) => document.minds[mind].trees![tree].parameters ?? NONE,
  );
  const path = (name: string) => ['minds', mind, 'trees', tree, 'parameters', name];
  const { run, put } = editing;
  const fresh = () => {
    let name = 'place';
    for (let i = 2; Object.hasOwn(parameters, name); i++) name = `place${i}`;
    return name;
  };
  return (
    <div>
      {namesOf(parameters).map((name) => (
        <span key={name} style={{ marginRight: 10 }}>
          <InlineText
            mono
            label={`name of the parameter ${name}`}
            value={name}
            check={checkName(name, parameters)}
            onCommit={(to) => run({ command: 'renameParameter', mind, tree, name, to })}
          />
          <Choice
            label={`type of the parameter ${name}`}
            value={parameters[name]}
            options={PARAMETER_TYPES.map((id) => ({ id, title: id }))}
            onChoose={(type) => put(path(name), type)}
          />
          <RemoveButton
            label={`Remove the parameter ${name}`}
            onPress={() => put(path(name), undefined)}
          />
          <RowFindings path={`minds.${mind}.trees.${tree}.parameters.${name}`} />
        </span>
      ))}
      <QuietButton onPress={() => put(path(fresh()), 'point')} style={{ minHeight: 24 }}>
        <Plus size={13} /> Add a parameter
      </QuietButton>
    </div>
  );
});

const WORDS: Record<CalledPart, string> = { trees: 'tree', rules: 'rules', choices: 'choice' };

/** What calls the part, and what a copy of it holds. */
function callOf(
  part: CalledPart,
  name: string,
): { activity: ActivityDocument; content: ClipContent } {
  if (part === 'trees') return { activity: { tree: name }, content: { tree: name } };
  if (part === 'rules') return { activity: { rules: name }, content: { ruleSet: name } };
  return { activity: { choice: name }, content: { choice: name } };
}

/** A tree, a set of rules or a choice by itself. */
export function PartSheet({
  selection,
  part,
  name,
  select,
  startsFocused,
}: {
  selection: Selection;
  part: CalledPart;
  name: string;
  select: (change: Partial<Selection>) => void;
  /** Its first row takes the focus. */
  startsFocused: boolean;
}) {
  const { mind } = selection;
  const document = useProject((project) => project.document.minds[mind]);
  const editing = useEdit();
  const id = useProject((project) => project.id);
  const mentions = useMentions(mind, part, name);
  const { run, put, trouble } = editing;
  const { activity, content } = useMemo(() => callOf(part, name), [part, name]);
  const entry = document?.[part]?.[name];
  const word = WORDS[part];
  if (!entry)
    return (
      <Sheet aria-label={`No such ${word}`}>
        <p>
          {document?.title} has no {word} “{name}”.
        </p>
        <Button onPress={() => select({ sheet: null })}>
          <ArrowLeft size={14} /> Back
        </Button>
      </Sheet>
    );
  const title = entry.title ?? name;
  const at = (field: string) => ['minds', mind, part, name, field];
  return (
    <Sheet
      aria-label={`${word} ${title}`}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented && !isWriting(event.target))
          select({ sheet: null });
      }}
    >
      <Head>
        <PartTitle>
          <InlineText
            label={`Title of ${title}`}
            value={title}
            check={(text) => checkTitle(text)}
            onCommit={(text) => put(at('title'), text.trim())}
          />
        </PartTitle>
        <span>
          {word}{' '}
          <InlineText
            mono
            label={`Name of ${title} in the file`}
            value={name}
            check={checkName(name, document[part] ?? {})}
            onCommit={(to) => {
              if (run({ command: 'renameInMind', mind, part, name, to }))
                select({ sheet: `${part}.${to}` });
            }}
          />
          {' · '}
          <Mentions verb="called" mentions={mentions} />
        </span>
        <div>
          <CoverageToggle />
          <CopyButton what={`${word} ${title}`} mind={mind} content={content} />
          <Button onPress={() => select({ sheet: null })}>
            <ArrowLeft size={14} /> Back to the {document.machine ? 'states' : 'mind'}
          </Button>
        </div>
      </Head>
      <NoteText
        label={`Note on ${title}`}
        note={entry.note}
        onCommit={(text) => put(at('note'), text)}
      />
      {part === 'choices' && (
        <p>
          What speaks for each option, and what it is worth now:{' '}
          <Link to={`/projects/${id}/weigh/${mind}/${name}`}>weigh it</Link>.
        </p>
      )}
      {part === 'trees' && <Parameters mind={mind} tree={name} editing={editing} />}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <RowFindings path={`minds.${mind}.${part}.${name}`} own />
      <Outline
        mind={mind}
        activity={activity}
        label={`Rows of ${title}`}
        place={title}
        startsFocused={startsFocused}
        onOpen={(to, called) => select({ sheet: `${to}.${called}` })}
      />
    </Sheet>
  );
}
