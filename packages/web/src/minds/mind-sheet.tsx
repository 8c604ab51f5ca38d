import {
  archetypesWithMind,
  CADENCE_EVERY,
  CHANNELS,
  duplicateMind,
  mindsOf,
  namesOf,
  removeMind,
  type MindDocument,
} from '@crooked-lantern/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { useProject } from '../state/store.ts';
import { useEdit } from '../state/use-edit.ts';
import { Button, MainButton, RemoveButton, Toggle } from '../ui/button.tsx';
import { counted } from '../ui/words/counted.ts';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { checkTitle, Choice, Row, Rows } from '../ui/fields/fields.tsx';
import { InlineText } from '../ui/fields/inline-text.tsx';
import { NoteText } from '../ui/fields/note-text.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { CopyButton } from './copy-button.tsx';
import { PartName } from '../project/part-name.tsx';
import { RowFindings } from '../findings/row-findings.tsx';
import { Buttons, PartTitle, Sheet, Trouble } from './sheet-layout.ts';
import type { Selection } from './use-selection.ts';
import { TierValues } from '../project/tier-values.tsx';

type Cadence = 'tick' | 'every' | 'event';

function cadenceOf({ cadence }: MindDocument): Cadence {
  if (!cadence) return 'tick';
  return 'on' in cadence ? 'event' : 'every';
}

const FIRST_EVERY = 0.2;
const CADENCES: Record<Cadence, MindDocument['cadence']> = {
  tick: undefined,
  every: { every: FIRST_EVERY },
  event: { on: 'event' },
};

/** The agents that have the mind, as the first or beside it. */
function Holders({ name, title }: { name: string; title: string }) {
  const id = useProject((project) => project.id);
  const document = useProject((project) => project.document);
  const { put, trouble } = useEdit();
  const { archetypes } = document;
  const holders = archetypesWithMind(document, name);
  const give = (archetype: string) => {
    const { mind, minds = [] } = archetypes[archetype];
    if (mind === undefined) put(['archetypes', archetype, 'mind'], name);
    else put(['archetypes', archetype, 'minds'], [...minds, name]);
  };
  const take = (archetype: string) => {
    const { mind, minds = [] } = archetypes[archetype];
    if (mind === name) return put(['archetypes', archetype, 'mind'], undefined);
    const left = minds.filter((other) => other !== name);
    return put(['archetypes', archetype, 'minds'], left.length > 0 ? left : undefined);
  };
  const free = namesOf(archetypes).filter((archetype) => {
    const has = mindsOf(archetypes[archetype]);
    return !has.includes(name) && has.length < 5;
  });
  return (
    <Row label="Archetypes">
      {holders.map((archetype) => {
        const { title: called, mind, minds = [] } = archetypes[archetype];
        return (
          <div key={archetype}>
            <Link to={`/projects/${id}/cast/archetypes/${archetype}`}>{called}</Link>{' '}
            {mind === name
              ? minds.length > 0
                ? `has it first, beside ${minds.map((other) => document.minds[other]?.title ?? other).join(', ')}`
                : 'has it'
              : `has it beside ${document.minds[mind ?? '']?.title ?? mind}`}
            {!(mind === name && minds.length > 0) && (
              <RemoveButton
                label={`${called} no longer has the mind ${title}`}
                onPress={() => take(archetype)}
              />
            )}
          </div>
        );
      })}
      {free.length > 0 && (
        <Choice
          label={`Give ${title} to an archetype`}
          value="give"
          options={[
            {
              id: 'give',
              title: holders.length === 0 ? 'no agent yet: give it to …' : 'give it to …',
            },
            ...free.map((archetype) => ({ id: archetype, title: archetypes[archetype].title })),
          ]}
          onChoose={(archetype) => archetype !== 'give' && give(archetype)}
        />
      )}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </Row>
  );
}

