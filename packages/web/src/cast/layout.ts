import styled from 'styled-components';

/** The column in which something of the cast is edited. */
export const FormColumn = styled.section`
  min-width: 0;
  padding: 10px 14px 20px;
  overflow: auto;
  scrollbar-gutter: stable;
  h3 {
    display: flex;
    align-items: center;
    gap: 6px;
    margin-top: 14px;
    padding-top: 8px;
    border-top: 1px solid var(--line);
    font-weight: 600;
    button {
      min-height: 24px;
    }
  }
  p {
    color: var(--mute);
  }
`;

export const Title = styled.h2`
  font: 600 1.35rem var(--title);
`;

/** What kind of thing this is, and its name in the file. */
export const Sort = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 6px;
  svg {
    flex: none;
  }
`;

export const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
`;

export const Trouble = styled.p`
  && {
    margin-top: 6px;
    color: var(--harm);
  }
`;
