import styled from 'styled-components';
import { NARROW } from '../ui/place.ts';
import { RULER } from './draw-lanes.ts';

/** What the parts of the ledger look like. */

export const Panel = styled.section`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: var(--panel);
  @media ${NARROW} {
    display: contents;
  }
`;

/** In one column with the rest, however many lanes there are, only so much of the window shows them. */
const SHOWN_HEIGHT = 'max(24vh, 150px)';

export const Body = styled.div`
  display: grid;
  grid-template-columns: 120px minmax(0, 1fr);
  overflow-y: auto;
  scrollbar-gutter: stable;
  @media ${NARROW} {
    max-height: ${SHOWN_HEIGHT};
    min-height: 150px;
    background: var(--panel);
  }
`;

export const Names = styled.div`
  &::before {
    content: '';
    position: sticky;
    top: 0;
    z-index: 1;
    display: block;
    height: ${RULER}px;
    background: var(--panel);
  }
  button,
  span {
    display: block;
    width: 100%;
    height: var(--lane);
    padding: 0 8px 0 14px;
    border: 0;
    background: none;
    color: var(--mute);
    text-align: left;
    line-height: var(--lane);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  button {
    &:focus-visible {
      outline-offset: -2px;
    }
    &:hover {
      color: var(--bone);
    }
    &[aria-pressed='true'] {
      color: var(--bone);
      font-weight: 600;
    }
  }
`;

export const Track = styled.div`
  position: relative;
  touch-action: none;
  cursor: col-resize;
  &:focus-visible {
    outline-offset: -2px;
  }
  canvas {
    position: sticky;
    top: 0;
    display: block;
    width: 100%;
    height: 100%;
    max-height: var(--shown);
  }
`;

export const Readout = styled.div`
  position: absolute;
  z-index: 2;
  max-width: 34ch;
  padding: 2px 8px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--raised);
  pointer-events: none;
`;

export const Foot = styled.div`
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  justify-content: flex-end;
  height: 0;
  padding-right: 6px;
  span {
    display: flex;
    height: 20px;
    background: var(--panel);
  }
  button {
    height: 20px;
    min-height: 24px;
    background: var(--panel);
    font-size: 0.9em;
    &[data-focus-visible] {
      outline-offset: -2px;
    }
  }
`;
