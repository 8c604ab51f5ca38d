import type { ProjectDocument } from '@crooked-lantern/core';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { useEdits } from './use-edits.ts';
import { useSettled } from '../ui/timing/use-settled.ts';
import { api, ApiError, type EditSummary } from '../api/client.ts';
import { changed } from '../state/project-slice.ts';
import { useAppDispatch, useAppSelector, useProject } from '../state/store.ts';
import { historyShown } from '../state/view-slice.ts';
import { MainButton, QuietButton } from '../ui/button.tsx';
import { Dialog, DialogColumns } from '../ui/overlays/dialog.tsx';
import { Choice } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { ListItem } from '../ui/place.ts';
import { agoText } from '../ui/words/time.ts';
import { DifferenceList } from './difference-list.tsx';
import { runInBackground } from '../state/failures.ts';

const Columns = styled(DialogColumns)`
  height: min(60vh, 560px);
  > div {
    min-width: 0;
    overflow: auto;
    scrollbar-gutter: stable;
  }
  h3 {
    font: 600 1.15rem var(--title);
  }
  @media (max-width: 700px) {
    height: auto;
  }
`;

const Find = styled.input`
  width: calc(100% - 6px);
  margin: 3px 3px 6px;
  padding: 4px 8px;
  border: 1px solid var(--line2);
  border-radius: 6px;
  background: var(--night);
`;

const EditItem = styled(ListItem)`
  flex-wrap: wrap;
  gap: 0 8px;
`;

/** What an edit changed, cut where it is long: the page beside the list says it whole. */
const What = styled.span`
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
  flex: 1 0 100%;
  text-align: left;
  overflow: hidden;
  color: var(--mute);
  font-size: 12px;
`;

const Against = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px;
  margin: 6px 0;
  color: var(--mute);
