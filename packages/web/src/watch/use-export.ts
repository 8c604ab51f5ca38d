import { namesOf, RECORDING_FORMATS, type RecordingFormat } from '@crooked-lantern/core';
import { download } from '../ui/download.ts';
import { useMemo } from 'react';
import { useEngine } from '../engine/use-engine.tsx';
import { useCommands } from '../shell/commands.tsx';
import { useProject } from '../state/store.ts';
import { runInBackground } from '../state/failures.ts';

export interface RunExport {
  id: string;
  name: string;
  run: () => void;
}

/** What is recorded of the run as files, in each format; they are commands too. */
export function useRunExports(): readonly RunExport[] {
  const engine = useEngine();
  const title = useProject((project) => project.document.title);
  const exports = useMemo(
    () =>
      namesOf(RECORDING_FORMATS).map((name): RunExport => {
        const format = name as RecordingFormat;
        const { title: called, ending, type } = RECORDING_FORMATS[format];
        return {
          id: `export-${name}`,
          name: `Export the recording as ${called}`,
          run: () =>
            runInBackground(
              engine.exportRun(format, title).then((text) => {
                const file = title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-');
                if (text !== null) download(`${file}${ending}`, type, text);
              }),
            ),
        };
      }),
    [engine, title],
  );
  useCommands(exports);
  return exports;
}
