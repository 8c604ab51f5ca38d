import { useCallback, useRef, type ReactNode } from 'react';

/** `pick` has the browser ask for a file; the input must be rendered. */
export function usePickFile(
  accept: string,
  onFile: (file: File) => void,
): { pick: () => void; input: ReactNode } {
  const picker = useRef<HTMLInputElement>(null);
  const pick = useCallback(() => picker.current?.click(), []);
  return {
    pick,
    input: (
      <input
        ref={picker}
        type="file"
        accept={accept}
        hidden
        data-testid="file"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          // The same file can be chosen again.
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
    ),
  };
}