`;

/** The documents of edits, as far as they have been read: each is read once. */
function useDocuments(id: string, numbers: readonly number[]) {
  const [known, setKnown] = useState<ReadonlyMap<number, ProjectDocument>>(new Map());
  const [trouble, setTrouble] = useState<string | null>(null);
  const asked = useRef(new Set<number>());
  const wanted = numbers.join(' ');
  useEffect(() => {
    for (const number of wanted.split(' ').filter(Boolean).map(Number)) {
      if (asked.current.has(number)) continue;
      asked.current.add(number);
      api.readEdit(id, number).then(
        ({ document }) => {
          setKnown((before) => new Map(before).set(number, document));
          setTrouble(null);
        },
        (error: unknown) => {
          if (!(error instanceof ApiError)) throw error;
          asked.current.delete(number);
          setTrouble(error.message);
        },
      );
    }
  }, [id, wanted]);
  return { known, trouble };
}

/** What an edit is compared with: the one before it, what is open now, or another by its number. */
type Other = 'before' | 'now' | number;

const nameOf = ({ name, number }: EditSummary) => name ?? `Edit ${number}`;

/** One edit: what it changed, or how it differs from what is open; it is looked at without changing anything, until it is restored. */
function EditPage({
  edit,
  document,
  isFirst,
  before,
  other,
  otherDocument,
  others,
  trouble,
  onCompared,
  onNamed,
  onRestored,
}: {
  edit: EditSummary;
  /** Undefined until it has been read. */
  document: ProjectDocument | undefined;
  isFirst: boolean;
  /** The document of the edit before. */
  before: ProjectDocument | undefined;
  other: Other;
  /** The document of the edit it is compared with, where it is another by its number. */
  otherDocument: ProjectDocument | undefined;
  others: readonly EditSummary[];
  /** Why one of them could not be read. */
  trouble: string | null;
  onCompared: (other: Other) => void;
  onNamed: (name: string | null) => void;
  onRestored: () => void;
}) {
  const dispatch = useAppDispatch();
  const now = useProject((project) => project.document);
  const latest = useProject((project) => project.edit);
  const title = nameOf(edit);
  return (
    <div>
      <h3>
        <InlineText
          label={`Name of edit ${edit.number}`}
          value={edit.name ?? ''}
          placeholder={`Edit ${edit.number}: name it …`}
          check={(text) => (text.length > 80 ? 'It takes up to 80 characters.' : null)}
          onCommit={(text) => onNamed(text.trim() || null)}
        />
      </h3>
      <Against>
        <span>made {agoText(edit.createdAt, Date.now())}; shown:</span>
        <Choice
          label="What it is compared with"
          value={String(other)}
          options={[
            { id: 'before', title: 'what it changed' },
            { id: 'now', title: `what has changed since, up to edit ${latest}` },
            ...others.map((each) => ({
              id: String(each.number),
              title: `against ${nameOf(each)}`,
            })),
          ]}
          onChoose={(choice) =>
            onCompared(choice === 'before' || choice === 'now' ? choice : Number(choice))
          }
        />
        {edit.number !== latest && document && (
          <MainButton
            onPress={() => {
              dispatch(changed({ document, label: `restoring ${title}` }));
              onRestored();
            }}
          >
            Restore it as a new edit
          </MainButton>
        )}
      </Against>
      {trouble && <p role="alert">{trouble}</p>}
      {!trouble && !document && <p role="status">Reading …</p>}
      {document && other === 'now' && (
        <DifferenceList before={document} after={now} none="Nothing has changed since." />
      )}
      {document &&
        typeof other === 'number' &&
        (otherDocument ? (
          <DifferenceList
            before={other < edit.number ? otherDocument : document}
            after={other < edit.number ? document : otherDocument}
            none="Both are the same."
          />
        ) : (
          <p role="status">Reading …</p>
        ))}
      {document &&
        other === 'before' &&
        (isFirst ? (
          <p>This is the first edit.</p>
        ) : before ? (
          <DifferenceList before={before} after={document} none="It changed nothing." />
        ) : (
          <p role="status">Reading …</p>
        ))}
    </div>
  );
}

/** Every edit with its time: what it changed in words, its name, and the way back to it. */
export function HistoryDialog() {
  const dispatch = useAppDispatch();
  const isOpen = useAppSelector(({ view }) => view.history);
  const id = useProject((project) => project.id);
  const latest = useProject((project) => project.edit);
  const saved = useProject((project) => project.saving.kind === 'saved');
  const [chosen, setChosen] = useState<EditSummary | null>(null);
  const [words, setWords] = useState('');
  const [other, setOther] = useState<Other>('before');
  const version = isOpen ? `${latest} ${saved}` : null;
  const { list, more, trouble, readMore, name } = useEdits(
    id,
    useSettled(words.trim(), ''),
    version,
  );
  // What was chosen stays, also where it is not among those that are found; its name may have changed.
  const last = useRef<EditSummary | undefined>(undefined);
  const edit =
    list?.find(({ number }) => number === chosen?.number) ?? chosen ?? list?.[0] ?? last.current;
  last.current = edit;
  const previous = edit && edit.number > 1 ? edit.number - 1 : undefined;
  // An edit is not compared with itself.
  const against = other === edit?.number ? 'before' : other;
  const shown =
    isOpen && edit
      ? [edit.number, previous, typeof against === 'number' ? against : undefined].filter(
          (number) => number !== undefined,
        )
      : [];
  const documents = useDocuments(id, shown);
  return (
    <Dialog title="History" isOpen={isOpen} wide onClose={() => dispatch(historyShown(false))}>
      {trouble && (
        <p role="alert" style={{ color: 'var(--harm)' }}>
          {trouble}
        </p>
      )}
      {!list && !trouble && <p role="status">Reading …</p>}
      {list && edit && (
        <Columns $list="250px">
          <div role="group" aria-label="Edits">
            <Find
              type="search"
              aria-label="Find an edit"
              placeholder="Find an edit"
              value={words}
              onChange={({ target }) => setWords(target.value)}
            />
            {list.length === 0 && <p role="status">No edit says that.</p>}
            {list.map((each) => (
              <EditItem
                key={each.number}
                type="button"
                aria-current={each.number === edit.number}
                onClick={() => setChosen(each)}
              >
                {nameOf(each)} <small>{agoText(each.createdAt, Date.now())}</small>
                {each.what && <What>{each.what}</What>}
              </EditItem>
            ))}
            {more > 0 && (
              <QuietButton onPress={() => runInBackground(readMore())}>{more} more</QuietButton>
            )}
          </div>
          <EditPage
            key={edit.number}
            edit={edit}
            document={documents.known.get(edit.number)}
            isFirst={previous === undefined}
            before={previous === undefined ? undefined : documents.known.get(previous)}
            other={against}
            otherDocument={typeof against === 'number' ? documents.known.get(against) : undefined}
            others={list.filter(({ number }) => number !== edit.number)}
            onCompared={setOther}
            trouble={documents.trouble}
            onNamed={(given) => runInBackground(name(edit.number, given))}
            onRestored={() => dispatch(historyShown(false))}
          />
        </Columns>
      )}
    </Dialog>
  );
}
