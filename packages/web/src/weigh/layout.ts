import styled from 'styled-components';
import { Sheet } from '../minds/sheet-layout.ts';

/** The column in which what is chosen on the board is edited. */
export const SideSheet = styled(Sheet)`
  h3 {
    margin-top: 14px;
    padding-top: 6px;
    border-top: 1px solid var(--line);
    font-weight: 600;
  }
`;
