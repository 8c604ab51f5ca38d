import { Link, useLocation } from 'react-router';
import { addressOf } from '../findings/finding-address.ts';
import { useProject } from '../state/store.ts';
import { NoticeBar } from '../ui/overlays/notice-bar.tsx';
import { counted } from '../ui/words/counted.ts';

/** Says that a project was opened with errors, and what runs until they are mended. */
export function EarlierEditNotice() {
  const { search } = useLocation();
  const { id, document, edit, earlier, findings } = useProject((project) => project);
  const errors = findings.filter(({ severity }) => severity === 'error');
  if (earlier === null || errors.length === 0) return null;
  return (
    <NoticeBar role="status">
      <p>
        Edit {edit} has {counted(errors.length, 'error')}.{' '}
        {earlier.edit === null
          ? 'No edit before it runs either, so nothing runs until it is mended.'
          : `Edit ${earlier.edit}, the last without errors, runs until it is mended.`}{' '}
        <Link to={addressOf(errors[0], document, id, search)}>{errors[0].message}</Link>
      </p>
    </NoticeBar>
  );
}
