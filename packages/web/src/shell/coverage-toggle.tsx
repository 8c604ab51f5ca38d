import { Footprints } from 'lucide-react';
import { useMemo } from 'react';
import { useCommands } from './commands.tsx';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { coverageShown } from '../state/view-slice.ts';
import { Toggle } from '../ui/button.tsx';

const WORDS = 'Show what was never done (Shift+C)';

/** Offers to show, where minds are edited, what was never done. */
export function useCoverageCommand(): void {
  const dispatch = useAppDispatch();
  const { shown } = useAppSelector(({ view }) => view.coverage);
  useCommands(
    useMemo(
      () => [
        {
          id: 'coverage',
          name: `${shown ? 'Hide' : 'Show'} what was never done`,
          keys: 'Shift+KeyC',
          run: () => dispatch(coverageShown(!shown)),
        },
      ],
      [dispatch, shown],
    ),
  );
}

/** The same as a button. */
export function CoverageToggle() {
  const dispatch = useAppDispatch();
  const { shown } = useAppSelector(({ view }) => view.coverage);
  return (
    <span title={WORDS}>
      <Toggle
        aria-label={WORDS}
        isSelected={shown}
        onChange={(next) => dispatch(coverageShown(next))}
      >
        <Footprints size={13} />
      </Toggle>
    </span>
  );
}
