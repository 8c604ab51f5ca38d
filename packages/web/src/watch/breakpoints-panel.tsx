import {
  allAgents,
  BREAKPOINT_FIELDS,
  BREAKPOINT_KINDS,
  breakpointWords,
  freshIn,
  mindMeant,
  namesMeant,
  namesOf,
  secondMeant,
  withoutUndefined,
  type BreakpointDocument,
  type BreakpointKind,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import styled from 'styled-components';
import { ExpressionField } from '../expression/expression-field.tsx';
import { useEngine } from '../engine/use-engine.tsx';
import { useGoBack } from '../engine/use-go-back.ts';
import { Sheet } from '../minds/sheet-layout.ts';
import { RowFindings } from '../findings/row-findings.tsx';
import { useProject } from '../state/store.ts';
import { useEdit } from '../state/use-edit.ts';
import { Button, QuietButton, RemoveButton, Toggle } from '../ui/button.tsx';
import { Choice } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { OptionalNumberText } from '../ui/fields/number-text.tsx';
import { runInBackground } from '../state/failures.ts';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  > button:last-child {
    margin-left: auto;
  }
`;

const Item = styled.li`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  align-items: start;
  gap: 2px 6px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  &[data-off] > div {
    opacity: 0.75;
  }
`;

const KINDS = (Object.keys(BREAKPOINT_KINDS) as BreakpointKind[]).map((id) => ({
  id,
  title: BREAKPOINT_KINDS[id].title,
}));

/** Every agent, each kind, and each agent of the ground: `archetype:warden`, `agent:warden1`. */
function whoOptions(document: ProjectDocument) {
  return [
    { id: '', title: 'any agent' },
    ...namesOf(document.archetypes).map((name) => ({
      id: `archetype:${name}`,
      title: `any ${document.archetypes[name].title}`,
    })),
    ...allAgents(document).map(({ name, title }) => ({ id: `agent:${name}`, title })),
  ];
}

const ANY = { id: '', title: 'any' };

function OneBreakpoint({ name, breakpoint }: { name: string; breakpoint: BreakpointDocument }) {
  const document = useProject((project) => project.document);
  const { put, trouble } = useEdit();
  const { on, of = '', when = '', agent, archetype, after, off = false } = breakpoint;
  const words = breakpointWords(breakpoint);
  const set = (change: Partial<BreakpointDocument>) =>
    put(['breakpoints', name], withoutUndefined({ ...breakpoint, ...change }));
  const parts = of.split(':');
  const setPart = (at: number, value: string) => {
    const next = [...parts];
    while (next.length <= at) next.push('');
    next[at] = value.trim();
    while (next.length > 0 && next[next.length - 1] === '') next.pop();
    set({ of: next.length > 0 ? next.join(':') : undefined });
  };
  const who = agent === undefined ? (archetype ? `archetype:${archetype}` : '') : `agent:${agent}`;
  const first = namesMeant(document, breakpoint);
  const second = secondMeant(document, breakpoint);
  return (
    <Item data-off={off || undefined}>
      <Toggle
        isSelected={!off}
        onChange={(isOn) => set({ off: isOn ? undefined : true })}
        aria-label={`Stop when ${words}`}
      >
        {off ? 'off' : 'on'}
      </Toggle>
      <div>
        <Choice
          label={`Agents: ${words}`}
          value={who}
          options={whoOptions(document)}
          onChoose={(id) => {
            const [kind, chosen] = id.split(':');
            set({
              agent: kind === 'agent' ? chosen : undefined,
              archetype: kind === 'archetype' ? chosen : undefined,
            });
          }}
        />
        <Choice
          label={`When: ${words}`}
          value={on}
          options={KINDS}
          onChoose={(id) =>
            // What another kind names means nothing here.
            id !== on && set({ on: id as BreakpointKind, of: undefined, when: undefined })
          }
        />
        {on === 'condition' ? (
          <ExpressionField
            mind={mindMeant(document, breakpoint)}
            label={`Condition of ${name}`}
            value={when}
            path={`breakpoints.${name}.when`}
            place={{ guard: true }}
            onCommit={(source) => set({ when: source })}
          />
        ) : (
          BREAKPOINT_KINDS[on].of.map((part, at) => {
            const options = at === 0 ? (first?.names ?? null) : at === 1 ? second : null;
            return options ? (
              <Choice
                key={part}
                label={`${part}: ${words}`}
                value={parts[at] ?? ''}
                options={[{ ...ANY, title: `any ${part}` }, ...options]}
                onChoose={(id) => setPart(at, id)}
              />
            ) : (
              <InlineText
                key={part}
                label={`${part} of ${words}`}
                value={parts[at] ?? ''}
                placeholder={`any ${part}`}
                onCommit={(text) => setPart(at, text)}
              />
            );
          })
        )}
        <OptionalNumberText
          label={`${BREAKPOINT_FIELDS.after.label}: ${words}`}
          about={BREAKPOINT_FIELDS.after.about}
          spec={BREAKPOINT_FIELDS.after}
          value={after}
          shown={after === undefined ? 'each time' : `from time ${after} on`}
          onCommit={(value) => set({ after: value })}
        />
        <RowFindings path={`breakpoints.${name}`} />
        {trouble && <p role="alert">{trouble}</p>}
      </div>
      <RemoveButton
        label={`Remove the breakpoint: ${words}`}
        onPress={() => put(['breakpoints', name], undefined)}
      />
    </Item>
  );
}

/** Where the run stops by itself: what is to happen, to which agent, and from which time on. */
export function BreakpointsPanel({ agent }: { agent: string | null }) {
  const engine = useEngine();
  const breakpoints = useProject((project) => project.document.breakpoints);
  const { put, trouble } = useEdit();
  const { goBack, refused } = useGoBack();
  const names = namesOf(breakpoints ?? {});
  const add = () =>
    put(
      ['breakpoints', freshIn(breakpoints, 'stop')],
      withoutUndefined({ on: 'enter', agent: agent ?? undefined }),
    );
  return (
    <Sheet aria-label="Breakpoints">
      <Head>
        {names.length > 0 && (
          <>
            <QuietButton
              aria-label="Back to where a breakpoint was met last (Shift+N)"
              onPress={() => runInBackground(goBack())}
            >
              back to the last
            </QuietButton>
            <Button aria-label="Run on to the next breakpoint (N)" onPress={() => engine.runOn()}>
              run to the next
            </Button>
          </>
        )}
        <QuietButton aria-label="New breakpoint" onPress={add}>
          <Plus size={14} />
        </QuietButton>
      </Head>
      {names.length === 0 ? (
        <p>
          The run stops by itself at what is listed here. Add one with +, or in Minds with Shift+B
          for the state that is chosen.
        </p>
      ) : (
        <ul>
          {names.map((name) => (
            <OneBreakpoint key={name} name={name} breakpoint={breakpoints![name]} />
          ))}
        </ul>
      )}
      {refused && <p role="alert">{refused}</p>}
      {trouble && <p role="alert">{trouble}</p>}
    </Sheet>
  );
}
