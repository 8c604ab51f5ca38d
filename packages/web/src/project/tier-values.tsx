import {
  numberAt,
  stepsOfPath,
  tieredNumber,
  tierInForce,
  wordsOfPath,
} from '@crooked-lantern/core';
import { Layers } from 'lucide-react';
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

/** It shows where the pointer or the focus is, so that numbers stay easy to read. */
const Differ = styled(Link)`
  display: inline-grid;
  place-content: center;
  width: 24px;
  height: 24px;
  color: var(--mute);
  opacity: 0;
  vertical-align: middle;
  :is(:hover, :focus-within) > &,
  &:focus-visible {
    opacity: 1;
  }
  @media (hover: none) {
    opacity: 1;
  }
`;

/**
 * What a number is in each tier, the one in force lit, as a way to where tiers are set. Where no tier changes it, a way
 * to let it differ; nothing where the project has no tiers, or the number is not written. `path`: such as `archetypes.keeper.reaction`.
 */
export function TierValues({ path }: { path: string }) {
  const text = useProject(({ document }) => {
    const { tiers = [] } = document;
    const number = numberAt(document, path);
    if (number === undefined || tiers.length === 0) return '';
    if (!tiers.some(({ changes }) => changes?.some((each) => each.path === path)))
      return `+${wordsOfPath(document, stepsOfPath(path) ?? [])}`;
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
  if (text.startsWith('+')) {
    const words = `Let ${text.slice(1)} differ by tier`;
    const search = new URLSearchParams({ tiers: path }).toString();
    return (
      <Differ to={`/projects/${id}/weigh?${search}`} aria-label={words} title={words}>
        <Layers size={13} />
      </Differ>
    );
  }
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
