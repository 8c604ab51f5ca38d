import { useState } from 'react';
import { Label, Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { NumberText, type NumberBounds } from './number-text.tsx';

const Field = styled(Slider)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 8px;
  padding: 4px 8px 6px 0;
  small {
    grid-column: 1 / -1;
    color: var(--mute);
  }
`;

const Track = styled(SliderTrack)`
  grid-column: 1 / -1;
  height: 20px;
  margin: 0 8px;
  &::before,
  i {
    content: '';
    position: absolute;
    top: 8px;
    left: 0;
    width: 100%;
    height: 4px;
    border-radius: 2px;
    background: var(--line2);
  }
  i {
    background: var(--mute);
  }
`;

const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 16px;
  height: 16px;
  border: 2px solid var(--bone);
  border-radius: 50%;
  background: var(--raised);
  &[data-dragging] {
    background: var(--bone);
  }
`;

export interface SliderFieldProps {
  label: string;
  about: string;
  unit: string;
  bounds: NumberBounds & { step: number };
  value: number;
  /** Called when it is let go, not while it is dragged. */
  onCommit: (value: number) => void;
}

/** A number on a scale, dragged or typed. */
export function SliderField({ label, about, unit, bounds, value, onCommit }: SliderFieldProps) {
  const [dragged, setDragged] = useState<number | null>(null);
  const shown = dragged ?? value;
  const { minimum, maximum, step } = bounds;
  return (
    <Field
      value={shown}
      minValue={minimum}
      maxValue={maximum}
      step={step}
      onChange={(next) => setDragged(next as number)}
      onChangeEnd={(next) => {
        setDragged(null);
        if (next !== value) onCommit(next as number);
      }}
    >
      <Label>{label}</Label>
      <span>
        <NumberText
          label={`${label}, as a number`}
          spec={bounds}
          value={Number(shown.toFixed(2))}
          onCommit={onCommit}
        />
        {unit && ` ${unit}`}
      </span>
      <Track>
        <i style={{ width: `${(100 * (shown - minimum)) / (maximum - minimum)}%` }} />
        <Thumb />
      </Track>
      <small>{about}</small>
    </Field>
  );
}
