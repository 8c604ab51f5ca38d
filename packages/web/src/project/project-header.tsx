import { History, Redo2, Undo2 } from 'lucide-react';
import { Suspense, useCallback, useEffect, useMemo, useState } from 'react';
import { NavLink, useNavigate } from 'react-router';
import styled from 'styled-components';
import { fileAddress } from '../api/client.ts';
import { useCommands } from '../shell/commands.tsx';
import { Header } from '../shell/header.tsx';
import { useAppDispatch, useProject } from '../state/store.ts';
import { DifferenceList } from '../history/difference-list.tsx';
import { RunningPill } from '../findings/running-pill.tsx';
import { Button, QuietButton } from '../ui/button.tsx';
import { checkTitle } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { NoticeBar } from '../ui/overlays/notice-bar.tsx';
import { Pill } from '../ui/pill.tsx';
import { agoText, timeText } from '../ui/words/time.ts';
import { perform } from '../state/perform.ts';
import { mineKept, theirsTaken } from '../state/project-slice.ts';
import { redo, undo } from '../state/undo.ts';
import { historyShown } from '../state/view-slice.ts';
import { TierPill } from './tier-pill.tsx';
import { EarlierEditNotice } from './earlier-edit-notice.tsx';
import { FirstStepsCard } from './first-steps/first-steps-card.tsx';
import { JoinedNotice } from './joined-notice.tsx';
import { useLeavingWarning } from './use-leaving-warning.ts';
import { VersionNotice } from './version-notice.tsx';
import { runInBackground } from '../state/failures.ts';
import { latePart, overThePage } from '../loading/late-part.tsx';

const MergeDialog = latePart(
  'merging',
  () => import('../history/merge-dialog.tsx').then((file) => file.MergeDialog),
  overThePage,
);

const Places = styled.nav`
  align-self: stretch;
  display: flex;
  a {
    display: flex;
    align-items: center;
    padding: 0 14px;
    @media (max-width: 1180px) {
      padding: 0 9px;
    }
    border-bottom: 2px solid transparent;
    color: var(--mute);
    text-decoration: none;
  }
  a[aria-current='page'] {
    border-color: var(--bone);
    color: var(--bone);
  }
`;

/** The present, renewed every few seconds: for “12 s ago”. */
function useNow(): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 2000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

function SavingPill() {
  const saving = useProject((project) => project.saving);
  const now = useNow();
  switch (saving.kind) {
    case 'saved':
      return (
        <Pill role="status">
          saved <strong>{agoText(saving.at, Math.max(now, Date.parse(saving.at)))}</strong>
        </Pill>
      );
    case 'saving':
      return <Pill role="status">saving …</Pill>;
    default:
      return (
        <Pill $tone="trouble" role="status">
          <strong>not saved</strong>
        </Pill>
      );
  }
}

/** What keeps the work from being saved, and what can be done about it. */
function SavingTrouble() {
  const dispatch = useAppDispatch();
  const saving = useProject((project) => project.saving);
  const mine = useProject((project) => project.document);
  const [isMerging, setMerging] = useState(false);
  if (saving.kind === 'waiting') {
    return (
      <NoticeBar role="alert">
        <p>
          Not saved: {saving.message} You can go on working: everything is kept in this browser, and
          saving is tried again by itself.
        </p>
      </NoticeBar>
    );
  }
  if (saving.kind === 'refused') {
    return (
      <NoticeBar role="alert">
        <p>Not saved: {saving.message} Undo the last change, or change it again.</p>
      </NoticeBar>
    );
  }
  if (saving.kind !== 'conflict') return null;
  const { theirs, mineAt } = saving;
  const isMineNewer = Date.parse(mineAt) > Date.parse(theirs.updatedAt);
  return (
    <NoticeBar role="alert">
      <p>
        Two windows changed the same part. The other saved edit {theirs.edit}{' '}
        {timeText(theirs.updatedAt)}; yours was made {timeText(mineAt)}, so{' '}
        {isMineNewer ? 'yours' : 'the other'} is newer. Nothing was overwritten: either way both
        stay in the history, and Undo goes back.
      </p>
      <details>
        <summary>What differs from the other window’s</summary>
        <DifferenceList
          before={theirs.document}
          after={mine}
          none="Nothing: both come to the same."
        />
      </details>
      <Button onPress={() => setMerging(true)}>Merge by part …</Button>
      <Button onPress={() => dispatch(mineKept(theirs.edit))}>Keep mine on top</Button>
      <Button onPress={() => dispatch(theirsTaken(theirs))}>Take the other</Button>
      {isMerging && (
        <Suspense fallback={null}>
          <MergeDialog base={saving.base} theirs={theirs} onClose={() => setMerging(false)} />
        </Suspense>
      )}
    </NoticeBar>
  );
}

