import {
  findState,
  namesOf,
  remedyOf,
  OBSERVATIONS,
  type ObservationKind,
} from '@crooked-lantern/core';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { NoticedObservation } from '../../engine/protocol.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { PartTitle, Sheet, Trouble } from '../../minds/sheet-layout.ts';
import { useProject } from '../../state/store.ts';
import { useEdit } from '../../state/use-edit.ts';
import { Button, QuietButton, Toggle } from '../../ui/button.tsx';
import { counted } from '../../ui/words/counted.ts';
import { Choice } from '../../ui/fields/fields.tsx';
import { clockText } from '../../ui/words/time.ts';
import { useTitleOf } from '../use-title-of.ts';
import { Limits } from './limits.tsx';
import { useObservations } from './use-observations.ts';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  > button:last-child {
    margin-left: auto;
  }
`;

const Item = styled.li`
  padding: 6px 4px;
  border-bottom: 1px solid var(--line);
  h3 {
    font-weight: 600;
    small {
      margin-left: 8px;
      color: var(--mute);
      font-weight: 400;
      font-size: 0.92em;
    }
  }
  p {
    overflow-wrap: anywhere;
  }
  p + p {
    color: var(--mute);
  }
  footer {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 2px 4px;
    color: var(--mute);
  }
  footer button {
    min-height: 24px;
    padding: 0 4px;
    font-weight: 400;
  }
  footer button.moment {
    color: var(--sight);
    font-family: var(--mono);
  }
`;

/** So many moments of one observation are listed, the latest. */
const MOMENTS = 6;

/** The same of several agents, the one it was noticed of last first. */
type Group = readonly [NoticedObservation, ...NoticedObservation[]];

function grouped(observations: readonly NoticedObservation[]): Group[] {
  const groups = new Map<string, [NoticedObservation, ...NoticedObservation[]]>();
  for (const observation of observations) {
    const key = `${observation.kind} ${observation.key}`;
    const group = groups.get(key);
    if (group) group.push(observation);
    else groups.set(key, [observation]);
  }
  return [...groups.values()];
}

function OneObservation({ group, runs }: { group: Group; runs: number }) {
  const [observation] = group;
  const engine = useEngine();
  const id = useProject((project) => project.id);
  const document = useProject((project) => project.document);
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const titleOf = useTitleOf();
  const { run, trouble } = useEdit();
  const { kind, agent, message, place } = observation;
  const moments = group
    .flatMap((each) => each.ticks.map((tick) => ({ tick, agent: each.agent })))
    .sort((a, b) => a.tick - b.tick);
  const agents = group.map((each) => titleOf(each.agent)).sort();
  const { title, about, remedy: usual } = OBSERVATIONS[kind];
  const remedy = remedyOf(document, observation);
  const shown = moments.slice(-MOMENTS);
  const inRuns = Math.max(...group.map((each) => each.runs));
  return (
    <Item>
      <h3 title={about}>
        {title}: {agents.join(', ')}
        <small>
          {counted(moments.length, 'time')}
          {runs > 1 && `, in ${inRuns} of ${runs} runs`}
        </small>
      </h3>
      <p>
        {group.length > 1 && `${titleOf(agent)}: `}
        {message}
      </p>
      <p>{usual}</p>
      <footer>
        at
        {shown.map(({ tick, agent: who }) => {
          const at = clockText(tick, perSecond, 2);
          return (
            <QuietButton
              key={`${tick} ${who}`}
              className="moment"
              aria-label={`To ${at}: ${title}, ${titleOf(who)}`}
              onPress={() => engine.seek(tick)}
            >
              {at}
            </QuietButton>
          );
        })}
        {moments.length > MOMENTS && `and ${moments.length - MOMENTS} before`}
        {place && (
          <Link to={`/projects/${id}/minds/${place.mind}?agent=${agent}&state=${place.state}`}>
            edit{' '}
            {findState(document.minds[place.mind]?.machine?.states ?? [], place.state)?.title ??
              place.state}
          </Link>
        )}
        {remedy && <Button onPress={() => run(remedy.command)}>{remedy.title}</Button>}
      </footer>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Item>
  );
}

/** What was noticed in the run that goes on: each with its moments, where it is written, and what usually puts it right. */
export function ObservationsView() {
  const noticed = useObservations();
  const [kind, setKind] = useState('');
  const [hasLimits, setHasLimits] = useState(false);
  const all = noticed?.observations ?? [];
  const kinds = namesOf(OBSERVATIONS).filter((each) =>
    all.some((observation) => observation.kind === each),
  ) as ObservationKind[];
  const shown = all.filter((observation) => kind === '' || observation.kind === kind);
  return (
    <Sheet aria-label="Observations">
      <Head>
        <PartTitle>Observations</PartTitle>
        {kinds.length > 1 && (
          <Choice
            label="Which observations"
            value={kind}
            options={[
              { id: '', title: `all ${all.length}` },
              ...kinds.map((id) => ({ id, title: OBSERVATIONS[id].title })),
            ]}
            onChoose={setKind}
          />
        )}
        <Toggle isSelected={hasLimits} onChange={setHasLimits}>
          limits
        </Toggle>
      </Head>
      {hasLimits && <Limits />}
      {noticed && all.length === 0 && (
        <p>
          Nothing was noticed so far. What flickers, gets stuck, ties, starves or waits in vain is
          listed here while the run goes on.
        </p>
      )}
      <ul aria-label="List of observations">
        {grouped(shown).map((group) => (
          <OneObservation
            key={`${group[0].kind} ${group[0].key}`}
            group={group}
            runs={noticed!.runs}
          />
        ))}
      </ul>
    </Sheet>
  );
}
