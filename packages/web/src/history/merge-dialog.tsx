import {
  mergeDocuments,
  readProject,
  type MergePart,
  type ProjectDocument,
  type Side,
} from '@crooked-lantern/core';
import { useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import { api, ApiError, type StoredProject } from '../api/client.ts';
import { merged } from '../state/project-slice.ts';
import { useAppDispatch, useProject } from '../state/store.ts';
import { Button, MainButton } from '../ui/button.tsx';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { Choice } from '../ui/fields/fields.tsx';

const Parts = styled.ul`
  max-height: 48vh;
  margin: 6px 0;
  overflow: auto;
  scrollbar-gutter: stable;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 170px;
    gap: 8px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
  }
  li[data-by='both'] > div > b {
    color: var(--found);
  }
  small {
    display: block;
    color: var(--mute);
    font-size: 1em;
    overflow-wrap: anywhere;
  }
`;

const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: end;
  gap: 8px;
  p {
    flex: 1;
    min-width: 30ch;
  }
  p[role='alert'] {
    color: var(--harm);
  }
`;

const BY: Record<MergePart['by'], string> = {
  both: 'changed by both',
  mine: 'changed here',
  theirs: 'changed in the other window',
};

const ORDER: MergePart['by'][] = ['both', 'mine', 'theirs'];

const SIDES = [
  { id: 'mine', title: 'as it is here' },
  { id: 'theirs', title: 'as in the other' },
];

/** The document both sides were made from, from the server; a text where it can't be read. */
function useBase(id: string, edit: number): ProjectDocument | string | null {
  const [base, setBase] = useState<ProjectDocument | string | null>(null);
  useEffect(() => {
    let current = true;
    api.readEdit(id, edit).then(
      ({ document }) => current && setBase(document),
      (error: unknown) => {
        if (!(error instanceof ApiError)) throw error;
        if (current) setBase(error.message);
      },
    );
    return () => {
      current = false;
    };
  }, [id, edit]);
  return base;
}

const shown = (text: string | undefined) => text ?? 'not there';

/** Puts the work of two windows together: what each changed is taken, and what both changed is chosen part by part. */
export function MergeDialog({
  base: baseEdit,
  theirs,
  onClose,
}: {
  base: number;
  theirs: StoredProject;
  onClose: () => void;
}) {
  const dispatch = useAppDispatch();
  const id = useProject((project) => project.id);
  const mine = useProject((project) => project.document);
  const base = useBase(id, baseEdit);
  const [chosen, setChosen] = useState<Readonly<Record<string, Side>>>({});
  const result = useMemo(
    () =>
      base === null || typeof base === 'string'
        ? null
        : mergeDocuments(base, mine, theirs.document, chosen),
    [base, mine, theirs, chosen],
  );
  const parts = useMemo(
    () =>
      result === null
        ? []
        : [...result.parts].sort((a, b) => ORDER.indexOf(a.by) - ORDER.indexOf(b.by)),
    [result],
  );
  const form = useMemo(() => (result ? readProject(result.document) : null), [result]);
  const fault = form && !form.ok ? form.faults[0] : null;
  return (
    <Dialog title="Merge by part" isOpen wide onClose={onClose}>
      {typeof base === 'string' ? (
        <p role="alert">What both began from can’t be read: {base}</p>
      ) : result === null ? (
        <p role="status">Reading what both began from …</p>
      ) : (
        <>
          <p>
            Both began from edit {baseEdit}. What only one side changed is taken from there; where
            both changed the same part, choose.
          </p>
          <Parts aria-label="Parts that differ">
            {parts.map(({ key, what, by, base: was, mine: own, theirs: other }) => (
              <li key={key} data-by={by}>
                <div>
                  <b>{what}</b> {BY[by]}
                  <small>
                    was {shown(was)} · here {shown(own)} · other {shown(other)}
                  </small>
                </div>
                <Choice
                  label={`${what}: whose`}
                  value={chosen[key] ?? (by === 'theirs' ? 'theirs' : 'mine')}
                  options={SIDES}
                  onChoose={(side) => setChosen((all) => ({ ...all, [key]: side as Side }))}
                />
              </li>
            ))}
          </Parts>
        </>
      )}
      <Foot>
        {fault ? (
          <p role="alert">
            These don’t go together: {fault.path} {fault.message}.
          </p>
        ) : (
          <p>It becomes an edit on top of the other; both stay in the history.</p>
        )}
        <Button onPress={onClose}>Cancel</Button>
        <MainButton
          isDisabled={result === null || fault !== null}
          onPress={() => {
            if (!result) return;
            onClose();
            dispatch(merged({ document: result.document, theirEdit: theirs.edit }));
          }}
        >
          Merge
        </MainButton>
      </Foot>
    </Dialog>
  );
}
