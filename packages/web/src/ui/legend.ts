import styled from 'styled-components';

/** Signs beside what they mean. */
export const Legend = styled.dl`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 14px;
  margin: 0;
  dt {
    font-family: var(--mono);
    color: var(--bone);
  }
  dd {
    margin: 0;
    color: var(--mute);
  }
`;
