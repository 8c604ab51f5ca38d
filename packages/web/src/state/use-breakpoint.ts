import { freshIn, namesOf, type BreakpointDocument } from '@crooked-lantern/core';
import { useCallback } from 'react';
import { useProject } from './store.ts';
import { useEdit } from './use-edit.ts';

/** Whether the run stops at something, and the way to have it stop there or no longer. */
export function useBreakpoint(breakpoint: BreakpointDocument): {
  isSet: boolean;
  toggle: () => void;
} {
  const { on, of, agent } = breakpoint;
  const breakpoints = useProject((project) => project.document.breakpoints);
  const { put } = useEdit();
  const found = namesOf(breakpoints ?? {}).find((name) => {
    const other = breakpoints![name];
    return other.on === on && other.of === of && other.agent === agent && !other.off;
  });
  const toggle = useCallback(() => {
    if (found !== undefined) put(['breakpoints', found], undefined);
    else
      put(['breakpoints', freshIn(breakpoints, 'stop')], {
        on,
        ...(of === undefined ? {} : { of }),
        ...(agent === undefined ? {} : { agent }),
      });
  }, [put, found, breakpoints, on, of, agent]);
  return { isSet: found !== undefined, toggle };
}
