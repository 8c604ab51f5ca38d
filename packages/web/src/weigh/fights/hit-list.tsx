import type { LedgerEntry } from '@crooked-lantern/core';
import styled from 'styled-components';
import { PartTitle } from '../../minds/sheet-layout.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { useAsk, type WatchQuestion } from '../../shell/use-ask.ts';
import { QuietButton } from '../../ui/button.tsx';
import { clockText } from '../../ui/words/time.ts';
import { RESULT_WORDS } from './fight-words.ts';
import { SideSheet } from '../layout.ts';
import { useFights, useFightTitles } from './use-fights.ts';

/** The last hits, newest first, each a way to its moment. */

const MOST = 60;

const List = styled.ol`
  margin: 6px 0;
  padding: 0;
  list-style: none;
  li {
    display: grid;
    grid-template-columns: 76px minmax(0, 1fr);
    gap: 4px;
    padding: 2px 0;
    border-bottom: 1px solid var(--line);
  }
  small {
    color: var(--mute);
    font-size: 1em;
  }
  button {
    min-height: 24px;
    align-self: start;
    justify-content: flex-start;
    font-variant-numeric: tabular-nums;
  }
`;

type HitEntry = Extract<LedgerEntry, { kind: 'hit' }>;

/** What a hit did, or by how much it missed. */
function effect({ harm, missedBy, result }: HitEntry): string {
  if (harm > 0) return `${Number(harm.toFixed(1))} points`;
  return missedBy === undefined || result !== 'missed' ? '' : `by ${missedBy.toFixed(2)} m`;
}

export function HitList() {
  const engine = useEngine();
  const ask = useAsk();
  const program = useEngineValue((client) => client.program);
  const hasMind = (name: string) =>
    program?.agents.some(
      (agent) => agent.name === name && program.archetypes[agent.archetype].stack >= 0,
    ) ?? false;
  /** The question about a hit, of the one of both that has a mind; null where neither has. */
  const asked = (hit: HitEntry): WatchQuestion | null => {
    if (hasMind(hit.agent)) return { agent: hit.agent, asking: { ask: 'hit', side: 'dealt' } };
    return hasMind(hit.of) ? { agent: hit.of, asking: { ask: 'hit', side: 'taken' } } : null;
  };
  const { entries, perSecond } = useFights();
  const titleOf = useFightTitles();
  const hits = entries.filter((entry): entry is HitEntry => entry.kind === 'hit');
  const last = hits.slice(-MOST).reverse();
  return (
    <SideSheet aria-label="Hits">
      <PartTitle>Hits</PartTitle>
      {last.length === 0 && <p>None until here.</p>}
      <List>
        {last.map((hit, i) => (
          <li key={`${hit.tick} ${hit.agent} ${hit.of} ${i}`}>
            <QuietButton
              aria-label={`To ${clockText(hit.tick, perSecond, 2)}`}
              onPress={() => {
                engine.pause();
                engine.seek(hit.tick);
              }}
            >
              {clockText(hit.tick, perSecond, 2)}
            </QuietButton>
            <span>
              {titleOf(hit.agent)}, {titleOf(hit.agent, hit.move)}{' '}
              {hit.of !== '' && <>at {titleOf(hit.of)} </>}
              <small>
                {RESULT_WORDS[hit.result].toLowerCase()} {effect(hit)}
              </small>{' '}
              {asked(hit) && (
                <QuietButton
                  aria-label={`Why ${titleOf(hit.agent, hit.move)} ${RESULT_WORDS[hit.result].toLowerCase()} at ${clockText(hit.tick, perSecond, 2)}`}
                  onPress={() => {
                    engine.seek(hit.tick);
                    ask(asked(hit)!);
                  }}
                >
                  why?
                </QuietButton>
              )}
            </span>
          </li>
        ))}
      </List>
      {hits.length > MOST && (
        <p>
          The last {MOST} of {hits.length}.
        </p>
      )}
    </SideSheet>
  );
}
