import { SENSE_KINDS, SENSES, type Sense, type StateDocument } from '@crooked-lantern/core';
import { ArrowDown, ArrowUp, X } from 'lucide-react';
import styled from 'styled-components';
import { QuietButton } from '../../ui/button.tsx';
import { Choice } from '../../ui/fields/fields.tsx';
import { RowBody, RowName, SheetRow } from '../sheet-layout.ts';

const Entry = styled.span`
  display: inline-flex;
  align-items: center;
  margin-right: 8px;
  white-space: nowrap;
  button {
    min-height: 18px;
    padding: 0 0.2em;
  }
`;

/** Which sense wins the attention while here, the first before the others; where nothing is said, all in their usual order. */
export function AttentionRow({
  title,
  attention,
  onChange,
}: {
  title: string;
  attention: StateDocument['attention'];
  onChange: (attention: Sense[] | undefined) => void;
}) {
  const order = attention ?? [];
  const left = SENSES.filter((sense) => !order.includes(sense));
  const give = (next: Sense[]) => onChange(next.length > 0 ? next : undefined);
  const swap = (at: number, to: number) => {
    const next = [...order];
    [next[at], next[to]] = [next[to], next[at]];
    give(next);
  };
  return (
    <SheetRow>
      <RowName>attention</RowName>
      <RowBody>
        {!attention && (
          <span style={{ color: 'var(--mute)' }}>all senses, in their usual order</span>
        )}
        {order.map((sense, i) => {
          const { title: called, tint } = SENSE_KINDS[sense];
          return (
            <Entry key={sense}>
              <span style={{ color: `var(--${tint})` }}>
                {i + 1} {called.toLowerCase()}
              </span>
              {i > 0 && (
                <QuietButton
                  aria-label={`${called} before ${SENSE_KINDS[order[i - 1]].title} in ${title}`}
                  onPress={() => swap(i, i - 1)}
                >
                  <ArrowUp size={11} />
                </QuietButton>
              )}
              {i + 1 < order.length && (
                <QuietButton
                  aria-label={`${called} after ${SENSE_KINDS[order[i + 1]].title} in ${title}`}
                  onPress={() => swap(i, i + 1)}
                >
                  <ArrowDown size={11} />
                </QuietButton>
              )}
              <QuietButton
                aria-label={`Remove ${called} from the attention of ${title}`}
                onPress={() => give(order.filter((other) => other !== sense))}
              >
                <X size={11} />
              </QuietButton>
            </Entry>
          );
        })}
        {left.length > 0 && (
          <Choice
            label={`Add a sense to the attention of ${title}`}
            value="add"
            options={[
              { id: 'add', title: attention ? 'then …' : 'first …' },
              ...left.map((sense) => ({ id: sense, title: SENSE_KINDS[sense].title })),
            ]}
            onChoose={(id) => id !== 'add' && give([...order, id as Sense])}
          />
        )}
      </RowBody>
    </SheetRow>
  );
}
