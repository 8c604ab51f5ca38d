import { useEffect } from 'react';
import { useProject } from '../state/store.ts';

/** The browser asks before the page is closed or loaded again while the server lacks some of the work. */
export function useLeavingWarning(): void {
  const isUnsaved = useProject(({ saving }) => saving.kind !== 'saved');
  useEffect(() => {
    if (!isUnsaved) return;
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [isUnsaved]);
}
