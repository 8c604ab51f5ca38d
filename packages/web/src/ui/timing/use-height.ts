import { useLayoutEffect, useState, type RefObject } from 'react';

/** The height of an element, followed as it changes; 0 before it is on the page. */
export function useHeight(element: RefObject<HTMLElement | null>): number {
  const [height, setHeight] = useState(0);
  useLayoutEffect(() => {
    const observer = new ResizeObserver(([{ contentRect }]) => setHeight(contentRect.height));
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return height;
}
