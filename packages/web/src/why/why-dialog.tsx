import type { Statement } from '@crooked-lantern/core';
import { Check, Undo2, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { EngineAnswer } from '../engine/protocol.ts';
import { useEngine, useEngineValue } from '../engine/use-engine.tsx';
import { useAppDispatch, useAppSelector, useProject } from '../state/store.ts';
import { whyAsked } from '../state/view-slice.ts';
import { QuietButton } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Choice } from '../ui/fields.tsx';
import { clockText } from '../ui/time.ts';
import { targetsOf } from './targets.ts';

/** Why an agent does what it does, or not something else: the chain of causes with the values of then. */

const Answer = styled.div`
  max-height: 56vh;
  margin-top: 10px;
  padding-right: 6px;
  overflow: auto;
  ul {
    margin: 0;
    padding-left: 18px;
    border-left: 1px solid var(--line);
    list-style: none;
  }
  > ul {
    padding-left: 0;
    border-left: 0;
  }
  > ul > li > span {
    font-size: 1.1em;
    font-weight: 600;
  }
  li {
    padding: 2px 0 2px 4px;
  }
  svg {
    margin-right: 5px;
    vertical-align: -2px;
  }
  .holds {
    color: var(--done);
  }
  .fails {
    color: var(--refuse);
  }
  code {
    display: block;
    padding-left: 19px;
    color: var(--mute);
    overflow-wrap: anywhere;
  }
  button {
    min-height: 20px;
    padding: 0 4px;
    color: var(--sight);
    font-weight: 400;
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  color: var(--mute);
`;

interface OneProps {
  statement: Statement;
  /** The whole answer. */
  isWhole?: boolean;
  perSecond: number;
  /** Leads to a tick. */
  onGo: (tick: number) => void;
}

function One({ statement: said, isWhole = false, perSecond, onGo }: OneProps) {
  const { statement, holds, values, since, nearest, cause } = said;
  const at = (tick: number) => (
    <QuietButton aria-label={`To ${clockText(tick, perSecond, 2)}`} onPress={() => onGo(tick)}>
      {clockText(tick, perSecond, 2)}
    </QuietButton>
  );
  return (
    <li>
      <span className={holds ? 'holds' : 'fails'}>
        {holds ? (
          <Check size={14} aria-label="holds" />
        ) : (
          <X size={14} aria-label="does not hold" />
        )}
      </span>
      <span>
        {isWhole && !holds && 'Not so: '}
        {statement}
      </span>
      {since !== null && since > 0 && <small> since {at(since)}</small>}
      {values.length > 0 && (
        <code>{values.map(({ part, value }) => `${part} = ${value}`).join(' · ')}</code>
      )}
      {nearest && (
        <code>
          nearest at {at(nearest.tick)}: {nearest.text}
        </code>
      )}
      {cause.length > 0 && (
        <ul>
          {cause.map((each, i) => (
            <One key={i} statement={each} perSecond={perSecond} onGo={onGo} />
          ))}
        </ul>
      )}
    </li>
  );
}

/** The agents that have a mind, by name and title. */
function useThinkers(): { id: string; title: string }[] {
  const program = useEngineValue((engine) => engine.program);
  return (program?.agents ?? []).flatMap(({ name, title, archetype }) =>
    program!.archetypes[archetype].stack >= 0 ? [{ id: name, title }] : [],
  );
}

export function WhyDialog() {
  const dispatch = useAppDispatch();
  const engine = useEngine();
  const question = useAppSelector(({ view }) => view.why);
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const tick = useEngineValue(({ frame }) => frame?.tick ?? 0);
  const isPlaying = useEngineValue(({ frame }) => frame?.playing ?? false);
  const document = useProject((slot) => slot.document);
  const thinkers = useThinkers();
  const agent =
    [question?.agent, engine.watched.agent].find((name) =>
      thinkers.some(({ id }) => id === name),
    ) ?? thinkers[0]?.id;
  const not = question?.not ?? null;
  const isOpen = question !== null;
  const [answer, setAnswer] = useState<EngineAnswer | null>(null);
  /** The tick that was asked about first, to come back to. */
  const [first, setFirst] = useState<number | null>(null);
  if (!isOpen && first !== null) setFirst(null);
  if (isOpen && !isPlaying && first === null) setFirst(tick);
  // An answer is about one tick, so the run rests while it is read.
  useEffect(() => {
    if (isOpen && isPlaying) engine.pause();
  }, [engine, isOpen, isPlaying]);
  useEffect(() => {
    if (!isOpen || isPlaying || agent === undefined) return;
    let current = true;
    setAnswer(null);
    void engine.ask({ agent, not }).then((given) => {
      if (current) setAnswer(given);
    });
    return () => {
      current = false;
    };
  }, [engine, isOpen, isPlaying, agent, not, tick]);
  const close = () => dispatch(whyAsked(null));
  const targets = agent === undefined ? [] : targetsOf(document, agent);
  return (
    <Dialog title="Why?" isOpen={isOpen} onClose={close} wide>
      {agent === undefined ? (
        <p>Nobody here has a mind, so nobody decides anything.</p>
      ) : (
        <>
          <Head>
            <Choice
              label="Who is asked about"
              value={agent}
              options={thinkers}
              onChoose={(id) => dispatch(whyAsked({ agent: id, not: null }))}
            />
            <Choice
              label="What is asked"
              value={not ?? ''}
              options={[{ id: '', title: 'why it does what it does' }, ...targets]}
              onChoose={(id) => dispatch(whyAsked({ agent, not: id === '' ? null : id }))}
            />
            <span>
              at {clockText(tick, perSecond, 2)}, tick {tick}
            </span>
            {first !== null && first !== tick && (
              <QuietButton onPress={() => engine.seek(first)}>
                <Undo2 size={13} /> back to {clockText(first, perSecond, 2)}
              </QuietButton>
            )}
          </Head>
          <Answer aria-live="polite" aria-busy={answer === null}>
            {answer === null ? (
              <p>Running it again with full attention …</p>
            ) : 'trouble' in answer ? (
              <p role="alert">{answer.trouble}</p>
            ) : (
              <ul aria-label="The answer">
                <One
                  statement={answer.answer}
                  isWhole
                  perSecond={perSecond}
                  onGo={(to) => engine.seek(to)}
                />
              </ul>
            )}
          </Answer>
        </>
      )}
    </Dialog>
  );
}
