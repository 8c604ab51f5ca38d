import type { NumberSpec } from '@crooked-lantern/core';
import { InlineText } from './inline-text.tsx';

/** Which numbers a field takes. */
export type NumberBounds = Pick<NumberSpec, 'minimum' | 'maximum' | 'whole'>;

/** The number a text says, a decimal comma taken for a point; NaN where it says none. */
export function readNumber(text: string): number {
  const plain = text.trim().replace(/^([+-]?\d*),(\d+)$/, '$1.$2');
  return plain === '' ? NaN : Number(plain);
}

/** The number a text says; null where it says none, as an expression does. */
export function numberIn(text: string): number | null {
  const value = readNumber(text);
  return Number.isNaN(value) ? null : value;
}

/** Why a text can't be the number; null where it can. */
export function checkNumber({ minimum, maximum, whole }: NumberBounds) {
  return (text: string): string | null => {
    const value = readNumber(text);
    const fits =
      Number.isFinite(value) &&
      value >= minimum &&
      value <= maximum &&
      (!whole || Number.isInteger(value));
    return fits ? null : `It takes a ${whole ? 'whole ' : ''}number from ${minimum} to ${maximum}.`;
  };
}

export interface NumberTextProps {
  /** What is edited, for readers. */
  label: string;
  /** What it is, in a few words. */
  about?: string;
  spec: NumberBounds;
  value: number | undefined;
  /** Shown in place of the value while it is not edited. */
  shown?: string;
  /** Shown in place of a missing value. */
  placeholder?: string;
  onCommit: (value: number) => void;
}

/** A number that is edited where it stands, held to its bounds. */
export function NumberText({ spec, value, onCommit, ...rest }: NumberTextProps) {
  return (
    <InlineText
      mono
      {...rest}
      value={value === undefined || Number.isNaN(value) ? '' : String(value)}
      check={checkNumber(spec)}
      onCommit={(text) => onCommit(readNumber(text))}
    />
  );
}

/** The same where the number may be left out: an empty field says so. */
export function OptionalNumberText({
  spec,
  value,
  onCommit,
  ...rest
}: Omit<NumberTextProps, 'onCommit'> & { onCommit: (value: number | undefined) => void }) {
  const check = checkNumber(spec);
  return (
    <InlineText
      mono
      {...rest}
      value={value === undefined ? '' : String(value)}
      check={(text) => (text.trim() === '' ? null : check(text))}
      onCommit={(text) => onCommit(text.trim() === '' ? undefined : readNumber(text))}
    />
  );
}
