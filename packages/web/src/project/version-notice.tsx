import { PROJECT_VERSION } from '@crooked-lantern/core';
import { useLocation, useNavigate } from 'react-router';
import { runInBackground } from '../state/failures.ts';
import { Button } from '../ui/button.tsx';
import { NoticeBar } from '../ui/overlays/notice-bar.tsx';

/** What an address says of a project that was just opened from a file of an earlier version. */
export interface OpenedFrom {
  writtenIn: number;
}

/** Says that the file was of an earlier version of the format, until it is dismissed. */
export function VersionNotice() {
  const { state, search } = useLocation();
  const navigate = useNavigate();
  const { writtenIn } = (state ?? {}) as Partial<OpenedFrom>;
  if (writtenIn === undefined) return null;
  return (
    <NoticeBar role="status">
      <p>
        This file is written in version {writtenIn} of the format. It was opened as version{' '}
        {PROJECT_VERSION}; the file itself was not changed.
      </p>
      <Button onPress={() => runInBackground(navigate({ search }, { replace: true, state: null }))}>
        Dismiss
      </Button>
    </NoticeBar>
  );
}