/** What would be without the mind, before it is taken away. */
function RemoveDialog({
  name,
  onClose,
  onRemoved,
}: {
  name: string;
  onClose: () => void;
  onRemoved: () => void;
}) {
  const document = useProject((project) => project.document);
  const { run, trouble } = useEdit();
  const { title } = document.minds[name];
  const holders = archetypesWithMind(document, name).map(
    (archetype) => document.archetypes[archetype],
  );
  const placed = Object.values(document.grounds).flatMap(({ agents }) =>
    Object.values(agents).filter(({ archetype }) =>
      archetypesWithMind(document, name).includes(archetype),
    ),
  );
  return (
    <Dialog title={`Remove ${title}`} isOpen onClose={onClose}>
      {holders.length === 0 ? (
        <p>No archetype has it, so nothing else changes.</p>
      ) : (
        <p>
          {holders.map((archetype) => archetype.title).join(', ')}{' '}
          {holders.length === 1 ? 'has' : 'have'} it. Without it{' '}
          {counted(placed.length, 'placed agent')} would decide nothing more, or only by their other
          minds. Undo brings it back.
        </p>
      )}
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <Buttons>
        <Button onPress={onClose}>Keep it</Button>
        <MainButton
          onPress={() => {
            if (run(() => removeMind(document, name))) onRemoved();
          }}
        >
          Remove {title}
        </MainButton>
      </Buttons>
    </Dialog>
  );
}

/** A mind as a whole: what it is called, when it decides, what it may use, who has it. */
export function MindSheet({
  selection: { mind: name },
  select,
}: {
  selection: Selection;
  select: (change: Partial<Selection>) => void;
}) {
  const document = useProject((project) => project.document);
  const { run, put, trouble } = useEdit();
  const [removing, setRemoving] = useState(false);
  const mind = document.minds[name];
  if (!mind) return null;
  const { title, channels } = mind;
  const at = (field: string) => ['minds', name, field];
  const cadence = cadenceOf(mind);
  return (
    <Sheet aria-label={`Mind ${title}`}>
      <PartTitle>
        <InlineText
          label={`Title of ${title}`}
          value={title}
          check={(text) => checkTitle(text)}
          onCommit={(text) => put(at('title'), text.trim())}
        />
      </PartTitle>
      <RowFindings path={`minds.${name}`} own />
      <Rows>
        <Row label="Name in the file">
          <PartName
            label={`Name of ${title} in the file`}
            part="minds"
            name={name}
            onRenamed={(to) => select({ mind: to, sheet: 'mind' })}
          />
        </Row>
        <Row label="Note">
          <NoteText
            label={`Note on ${title}`}
            note={mind.note}
            onCommit={(text) => put(at('note'), text)}
          />
        </Row>
        <Row label="Decides">
          <Choice
            label={`When ${title} decides`}
            value={cadence}
            options={[
              { id: 'tick', title: 'every tick' },
              { id: 'every', title: 'at an interval, staggered' },
              { id: 'event', title: 'when an event comes' },
            ]}
            onChoose={(id) => id !== cadence && put(at('cadence'), CADENCES[id as Cadence])}
          />
          {mind.cadence && 'every' in mind.cadence && (
            <span>
              {' '}
              every{' '}
              <NumberText
                label={`${CADENCE_EVERY.label} of ${title}`}
                about={CADENCE_EVERY.about}
                spec={CADENCE_EVERY}
                value={mind.cadence.every}
                onCommit={(every) => put(at('cadence'), { every })}
              />{' '}
              s
              <TierValues path={`minds.${name}.cadence.every`} />
            </span>
          )}
        </Row>
        <Row label="May use">
          {CHANNELS.map((channel) => {
            const used = channels ? channels.includes(channel) : true;
            return (
              <Toggle
                key={channel}
                isSelected={used}
                aria-label={`${title} may use the ${channel}`}
                onChange={(on) => {
                  const next = CHANNELS.filter((each) =>
                    each === channel ? on : (channels ?? CHANNELS).includes(each),
                  );
                  put(at('channels'), next.length === CHANNELS.length ? undefined : next);
                }}
              >
                {channel}
              </Toggle>
            );
          })}
        </Row>
        <Holders name={name} title={title} />
      </Rows>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
      <Buttons>
        <Button
          onPress={() => {
            let made = '';
            const done = run(() => {
              const copy = duplicateMind(document, name);
              made = copy.name;
              return copy.command;
            });
            if (done) select({ mind: made, sheet: 'mind' });
          }}
        >
          Duplicate
        </Button>
        <CopyButton what={`the mind ${title}`} mind={name} content={{ mind }} />
        <Button onPress={() => setRemoving(true)}>Remove …</Button>
      </Buttons>
      {removing && (
        <RemoveDialog
          name={name}
          onClose={() => setRemoving(false)}
          onRemoved={() => {
            setRemoving(false);
            select({
              mind: namesOf(document.minds).find((other) => other !== name),
              sheet: null,
            });
          }}
        />
      )}
    </Sheet>
  );
}
