import { ArrowLeft, ArrowRight } from 'lucide-react';
import { useEffect, useState, type RefObject } from 'react';
import styled from 'styled-components';
import { QuietButton } from '../../ui/button.tsx';
import { counted } from '../../ui/words/counted.ts';

const Line = styled.div`
  display: flex;
  justify-content: end;
  gap: 8px;
`;

/** How many columns lie out of sight on each side, from the widths in pixels. */
export function hiddenColumns(
  {
    scrollLeft,
    scrollWidth,
    clientWidth,
  }: Pick<Element, 'scrollLeft' | 'scrollWidth' | 'clientWidth'>,
  column: number,
): { before: number; after: number } {
  const count = (pixels: number) => Math.ceil(Math.max(0, pixels - 1) / column);
  return { before: count(scrollLeft), after: count(scrollWidth - clientWidth - scrollLeft) };
}

/** Says how many columns of a wide table are out of sight, and brings them into sight. */
export function HiddenColumns({
  of,
  column,
  count,
}: {
  /** What scrolls. */
  of: RefObject<HTMLElement | null>;
  /** Width of a column in pixels. */
  column: number;
  /** How many there are, so that it is looked at again when that changes. */
  count: number;
}) {
  const [hidden, setHidden] = useState({ before: 0, after: 0 });
  useEffect(() => {
    const table = of.current;
    if (!table) return;
    const look = () => {
      const next = hiddenColumns(table, column);
      setHidden((before) =>
        before.before === next.before && before.after === next.after ? before : next,
      );
    };
    look();
    const observer = new ResizeObserver(look);
    observer.observe(table);
    table.addEventListener('scroll', look);
    return () => {
      observer.disconnect();
      table.removeEventListener('scroll', look);
    };
  }, [of, column, count]);
  const go = (way: 1 | -1) => of.current?.scrollBy({ left: way * of.current.clientWidth * 0.6 });
  if (hidden.before + hidden.after === 0) return null;
  return (
    <Line>
      {hidden.before > 0 && (
        <QuietButton onPress={() => go(-1)}>
          <ArrowLeft size={14} /> {counted(hidden.before, 'column')} before
        </QuietButton>
      )}
      {hidden.after > 0 && (
        <QuietButton onPress={() => go(1)}>
          {counted(hidden.after, 'more column')} <ArrowRight size={14} />
        </QuietButton>
      )}
    </Line>
  );
}
