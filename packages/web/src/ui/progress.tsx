import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import { Button } from './button.tsx';

const Line = styled.div`
  display: flex;
  align-items: center;
  gap: 6px 10px;
`;

const Track = styled.div`
  width: 140px;
  height: 6px;
  border-radius: 3px;
  background: var(--line2);
  div {
    height: 100%;
    border-radius: 3px;
    background: var(--sight);
  }
`;

/** How far long work has come, and the way to end it. */
export function Progress({
  label,
  value,
  of = 1,
  words,
  onCancel,
}: {
  /** What the work is, for readers. */
  label: string;
  value: number;
  of?: number;
  /** Beside the bar. */
  words: string;
  onCancel: () => void;
}) {
  return (
    <Line>
      <ProgressBar aria-label={label} value={value} maxValue={of}>
        {({ percentage = 0 }) => (
          <Track>
            <div style={{ width: `${percentage}%` }} />
          </Track>
        )}
      </ProgressBar>
      <span>{words}</span>
      <Button onPress={onCancel}>Cancel</Button>
    </Line>
  );
}
