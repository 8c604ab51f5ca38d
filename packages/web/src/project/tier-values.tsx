import { numberAt, tieredNumber, tierInForce } from '@crooked-lantern/core';
import { Fragment } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../state/store.ts';

const Values = styled(Link)`
  margin-left: 6px;
  color: var(--mute);
  text-decoration: none;
  &:hover {
    color: var(--bone);
  }
  b {
    color: var(--lampText);
    font-weight: 600;
  }
`;

/**
 * What a number is in each tier, the one in force lit; nothing where no tier changes it. It leads to where
 * tiers are set. `path`: such as `archetypes.keeper.reaction`.
 */
export function TierValues({ path }: { path: string }) {
  const text = useProject(({ document }) => {
    const { tiers = [] } = document;
    const number = numberAt(document, path);
    if (
      number === undefined ||
      !tiers.some(({ changes }) => changes?.some((each) => each.path === path))
    )
      return '';
    const inForce = tierInForce(document);
    // One text, so that it renders only when it changes.
    return tiers
      .map((tier) => {
        const change = tier.changes?.find((each) => each.path === path);
        const value = change ? tieredNumber(number, change) : number;
        return `${tier === inForce ? '*' : ''}${tier.title ?? tier.name} ${Number(value.toFixed(3))}`;
      })
      .join('\n');
  });
  const id = useProject((slot) => slot.id);
  if (text === '') return null;
  return (
    <Values to={`/projects/${id}/weigh?tiers=all`}>
      {text.split('\n').map((each, i) => (
        <Fragment key={each}>
          {i > 0 && ' · '}
          {each.startsWith('*') ? <b title="in force">{each.slice(1)}</b> : each}
        </Fragment>
      ))}
    </Values>
  );
}
