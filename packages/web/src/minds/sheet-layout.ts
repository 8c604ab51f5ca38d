import styled from 'styled-components';

/** Rows of the sheet: what it is, what it says, what it is worth now, what can be done with it. */
export const SheetRow = styled.li`
  display: grid;
  grid-template-columns: 86px minmax(0, 1fr) auto;
  align-items: start;
  gap: 8px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line);
  &:focus-within {
    background: color-mix(in srgb, var(--raised) 45%, transparent);
  }
`;

export const RowName = styled.span`
  padding: 3px 0 0 4px;
  white-space: nowrap;
  color: var(--mute);
  font-family: var(--mono);
`;

export const RowBody = styled.div`
  min-width: 0;
  padding: 3px 0;
  > span {
    padding-left: 5px;
  }
`;

/** What needs the whole width of the sheet, under the row it belongs to. */
export const RowBelow = styled.div`
  grid-column: 1 / -1;
  min-width: 0;
`;

/** The lower half of the work, in which what is chosen is edited. */
export const Sheet = styled.section`
  overflow: auto;
  scrollbar-gutter: stable;
  padding: 10px 14px 14px;
`;

export const PartTitle = styled.h2`
  font: 600 1.35rem/1.2 var(--title);
`;

export const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
`;

export const Trouble = styled.p`
  color: var(--harm);
`;
