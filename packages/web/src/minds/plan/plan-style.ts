import styled from 'styled-components';

/** The plan with what lies over it, which does not scroll. */
export const Frame = styled.section`
  position: relative;
  min-height: 0;
`;

export const Scroll = styled.div`
  position: absolute;
  inset: 0;
  overflow: auto;
  scrollbar-gutter: stable;
  svg {
    display: block;
  }
`;

export const Svg = styled.svg`
  .room {
    fill: color-mix(in srgb, var(--panel) 55%, transparent);
    stroke: var(--line2);
  }
  .room.parallel {
    stroke-dasharray: 5 4;
  }
  .room.lit {
    stroke: var(--ember);
  }
  .leaf {
    fill: var(--raised);
    stroke: var(--line2);
  }
  .leaf.lately {
    fill: color-mix(in srgb, var(--ember) 22%, var(--raised));
    stroke: var(--ember);
  }
  .lit.leaf {
    fill: color-mix(in srgb, var(--lamp) 20%, var(--raised));
    stroke: var(--lamp);
    stroke-width: 2;
  }
  .chosen {
    stroke: var(--sight);
    stroke-width: 2;
  }
  .line {
    fill: none;
    stroke: var(--dim);
    stroke-width: 1.3;
  }
  .line.taken {
    stroke: var(--lamp);
    stroke-width: 2;
  }
  .leaf.never,
  .room.never,
  .line.never {
    stroke: var(--refuse);
    stroke-dasharray: 1.5 3.5;
  }
  .head {
    fill: var(--dim);
  }
  .head.never {
    fill: var(--refuse);
  }
  .head.taken {
    fill: var(--lamp);
  }
  text {
    fill: var(--bone);
    font-size: 13.5px;
  }
  .title-room {
    fill: var(--mute);
    font-size: 12.5px;
  }
  .title-room.lit {
    fill: var(--lampText);
  }
  .title-leaf.lit {
    fill: var(--lampText);
    font-weight: 700;
  }
  .share {
    fill: var(--mute);
    font-size: 12px;
  }
  .label {
    pointer-events: auto;
    fill: var(--mute);
    font-size: 12px;
    paint-order: stroke;
    stroke: var(--night);
    stroke-width: 3px;
  }
  .label.taken {
    fill: var(--lampText);
  }
  .state {
    cursor: pointer;
    outline: none;
  }
  .state:focus-visible .focus {
    stroke: var(--sight);
    stroke-width: 2;
  }
  .focus,
  .ring {
    fill: none;
    stroke: none;
  }
  .ring {
    stroke: var(--line2);
  }
  .state.target .leaf,
  .state.target .room {
    stroke: var(--sight);
    stroke-dasharray: 3 3;
  }
`;

export const Waiting = styled.p`
  padding: 12px 14px;
  color: var(--mute);
`;

/** Buttons in the corner of the plan. */
export const Corner = styled.div`
  position: absolute;
  right: 14px;
  bottom: 4px;
  display: flex;
  gap: 2px;
  opacity: 0.75;
  &:hover,
  &:focus-within {
    opacity: 1;
  }
  button {
    min-height: 24px;
    background: color-mix(in srgb, var(--night) 80%, transparent);
  }
`;

export const PlanTrouble = styled.p`
  position: absolute;
  left: 10px;
  bottom: 6px;
  max-width: 70%;
  padding: 2px 8px;
  border-radius: 6px;
  background: var(--panel);
  color: var(--harm);
`;

export const SmallMap = styled.svg`
  position: absolute;
  top: 6px;
  right: 16px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: color-mix(in srgb, var(--night) 88%, transparent);
  cursor: crosshair;
  rect {
    fill: var(--line2);
  }
  .lit {
    fill: var(--lamp);
  }
  .seen {
    fill: none;
    stroke: var(--sight);
  }
`;
