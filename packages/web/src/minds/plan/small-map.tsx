import { useEffect, useState, type PointerEvent } from 'react';
import type { PlanLayout } from './plan-layout.ts';
import { SmallMap as Box } from './plan-style.ts';

const WIDTH = 110;

/** Minimap with the part that is in sight, where not all of it is; a press goes there. */
export function SmallMap({
  box,
  layout,
  active,
  scale,
}: {
  box: HTMLElement;
  layout: PlanLayout;
  active: ReadonlySet<string>;
  scale: number;
}) {
  const [seen, setSeen] = useState({ x: 0, y: 0, width: 0, height: 0 });
  useEffect(() => {
    const read = () =>
      setSeen({
        x: box.scrollLeft / scale,
        y: box.scrollTop / scale,
        width: box.clientWidth / scale,
        height: box.clientHeight / scale,
      });
    read();
    box.addEventListener('scroll', read, { passive: true });
    return () => box.removeEventListener('scroll', read);
  }, [box, scale, layout]);
  if (seen.width >= layout.width - 1 && seen.height >= layout.height - 1) return null;
  const goTo = (event: PointerEvent<SVGSVGElement>) => {
    const { left, top } = event.currentTarget.getBoundingClientRect();
    const part = layout.width / WIDTH;
    box.scrollTo({
      left: ((event.clientX - left) * part - seen.width / 2) * scale,
      top: ((event.clientY - top) * part - seen.height / 2) * scale,
    });
  };
  return (
    <Box
      role="img"
      aria-label="Minimap"
      width={WIDTH}
      height={(WIDTH * layout.height) / layout.width}
      viewBox={`0 0 ${layout.width} ${layout.height}`}
      onPointerDown={goTo}
      onPointerMove={(event) => event.buttons === 1 && goTo(event)}
    >
      {layout.states
        .filter(({ kind }) => kind !== 'room')
        .map(({ id, x, y, width, height }) => (
          <rect
            key={id}
            className={active.has(id) ? 'lit' : undefined}
            x={x}
            y={y}
            width={width}
            height={height}
            rx={6}
          />
        ))}
      <rect className="seen" strokeWidth={layout.width / WIDTH} {...seen} />
    </Box>
  );
}
