import { joinedDismissed, listed } from '../state/project-slice.ts';
import { useAppDispatch, useProject } from '../state/store.ts';
import { Button } from '../ui/button.tsx';
import { NoticeBar } from '../ui/overlays/notice-bar.tsx';

/** Says what another window changed, and that it is shown here too. */
export function JoinedNotice() {
  const dispatch = useAppDispatch();
  const joined = useProject((project) => project.joined);
  if (!joined) return null;
  const { edit, parts, withMine } = joined;
  return (
    <NoticeBar role="status">
      <p>
        Another window saved edit {edit}: {listed(parts)}.{' '}
        {withMine ? 'It was merged with what you changed here' : 'It is shown here too'}; Undo takes
        it back.
      </p>
      <Button onPress={() => dispatch(joinedDismissed())}>Dismiss</Button>
    </NoticeBar>
  );
}
