import { freshIn, namesOf, type BreakpointDocument } from '@crooked-lantern/core';
import { useMemo } from 'react';
import { useProject } from './store.ts';
import { useEdit } from './use-edit.ts';

/** What breakpoints can wait for. */
type StopsAt = Required<Pick<BreakpointDocument, 'on' | 'of'>>;

/** Whether the run stops at something for any agent, with a function that sets or removes that breakpoint. */
export function useBreakpoints(): {
  isSet: (at: StopsAt) => boolean;
  toggle: (at: StopsAt) => void;
} {
  const breakpoints = useProject((project) => project.document.breakpoints);
  const { put } = useEdit();
  return useMemo(() => {
    const find = ({ on, of }: StopsAt) =>
      namesOf(breakpoints ?? {}).find((name) => {
        const other = breakpoints![name];
        const isForAll = other.agent === undefined && other.archetype === undefined;
        return other.on === on && other.of === of && isForAll && !other.off;
      });
    return {
      isSet: (at) => find(at) !== undefined,
      toggle: (at) => {
        const found = find(at);
        if (found !== undefined) put(['breakpoints', found], undefined);
        else put(['breakpoints', freshIn(breakpoints, 'stop')], at);
      },
    };
  }, [put, breakpoints]);
}
