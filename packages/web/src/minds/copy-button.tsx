import { clipText, type ClipContent } from '@crooked-lantern/core';
import { Check, Copy } from 'lucide-react';
import { useState } from 'react';
import { useDocumentNow } from '../state/store.ts';
import { runInBackground } from '../state/failures.ts';
import { Button, QuietButton } from '../ui/button.tsx';
import { copyText } from '../ui/words/copy-text.ts';

/** Puts a part of a mind on the clipboard as text, to be pasted into another mind, project or file. */
export function CopyButton({
  what,
  mind,
  content,
  quiet = false,
}: {
  /** “the key quarry”, for readers. */
  what: string;
  mind: string;
  content: ClipContent;
  /** Its icon alone. */
  quiet?: boolean;
}) {
  const documentNow = useDocumentNow();
  const [outcome, setOutcome] = useState<'none' | 'copied' | 'refused'>('none');
  const copy = () => {
    runInBackground(
      copyText(clipText(documentNow(), mind, content)).then((done) =>
        setOutcome(done ? 'copied' : 'refused'),
      ),
    );
  };
  const icon = outcome === 'copied' ? <Check size={12} /> : <Copy size={12} />;
  const words =
    outcome === 'copied' ? 'Copied' : outcome === 'refused' ? 'The browser refused' : 'Copy';
  if (quiet)
    return (
      <QuietButton
        aria-label={outcome === 'none' ? `Copy ${what}` : `${words}: ${what}`}
        onPress={copy}
        style={{ minHeight: 24 }}
      >
        {icon}
      </QuietButton>
    );
  return (
    <Button aria-label={outcome === 'none' ? `Copy ${what}` : `${words}: ${what}`} onPress={copy}>
      {icon} {words}
    </Button>
  );
}
