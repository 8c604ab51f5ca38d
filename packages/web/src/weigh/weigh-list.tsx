import { nameFromWords, namesOf, type BandSetDocument } from '@crooked-lantern/core';
import { memo } from 'react';
import { FindingList } from '../findings/finding-list.tsx';
import { LiveAgents } from '../minds/live/live-agents.tsx';
import { useAgentsWith } from '../minds/use-selection.ts';
import { perform } from '../state/perform.ts';
import { useAppDispatch, useProject } from '../state/store.ts';
import { useAskText } from '../ui/fields/ask-text.tsx';
import { checkTitle } from '../ui/fields/fields.tsx';
import { ListGroup } from '../ui/overlays/list-group.tsx';
import { ListColumn, ListItem } from '../ui/place.ts';
import type { MenuEntry } from '../ui/overlays/menu.tsx';
import type { Weighing } from './use-weighing.ts';

/** Bands to begin from: near and far, of the agent that the attention is on. */
const FRESH_BANDS: Omit<BandSetDocument, 'title'> = {
  input: 'distance(attention.of)',
  bands: [
    { name: 'near', fullTo: 2, to: 4 },
    { name: 'far', from: 2, fullFrom: 4 },
  ],
};

/** All choices by mind, the agents that have the mind, and the bands of the project. */
export const WeighList = memo(function WeighList({ weighing }: { weighing: Weighing }) {
  const { mind, choice, bands, tiers, figures, agent, select } = weighing;
  const document = useProject((project) => project.document);
  const dispatch = useAppDispatch();
  const { ask, dialog } = useAskText();
  const agents = useAgentsWith(mind);
  const newChoice = (to: string) =>
    ask({
      title: `A new choice for ${document.minds[to].title}`,
      label: 'Title',
      verb: 'Add it',
      value: 'What now?',
      check: checkTitle,
      onGive: (title) => {
        const name = nameFromWords(title, document.minds[to].choices, 'choice');
        const path = ['minds', to, 'choices', name];
        const value = { title, options: [] };
        const refused = dispatch(perform({ command: 'put', how: 'set', path, value }));
        if (refused === null) select({ mind: to, choice: name });
        return refused;
      },
    });
  const newBands = () =>
    ask({
      title: 'New bands',
      label: 'Title',
      verb: 'Add them',
      value: 'Range',
      check: checkTitle,
      onGive: (title) => {
        const name = nameFromWords(title, document.bands, 'bands');
        const value = { title, ...FRESH_BANDS };
        const refused = dispatch(
          perform({ command: 'put', how: 'set', path: ['bands', name], value }),
        );
        if (refused === null) select({ bands: name });
        return refused;
      },
    });
  const minds = namesOf(document.minds);
  const ways = minds.map((name): MenuEntry => ({
    id: name,
    text: `For ${document.minds[name].title}`,
    label: `For ${document.minds[name].title} …`,
    onAction: () => newChoice(name),
  }));
  const sets = document.bands ?? {};
  return (
    <ListColumn aria-label="Choices and bands">
      <ListGroup title="Choices" add={{ what: 'a choice', run: ways }}>
        {minds.flatMap((name) => {
          const choices = document.minds[name].choices ?? {};
          return namesOf(choices).map((each) => (
            <ListItem
              key={`${name} ${each}`}
              type="button"
              aria-current={
                name === mind && each === choice && bands === null && tiers === null && !figures
              }
              onClick={() =>
                name === mind && each === choice
                  ? select({ option: null })
                  : select({ mind: name, choice: each })
              }
            >
              {choices[each].title ?? each} <small>{document.minds[name].title}</small>
            </ListItem>
          ));
        })}
      </ListGroup>
      {choice !== '' && (
        <LiveAgents agents={agents} shown={agent} onChoose={(name) => select({ agent: name })} />
      )}
      <ListGroup title="Bands" add={{ what: 'bands', run: newBands }}>
        {namesOf(sets).map((name) => (
          <ListItem
            key={name}
            type="button"
            aria-current={name === bands}
            onClick={() => select({ bands: name })}
          >
            {sets[name].title ?? name} <small>{sets[name].bands.length}</small>
          </ListItem>
        ))}
      </ListGroup>
      <ListGroup title="Tiers">
        <ListItem
          type="button"
          aria-current={tiers !== null}
          onClick={() => select({ tiers: true })}
        >
          Numbers by tier <small>{document.tiers?.length ?? 'none'}</small>
        </ListItem>
      </ListGroup>
      <ListGroup title="Fights">
        <ListItem type="button" aria-current={figures} onClick={() => select({ figures: true })}>
          Figures by move
        </ListItem>
      </ListGroup>
      <ListGroup title="Findings">
        <FindingList />
      </ListGroup>
      {dialog}
    </ListColumn>
  );
});
