import { sameData, type PartValue } from '@crooked-lantern/core';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { useEngine } from '../engine/use-engine.tsx';
import { runInBackground } from '../state/failures.ts';

/** How often a value that is looked at is read again while the run goes on, in milliseconds. */
const PACE = 200;

/** What the parts of an expression are worth to the watched agent, kept up to date; null before the first answer. */
export function usePartValues(
  mind: string | null,
  source: string,
  tree: string | undefined,
): PartValue[] | null {
  const engine = useEngine();
  const [values, setValues] = useState<PartValue[] | null>(null);
  useEffect(() => {
    if (mind === null) return undefined;
    let current = true;
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const read = () => {
      waiting = undefined;
      runInBackground(
        engine.readExpression(mind, source, tree).then((next) => {
          if (!current) return;
          setValues((last) => (sameData(last, next) ? last : next));
        }),
      );
    };
    read();
    const unsubscribe = engine.onFrame(() => {
      waiting ??= setTimeout(read, PACE);
    });
    return () => {
      current = false;
      clearTimeout(waiting);
      unsubscribe();
    };
  }, [engine, mind, source, tree]);
  return values;
}

/** The smallest part at an offset of the source. */
export function partAtOffset(
  values: readonly PartValue[] | null,
  offset: number,
): PartValue | undefined {
  const [smallest] = (values ?? [])
    .filter(({ at: [from, to] }) => from <= offset && offset <= to)
    .sort((a, b) => a.at[1] - a.at[0] - (b.at[1] - b.at[0]));
  return smallest;
}

/** The parts that have no others inside: what an expression comes down to. */
function innermost(values: readonly PartValue[]): PartValue[] {
  return values.filter(
    ({ at }) =>
      !values.some(
        (other) =>
          other.at !== at &&
          other.at[0] >= at[0] &&
          other.at[1] <= at[1] &&
          other.at[1] - other.at[0] < at[1] - at[0],
      ),
  );
}

const List = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 0 12px;
  margin: 0;
  font-family: var(--mono);
  dt {
    color: var(--mute);
  }
  dd {
    margin: 0;
  }
`;

/** An expression’s value now, and what it comes down to. */
export function PartValues({
  mind,
  source,
  tree,
}: {
  mind: string;
  source: string;
  tree?: string;
}) {
  const values = usePartValues(mind, source, tree);
  if (values === null) return <>…</>;
  if (values.length === 0) return <>No followed agent has a value for this now.</>;
  const [whole] = values;
  const parts = innermost(values).filter((part) => part !== whole);
  return (
    <List>
      {whole.at[0] === 0 && (
        <>
          <dt>now</dt>
          <dd>{whole.value}</dd>
        </>
      )}
      {parts.map(({ at, value }) => (
        <div key={at.join(' ')} style={{ display: 'contents' }}>
          <dt>{source.slice(...at)}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </List>
  );
}
