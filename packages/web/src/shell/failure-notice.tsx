import { useState } from 'react';
import { dismissFailure, runInBackground, useFailure, type Failure } from '../state/failures.ts';
import { Button } from '../ui/button.tsx';
import { copyText } from '../ui/words/copy-text.ts';
import { NoticeBar } from '../ui/overlays/notice-bar.tsx';

/** Says what failed, on every page; nothing where nothing has. */
export function FailureNotice() {
  const failure = useFailure();
  return failure && <Notice key={failure.report} failure={failure} />;
}

function Notice({ failure: { title, report, retry } }: { failure: Failure }) {
  const [copied, setCopied] = useState<boolean | null>(null);
  const copy = async () => setCopied(await copyText(report));
  const words =
    copied === null ? 'Copy report' : copied ? 'Report copied' : 'The browser refused to copy';
  return (
    <NoticeBar role="alert">
      <p>{title}</p>
      {retry && (
        <Button
          onPress={() => {
            dismissFailure();
            retry.run();
          }}
        >
          {retry.label}
        </Button>
      )}
      <Button onPress={() => runInBackground(copy())}>{words}</Button>
      <Button onPress={dismissFailure}>Dismiss</Button>
    </NoticeBar>
  );
}
