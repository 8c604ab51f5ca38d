import styled from 'styled-components';

/** What the places of a project share in their layout. */

/** Where all stands in one column: a narrow or low window, or a page magnified to twice its size. */
export const NARROW = '(max-width: 1000px), (max-height: 560px)';

export const PlaceLayout = styled.div`
  display: flex;
  flex-direction: column;
  height: 100%;
  @media ${NARROW} {
    height: auto;
    min-height: 100%;
  }
`;

/** The list on the left of a place. */
export const ListColumn = styled.nav`
  overflow: auto;
  scrollbar-gutter: stable;
  padding: 10px 8px;
  background: color-mix(in srgb, var(--panel) 50%, var(--night));
`;

/** What stands over a group of entries, with what can be done with it. */
export const ListHead = styled.div`
  display: flex;
  align-items: center;
  margin-top: 8px;
  padding-left: 6px;
  h2 {
    flex: 1;
    font-weight: 600;
  }
  button {
    min-height: 24px;
  }
`;

/** One entry of such a list, the chosen ones raised. */
export const ListItem = styled.button`
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  min-height: 24px;
  padding: 3px 8px;
  border: 0;
  border-radius: 6px;
  background: none;
  color: var(--mute);
  text-align: left;
  cursor: default;
  &:hover {
    color: var(--bone);
  }
  &[aria-current='true'],
  &[aria-pressed='true'] {
    background: var(--raised);
    color: var(--bone);
  }
  small {
    color: var(--mute);
    font-size: 0.92em;
  }
`;

/** A drawing that takes keys and pointers. */
export const CanvasStage = styled.div`
  position: relative;
  overflow: hidden;
  &:focus-visible {
    outline: 2px solid var(--sight);
    outline-offset: -2px;
  }
  canvas {
    position: absolute;
    inset: 0;
    width: 100%;
    height: 100%;
  }
`;
