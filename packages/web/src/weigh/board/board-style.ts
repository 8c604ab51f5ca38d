import styled from 'styled-components';
import { QuietButton } from '../../ui/button.tsx';

/** How the board of options and considerations looks. */

export const Scroll = styled.div`
  overflow-x: auto;
`;

export const Table = styled.table`
  width: 100%;
  /* Numbers that change must not move the columns. */
  table-layout: fixed;
  border-collapse: collapse;
  col.option {
    width: 142px;
  }
  col.score {
    width: 116px;
  }
  th {
    padding: 4px 6px;
    color: var(--mute);
    font-weight: 600;
    text-align: left;
    vertical-align: bottom;
  }
  tbody tr > * {
    border-top: 1px solid var(--line);
  }
  /* However many columns there are, what an option is called and what it scores stay in sight. */
  tr > :first-child,
  tr > :last-child {
    position: sticky;
    left: 0;
    z-index: 1;
    background: var(--night);
  }
  tr > :last-child {
    right: 0;
    left: auto;
  }
  tbody tr[data-runs='true'] > :first-child,
  tbody tr[data-runs='true'] > :last-child {
    background: color-mix(in srgb, var(--lamp) 14%, var(--night));
  }
  tbody tr[data-runs='true'] {
    background: color-mix(in srgb, var(--lamp) 14%, transparent);
  }
  tbody tr[data-runs='true'] th {
    color: var(--lampText);
  }
  tbody tr[data-off='true'] {
    opacity: 0.55;
  }
  td {
    padding: 2px;
  }
`;

export const Option = styled.th.attrs({ scope: 'row' })`
  && {
    color: var(--bone);
    vertical-align: middle;
  }
  > div {
    display: flex;
    align-items: center;
    gap: 2px;
  }
  small {
    display: block;
    color: var(--mute);
    font-size: 0.92em;
    font-weight: 400;
  }
  small[data-bar] {
    color: var(--refuse);
  }
  small[data-bar]:empty {
    display: none;
  }
`;

export const Heading = styled.span`
  position: relative;
  display: block;
  overflow-wrap: break-word;
  /* The menu of a column stands over its title, so that narrow columns need not break words. */
  > button {
    position: absolute;
    right: -6px;
    bottom: 0;
    background: var(--night);
    opacity: 0;
  }
  th:hover & > button,
  > button[data-focus-visible],
  > button[aria-expanded='true'] {
    opacity: 1;
  }
`;

export const Name = styled.button`
  padding: 1px 3px;
  border: 0;
  border-radius: 5px;
  background: none;
  color: inherit;
  font-weight: inherit;
  text-align: left;
  &[aria-pressed='true'] {
    background: var(--raised);
  }
`;

export const Cell = styled.button`
  display: flex;
  align-items: center;
  gap: 4px;
  width: 100%;
  min-height: 34px;
  padding: 2px 3px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: none;
  color: var(--bone);
  font-family: var(--mono);
  text-align: left;
  &:hover {
    border-color: var(--line2);
  }
  &[aria-pressed='true'] {
    background: var(--raised);
    border-color: var(--line2);
  }
  position: relative;
  small {
    position: absolute;
    right: 3px;
    bottom: -1px;
    color: var(--mute);
    font-size: 0.8em;
  }
  svg {
    flex: none;
    overflow: visible;
  }
  path {
    fill: none;
    stroke: var(--dim);
    stroke-width: 1.5;
  }
  tr[data-runs='true'] & path {
    stroke: var(--lamp);
  }
  circle {
    fill: var(--bone);
  }
  &[data-low='true'] span {
    color: var(--refuse);
  }
  &[data-nothing='true'] span {
    color: var(--mute);
  }
`;

/** A graded row of an option, with what it comes to. */
export const Grade = styled.button`
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 1px 4px;
  border: 1px solid transparent;
  border-radius: 6px;
  background: none;
  color: var(--bone);
  text-align: left;
  &:hover {
    border-color: var(--line2);
  }
  b {
    font-family: var(--mono);
    font-weight: 400;
  }
  &[data-low='true'] b {
    color: var(--mute);
  }
`;

export const Add = styled(QuietButton)`
  && {
    min-height: 30px;
    opacity: 0;
  }
  tr:hover &&,
  tr:focus-within &&,
  &&[data-hovered],
  &&[data-focus-visible] {
    opacity: 1;
  }
`;

export const Score = styled.td`
  > div {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  i {
    position: relative;
    flex: 1;
    min-width: 40px;
    height: 14px;
    overflow: hidden;
    border-radius: 4px;
    background: var(--raised);
  }
  b {
    position: absolute;
    inset: 0;
    background: var(--line2);
    transform-origin: left;
    transform: scaleX(0);
  }
  tr[data-runs='true'] & b {
    background: var(--lamp);
  }
  tr[data-tied='true']:not([data-runs='true']) & b {
    background: repeating-linear-gradient(90deg, var(--ember) 0 6px, var(--line2) 6px 12px);
  }
  span {
    width: 5ch;
    font-family: var(--mono);
    font-weight: 600;
    text-align: right;
  }
`;

export const Said = styled.p`
  min-height: 1.5em;
  margin: 8px 8px 0;
  color: var(--mute);
`;

export const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin: 8px;
`;
