import { useCallback } from 'react';
import { useNavigate } from 'react-router';
import { runInBackground } from '../state/failures.ts';

/** Follows an agent from now on, on whichever page; what was asked of another says nothing of it. */
export function useFollow(): (agent: string) => void {
  const navigate = useNavigate();
  return useCallback(
    (agent) => {
      // The address is read at the time of the call: the transport writes its tick there too.
      const search = new URLSearchParams(window.location.search);
      if (search.get('agent') === agent) return;
      search.set('agent', agent);
      search.delete('ask');
      runInBackground(navigate({ search: search.toString() }, { replace: true }));
    },
    [navigate],
  );
}