/** A page of the project, as the header names it. */
interface PlaceLink {
  path: string;
  title: string;
}

/** Undo and redo, as buttons and as commands; `step` takes one. */
function Steps({ step }: { step: (way: ReturnType<typeof undo>) => Promise<void> }) {
  const lastStep = useProject((project) => project.past[project.past.length - 1]?.label);
  const nextStep = useProject((project) => project.future[project.future.length - 1]?.label);
  useCommands(
    useMemo(
      () => [
        {
          id: 'undo',
          name: lastStep ? `Undo ${lastStep}` : 'Undo',
          keys: '$mod+KeyZ',
          disabled: lastStep ? undefined : 'nothing to undo',
          run: () => runInBackground(step(undo())),
        },
        {
          id: 'redo',
          name: nextStep ? `Redo ${nextStep}` : 'Redo',
          keys: '$mod+Shift+KeyZ',
          disabled: nextStep ? undefined : 'nothing to redo',
          run: () => runInBackground(step(redo())),
        },
      ],
      [step, lastStep, nextStep],
    ),
    'project',
  );
  return (
    <>
      <QuietButton
        aria-label={lastStep ? `Undo ${lastStep} (Ctrl+Z)` : 'Undo'}
        isDisabled={!lastStep}
        onPress={() => runInBackground(step(undo()))}
      >
        <Undo2 size={16} />
      </QuietButton>
      <QuietButton
        aria-label={nextStep ? `Redo ${nextStep} (Ctrl+Shift+Z)` : 'Redo'}
        isDisabled={!nextStep}
        onPress={() => runInBackground(step(redo()))}
      >
        <Redo2 size={16} />
      </QuietButton>
    </>
  );
}

/** The header of an open project; `places` are its pages. */
export function ProjectHeader({ places }: { places: readonly PlaceLink[] }) {
  useLeavingWarning();
  const dispatch = useAppDispatch();
  const id = useProject((project) => project.id);
  const title = useProject((project) => project.document.title);
  const navigate = useNavigate();
  const [trouble, setTrouble] = useState<string | null>(null);
  const step = useCallback(
    async (way: ReturnType<typeof undo>) => setTrouble(await dispatch(way)),
    [dispatch],
  );
  useEffect(() => {
    document.title = `${title} · Crooked Lantern`;
  }, [title]);
  useCommands(
    useMemo(
      () => [
        {
          id: 'download',
          name: 'Download the project as a file',
          run: () => window.location.assign(fileAddress(id)),
        },
        ...places.map(({ path, title: name }) => ({
          id: `place ${path}`,
          name: `Go to ${name}`,
          run: () => runInBackground(navigate(`/projects/${id}/${path}`)),
        })),
      ],
      [id, places, navigate],
    ),
    'project',
  );
  return (
    <>
      <Header
        middle={
          <>
            <InlineText
              label="Title of the project"
              value={title}
              check={(text) => checkTitle(text)}
              onCommit={(text) =>
                dispatch(perform({ command: 'retitleProject', title: text.trim() }))
              }
            />
            <Places aria-label="Places">
              {places.map(({ path, title: name }) => (
                <NavLink key={path} to={`/projects/${id}/${path}`}>
                  {name}
                </NavLink>
              ))}
            </Places>
          </>
        }
        right={
          <>
            <Steps step={step} />
            <QuietButton
              aria-label="History of edits (F4)"
              onPress={() => dispatch(historyShown(true))}
            >
              <History size={16} />
            </QuietButton>
            <TierPill />
            <RunningPill />
            <SavingPill />
          </>
        }
      />
      <FirstStepsCard />
      <SavingTrouble />
      <JoinedNotice />
      <VersionNotice />
      <EarlierEditNotice />
      {trouble && (
        <NoticeBar role="alert">
          <p>Not undone: {trouble} The edit is kept on the server; try again when it answers.</p>
          <Button onPress={() => setTrouble(null)}>Dismiss</Button>
        </NoticeBar>
      )}
    </>
  );
}
