import { useCallback, useMemo } from 'react';
import { useEngine } from '../engine/use-engine.tsx';
import { useCommands } from '../shell/commands.tsx';
import { textOfInputs } from '../engine/link-input.ts';
import { copyText } from '../ui/words/copy-text.ts';
import { runInBackground } from '../state/failures.ts';

/**
 * Puts a link to this moment on the clipboard: agent, state or sheet, row, question, tick, seed, set-up, edit and what
 * players did until then. Returns why it could not; null where it did.
 */
export function useCopyLink(): (more?: { row?: string }) => Promise<string | null> {
  const engine = useEngine();
  return useCallback(
    async ({ row } = {}) => {
      const address = new URL(window.location.href);
      const { frame } = engine;
      const agent = frame?.readout?.agent;
      if (agent !== undefined) address.searchParams.set('agent', agent);
      if (frame) {
        address.searchParams.set('tick', String(frame.tick));
        address.searchParams.set('seed', String(frame.seed));
        address.searchParams.set('edit', String(frame.edit));
        if (frame.setup !== null) address.searchParams.set('setup', frame.setup);
        const { inputs } = await engine.recording();
        const keys = inputs.length > 0 ? await textOfInputs(inputs) : null;
        if (keys !== null) address.searchParams.set('keys', keys);
      }
      if (row === undefined) address.searchParams.delete('row');
      else {
        address.searchParams.set('row', row);
        // The row is on the sheet of its state, whichever is shown without a wish.
        const state = frame?.readout?.state?.id;
        if (state !== undefined && !address.searchParams.has('sheet'))
          address.searchParams.set('state', state);
      }
      return (await copyText(address.href)) ? null : 'The browser does not let the page copy.';
    },
    [engine],
  );
}

/** The same as a command. */
export function useCopyLinkCommand(): void {
  const copyLink = useCopyLink();
  useCommands(
    useMemo(
      () => [
        {
          id: 'copy-link',
          name: 'Copy a link to this moment',
          keys: '$mod+Shift+KeyL',
          run: () => runInBackground(copyLink()),
        },
      ],
      [copyLink],
    ),
  );
}
