import { Button as AriaButton, ToggleButton as AriaToggleButton } from 'react-aria-components';
import { Trash2 } from 'lucide-react';
import styled, { css } from 'styled-components';

const base = css`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 0.5em;
  min-height: 26px;
  padding: 0 0.85em;
  border: 1px solid var(--line2);
  border-radius: 8px;
  background: var(--raised);
  color: var(--bone);
  font-weight: 500;
  white-space: nowrap;
  cursor: default;
  &[data-hovered] {
    border-color: var(--mute);
  }
  &[data-pressed] {
    background: var(--line);
  }
  &[data-disabled] {
    color: var(--dim);
    border-color: var(--line);
    background: none;
  }
  svg {
    flex: none;
  }
`;

export const Button = styled(AriaButton)`
  ${base}
`;

/** The one button of a screen that the eye should find. */
export const MainButton = styled(AriaButton)`
  ${base}
  background: var(--lamp);
  border-color: var(--lamp);
  color: var(--onLamp);
  font-weight: 700;
  &[data-hovered] {
    filter: brightness(1.08);
    border-color: var(--lamp);
  }
  &[data-pressed] {
    background: var(--lamp);
    filter: brightness(0.92);
  }
`;

/** A button that shows nothing but its icon or word until it is needed. */
export const QuietButton = styled(AriaButton)`
  ${base}
  min-width: 24px;
  padding: 0 0.4em;
  border-color: transparent;
  background: none;
  color: var(--mute);
  &[data-hovered] {
    color: var(--bone);
    background: var(--raised);
    border-color: var(--line2);
  }
  &[data-disabled] {
    border-color: transparent;
  }
`;

export const Toggle = styled(AriaToggleButton)<{ $tint?: string }>`
  ${base}
  min-height: 24px;
  padding: 0 0.6em;
  border-color: transparent;
  background: none;
  color: var(--mute);
  &[data-selected] {
    color: ${({ $tint }) => $tint ?? 'var(--bone)'};
    background: var(--raised);
    border-color: var(--line2);
  }
`;

/** Words that lead somewhere else. */
export const Jump = styled.button`
  padding: 0;
  border: 0;
  background: none;
  color: var(--bone);
  text-decoration: underline;
  text-decoration-color: var(--line2);
`;

/** Takes something away; `label` says what, for readers. */
export function RemoveButton({ label, onPress }: { label: string; onPress: () => void }) {
  return (
    <QuietButton aria-label={label} onPress={onPress} style={{ minHeight: 24 }}>
      <Trash2 size={12} />
    </QuietButton>
  );
}
