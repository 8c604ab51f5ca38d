import {
  addMind,
  emptyMind,
  nameFromWords,
  namesOf,
  type MindForm,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { memo, Suspense, useRef, useState } from 'react';
import styled from 'styled-components';
import { useDrawing } from '../engine/use-engine.tsx';
import { useDeclareKey } from '../expression/declare-key.tsx';
import { FindingList } from '../findings/finding-list.tsx';
import { perform } from '../state/perform.ts';
import { useAppDispatch, useDocumentNow, useProject } from '../state/store.ts';
import { useAskText } from '../ui/fields/ask-text.tsx';
import { counted } from '../ui/words/counted.ts';
import { checkTitle } from '../ui/fields/fields.tsx';
import { ListGroup } from '../ui/overlays/list-group.tsx';
import type { MenuEntry } from '../ui/overlays/menu.tsx';
import { ListColumn, ListItem } from '../ui/place.ts';
import { Explained } from '../ui/overlays/tooltip.tsx';
import { listStates } from './document-names.ts';
import { LiveAgents } from './live/live-agents.tsx';
import { memoryText } from './memory/memory-text.ts';
import type { CalledPart } from './actions/activity-call.tsx';
import { useAgentsWith, type Selection } from './use-selection.ts';
import { writeText } from '../ui/timing/write-live.ts';
import { latePart, overThePage } from '../loading/late-part.tsx';

const PatternDialog = latePart(
  'the patterns',
  () => import('./pattern-dialog.tsx').then((file) => file.PatternDialog),
  overThePage,
);

const Key = styled.li`
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 2px 8px;
  color: var(--mute);
  code {
    font-family: var(--mono);
  }
  > span:last-child {
    grid-column: 1 / -1;
    padding-left: 10px;
    font-family: var(--mono);
    color: var(--bone);
    min-height: 1.4em;
  }
`;

/** Values of the watched agent's memory, written straight to the page. */
function MemoryValue({ name }: { name: string }) {
  const box = useRef<HTMLSpanElement>(null);
  useDrawing(({ frame }) => {
    if (!box.current) return;
    const entry = frame?.readout?.memory.find(({ key }) => key === name);
    writeText(box.current, memoryText(entry));
  });
  return <span ref={box} aria-live="off" />;
}

/** “11 states”, or what the mind is besides. */
function sizeOf(document: ProjectDocument, mind: string): string {
  const { machine, activity } = document.minds[mind];
  if (machine) return counted(listStates(document, mind).length, 'state');
  if (activity && 'tree' in activity) return 'tree';
  if (activity && 'choice' in activity) return 'choice';
  return activity && 'rules' in activity ? 'rules' : 'action';
}

/** What the list says of each mind. */
function listMinds(document: ProjectDocument) {
  return namesOf(document.minds).map((name) => ({
    name,
    title: document.minds[name].title,
    size: sizeOf(document, name),
  }));
}

type Listed = ReturnType<typeof listMinds>;

function isSameList(a: Listed, b: Listed): boolean {
  return (
    a.length === b.length &&
    a.every(
      ({ name, title, size }, i) =>
        name === b[i].name && title === b[i].title && size === b[i].size,
    )
  );
}

const FORMS: Record<MindForm, string> = {
  machine: 'A state machine',
  tree: 'A behaviour tree',
  rules: 'A set of rules',
  choice: 'A choice',
};

/** The part of a mind that is opened where it is of that form. */
const PART_OF_FORM = { tree: 'trees', rules: 'rules', choice: 'choices' } as const;

interface ListProps {
  selection: Selection;
  select: (change: Partial<Selection>) => void;
}

/** All minds, and what adds one. */
const Minds = memo(function Minds({ selection, select }: ListProps) {
  const minds = useProject(({ document }) => listMinds(document), isSameList);
  const documentNow = useDocumentNow();
  const dispatch = useAppDispatch();
  const { ask, dialog } = useAskText();
  const [choosing, setChoosing] = useState(false);
  const ways = (Object.keys(FORMS) as MindForm[]).map((form): MenuEntry => ({
    id: form,
    text: FORMS[form],
    label: FORMS[form],
    onAction: () =>
      ask({
        title: `${FORMS[form]} as a new mind`,
        label: 'Title',
        verb: 'Add it',
        value: 'New mind',
        check: checkTitle,
        onGive: (title) => {
          const { name, command } = addMind(documentNow(), emptyMind(title, form));
          const refused = dispatch(perform(command));
          if (refused === null)
            select({
              mind: name,
              sheet: form === 'machine' ? null : `${PART_OF_FORM[form]}.main`,
            });
          return refused;
        },
      }),
  }));
  const pattern: MenuEntry = {
    id: 'pattern',
    text: 'From a pattern',
    label: 'From a pattern …',
    onAction: () => setChoosing(true),
  };
  return (
    <ListGroup title="Minds" add={{ what: 'a mind', run: [...ways, pattern] }}>
      {minds.map(({ name, title, size }) => (
        <ListItem
          key={name}
          type="button"
          aria-current={name === selection.mind && selection.sheet === null}
          aria-pressed={name === selection.mind}
          onClick={() => select({ mind: name, sheet: null })}
        >
          {title} <small>{size}</small>
        </ListItem>
      ))}
      <ListItem
        type="button"
        aria-current={selection.sheet === 'mind'}
        onClick={() => select({ sheet: 'mind' })}
      >
        <small>About {minds.find(({ name }) => name === selection.mind)?.title} …</small>
      </ListItem>
      {dialog}
      {choosing && (
        <Suspense fallback={null}>
          <PatternDialog
            onClose={() => setChoosing(false)}
            onMade={(mind) => {
              setChoosing(false);
              select({ mind, sheet: null });
            }}
          />
        </Suspense>
      )}
    </ListGroup>
  );
});

interface PartWords {
  title: string;
  /** What one is called. */
  one: string;
  fresh: string;
  name: string;
  empty: (title: string) => unknown;
}

const PARTS: Record<CalledPart, PartWords> = {
  trees: {
    title: 'Trees',
    one: 'tree',
    fresh: 'New tree',
    name: 'tree',
    empty: (title) => ({ title, root: { sequence: [] } }),
  },
  rules: {
    title: 'Rules',
    one: 'set of rules',
    fresh: 'New rules',
    name: 'rules',
    empty: (title) => ({ title, rows: [] }),
  },
  choices: {
    title: 'Choices',
    one: 'choice',
    fresh: 'New choice',
    name: 'choice',
    empty: (title) => ({ title, options: [] }),
  },
};

/** The trees, rules or choices of the mind. */
function Parts({ selection, select, part }: ListProps & { part: CalledPart }) {
  const { mind } = selection;
  const record = useProject(({ document }) => document.minds[mind]?.[part]) ?? {};
  const dispatch = useAppDispatch();
  const { ask, dialog } = useAskText();
  const words = PARTS[part];
  const add = () =>
    ask({
      title: `A new ${words.one}`,
      label: 'Title',
      verb: 'Add it',
      value: words.fresh,
      check: checkTitle,
      onGive: (title) => {
        const name = nameFromWords(title, record, words.name);
        const path = ['minds', mind, part, name];
        const refused = dispatch(
          perform({ command: 'put', how: 'set', path, value: words.empty(title) }),
        );
        if (refused === null) select({ sheet: `${part}.${name}` });
        return refused;
      },
    });
  return (
    <ListGroup title={words.title} add={{ what: `a ${words.one}`, run: add }}>
      {namesOf(record).map((name) => (
        <ListItem
          key={name}
          type="button"
          aria-current={selection.sheet === `${part}.${name}`}
          onClick={() => select({ sheet: `${part}.${name}` })}
        >
          {record[name].title ?? name}
        </ListItem>
      ))}
      {dialog}
    </ListGroup>
  );
}

function Memory({ selection, select }: ListProps) {
  const memory = useProject(({ document }) => document.minds[selection.mind]?.memory) ?? {};
  const { ask, dialog } = useDeclareKey(selection.mind);
  const keys = namesOf(memory);
  return (
    <ListGroup
      title="Memory"
      add={{
        what: 'a key',
        run: () => ask({ onDeclared: () => select({ sheet: 'memory' }) }),
      }}
    >
      <ul>
        {keys.map((key) => (
          <Key key={key}>
            <Explained text={memory[key].note}>{memory[key].title ?? <code>{key}</code>}</Explained>
            {memory[key].type}
            <MemoryValue name={key} />
          </Key>
        ))}
      </ul>
      {keys.length > 0 && (
        <ListItem
          type="button"
          aria-current={selection.sheet === 'memory'}
          onClick={() => select({ sheet: 'memory' })}
        >
          <small>All about memory …</small>
        </ListItem>
      )}
      {dialog}
    </ListGroup>
  );
}

/** What there is to write and to watch: minds, the agents that have the chosen one, its trees, rules and memory. */
export const MindList = memo(function MindList(props: ListProps) {
  const { selection, select } = props;
  const agents = useAgentsWith(selection.mind);
  return (
    <ListColumn aria-label="Minds">
      <Minds {...props} />
      <LiveAgents agents={agents} shown={selection.agent} onChoose={(agent) => select({ agent })} />
      <Parts {...props} part="trees" />
      <Parts {...props} part="rules" />
      <Parts {...props} part="choices" />
      <Memory {...props} />
      <ListGroup title="Findings">
        <FindingList />
      </ListGroup>
    </ListColumn>
  );
});
