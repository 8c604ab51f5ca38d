import { useEffect, useState } from 'react';

/** The box's inner size, without what a scrollbar takes below: the plan's size, which brings it up, must not follow from it. */
export function useRoom(box: HTMLElement | null): { width: number; height: number } {
  const [room, setRoom] = useState({ width: 640, height: 240 });
  useEffect(() => {
    if (!box) return undefined;
    const observer = new ResizeObserver(() => {
      const [width, height] = [box.clientWidth, box.offsetHeight];
      setRoom((last) =>
        last.width === width && last.height === height ? last : { width, height },
      );
    });
    observer.observe(box);
    return () => observer.disconnect();
  }, [box]);
  return room;
}
