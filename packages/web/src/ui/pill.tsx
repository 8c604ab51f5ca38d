import styled, { css } from 'styled-components';

/** A short fact in the header or a bar. */
export const Pill = styled.span<{ $tone?: 'plain' | 'trouble' }>`
  display: inline-flex;
  align-items: center;
  gap: 0.4em;
  padding: 0.1em 0.8em;
  border: 1px solid var(--line2);
  border-radius: 999px;
  color: var(--mute);
  white-space: nowrap;
  strong {
    color: var(--bone);
    font-weight: 600;
  }
  ${({ $tone }) =>
    $tone === 'trouble' &&
    css`
      border-color: var(--harm);
      color: var(--harm);
      strong {
        color: var(--harm);
      }
    `}
`;

export const Kbd = styled.kbd`
  padding: 0 0.4em;
  border: 1px solid var(--line2);
  border-radius: 4px;
  color: var(--mute);
  font: 0.85em var(--mono);
`;
