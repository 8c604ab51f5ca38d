import styled from 'styled-components';

/** A bar below the header that says what is wrong, with buttons for what can be done. */
export const NoticeBar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 10px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--harm);
  background: var(--panel);
  p {
    flex: 1;
    min-width: 30ch;
    overflow-wrap: anywhere;
  }
`;
