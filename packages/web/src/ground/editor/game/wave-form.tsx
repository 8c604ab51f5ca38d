import {
  namesOf,
  numberOf,
  usualNumber,
  WAVE_FIELDS,
  type ProjectDocument,
  type WaveDocument,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import styled from 'styled-components';
import { RowFindings } from '../../../findings/row-findings.tsx';
import { QuietButton, RemoveButton, Toggle } from '../../../ui/button.tsx';
import { checkTitle, ChoiceField, NumberField, Row, Rows } from '../../../ui/fields/fields.tsx';
import { Menu } from '../../../ui/overlays/menu.tsx';
import { InlineText } from '../../../ui/fields/inline-text.tsx';
import { OptionalNumberText } from '../../../ui/fields/number-text.tsx';
import { PartName } from '../../../project/part-name.tsx';
import { firstArrivals, spawnsOf, waveWords } from './wave-words.ts';
import { TierValues } from '../../../project/tier-values.tsx';

const Head = styled.div`
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  h4 {
    font-weight: 600;
  }
`;

const Spawns = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
`;

/** As many spawn places are all shown. */
const MOST_SHOWN = 5;

/** Seconds a time bar shows. */
const MINUTE = 60;

/** When the first come, on a bar of a minute. */
function TimeBar({ wave }: { wave: WaveDocument }) {
  const arrivals = firstArrivals(wave, MINUTE);
  const last = arrivals[arrivals.length - 1];
  const words =
    arrivals.length === 1
      ? 'One comes at 0 s'
      : `${arrivals.length} come from 0 to ${Number(last.toFixed(2))} s`;
  return (
    <svg viewBox="0 0 230 26" width="100%" role="img" aria-label={`First minute: ${words}`}>
      <line x1="4" y1="9" x2="226" y2="9" stroke="var(--line2)" />
      {arrivals.map((at) => (
        <rect
          key={at}
          x={4 + (at / MINUTE) * 222 - 1}
          y="2"
          width="2"
          height="13"
          fill="var(--lamp)"
        />
      ))}
      {[0, 20, 40, 60].map((at) => (
        <text
          key={at}
          x={4 + (at / MINUTE) * 222}
          y="25"
          fontSize="9"
          fill="var(--mute)"
          textAnchor={at === 0 ? 'start' : at === MINUTE ? 'end' : 'middle'}
        >
          {at} s
        </text>
      ))}
    </svg>
  );
}

const STARTS = [
  { id: 'run', title: 'with the run' },
  { id: 'director', title: 'by the director' },
  { id: 'zone', title: 'on entering a zone' },
];
const ORDERS = [
  { id: 'turn', title: 'in turn' },
  { id: 'random', title: 'at random' },
  { id: 'farthest', title: 'farthest from players' },
];
const RETURNS = [
  { id: 'last', title: 'the last one’s death' },
  { id: 'each', title: 'each one’s own death' },
];

/** One wave: who, how many, where and when, with what that comes to in words and on a time bar. */
export function WaveForm({
  document,
  name,
  set,
  onRemove,
}: {
  document: ProjectDocument;
  name: string;
  /** Sets a field, or with undefined leaves it out. */
  set: (field: keyof WaveDocument, value: unknown) => void;
  onRemove: () => void;
}) {
  const ground = document.grounds[document.start.ground];
  const wave = ground.waves![name];
  const of = wave.title ?? name;
  const path = `grounds.${document.start.ground}.waves.${name}`;
  const spawns = namesOf(ground.spawns ?? {});
  const chosen = spawnsOf(wave, ground);
  const titleOf = (spawn: string) => ground.spawns![spawn].title ?? spawn;
  // Where there are many, those that are not chosen wait in a menu.
  const others =
    spawns.length > MOST_SHOWN ? spawns.filter((spawn) => !chosen.includes(spawn)) : [];
  const shown = spawns.filter((spawn) => !others.includes(spawn));
  const { count, gap, maxAlive } = WAVE_FIELDS;
  const times = numberOf(wave, 'times', WAVE_FIELDS.times);
  const choice = (
    field: 'squad' | 'route' | 'home' | 'zone',
    label: string,
    names: object,
    none: string,
  ) => (
    <ChoiceField
      label={label}
      of={of}
      value={wave[field] ?? ''}
      options={[{ id: '', title: none }, ...namesOf(names).map((id) => ({ id, title: id }))]}
      onChoose={(id) => set(field, id || undefined)}
    />
  );
  const toggleSpawn = (spawn: string, on: boolean) => {
    const next = on ? [...chosen, spawn] : chosen.filter((each) => each !== spawn);
    if (next.length === 0) return;
    set('at', spawns.every((each) => next.includes(each)) ? undefined : next.sort());
  };
  return (
    <section aria-label={`Wave ${of}`} id={`wave-${name}`}>
      <Head>
        <h4>{of}</h4>
        <RemoveButton label={`Remove the wave ${of}`} onPress={onRemove} />
      </Head>
      <p>{waveWords(wave, document)}</p>
      <TimeBar wave={wave} />
      <RowFindings path={path} />
      <Rows>
        <Row label="Title">
          <InlineText
            label={`Title of ${of}`}
            value={wave.title ?? ''}
            placeholder={name}
            check={(text) => checkTitle(text, true)}
            onCommit={(text) => set('title', text || undefined)}
          />{' '}
          <PartName label={`Name of ${of} in the file`} part="waves" name={name} />
        </Row>
        <ChoiceField
          label="Who"
          of={of}
          value={wave.archetype}
          options={namesOf(document.archetypes).map((id) => ({
            id,
            title: document.archetypes[id].title,
          }))}
          onChoose={(id) => set('archetype', id)}
        />
        <NumberField spec={count} of={of} value={wave.count} onCommit={(n) => set('count', n)}>
          <TierValues path={`${path}.count`} />
        </NumberField>
        <NumberField
          spec={maxAlive}
          of={of}
          value={numberOf(wave, 'maxAlive', maxAlive)}
          onCommit={(n) => set('maxAlive', n === usualNumber(maxAlive, wave) ? undefined : n)}
        >
          <TierValues path={`${path}.maxAlive`} />
        </NumberField>
        <NumberField
          spec={gap}
          of={of}
          value={numberOf(wave, 'gap', gap)}
          onCommit={(n) => set('gap', n === gap.usual ? undefined : n)}
        >
          <TierValues path={`${path}.gap`} />
        </NumberField>
        <Row label="Where">
          {spawns.length === 0 ? (
            'There is no spawn place yet.'
          ) : (
            <Spawns role="group" aria-label={`Spawn places of ${of}`}>
              {shown.map((spawn) => (
                <Toggle
                  key={spawn}
                  isSelected={chosen.includes(spawn)}
                  onChange={(on) => toggleSpawn(spawn, on)}
                >
                  {titleOf(spawn)}
                </Toggle>
              ))}
              {others.length > 0 && (
                <Menu
                  label={`More places for ${of}`}
                  entries={others.map((spawn) => ({
                    id: spawn,
                    text: titleOf(spawn),
                    label: titleOf(spawn),
                    onAction: () => toggleSpawn(spawn, true),
                  }))}
                >
                  <QuietButton aria-label={`Add a spawn place to ${of}`}>
                    <Plus size={13} /> place
                  </QuietButton>
                </Menu>
              )}
            </Spawns>
          )}
        </Row>
        {chosen.length > 1 && (
          <ChoiceField
            label={WAVE_FIELDS.order.label}
            of={of}
            value={wave.order ?? WAVE_FIELDS.order.usual}
            options={ORDERS}
            onChoose={(id) => set('order', id === WAVE_FIELDS.order.usual ? undefined : id)}
          />
        )}
        <ChoiceField
          label={WAVE_FIELDS.starts.label}
          of={of}
          value={wave.starts ?? WAVE_FIELDS.starts.usual}
          options={STARTS}
          onChoose={(id) => set('starts', id === WAVE_FIELDS.starts.usual ? undefined : id)}
        />
        {wave.starts === 'zone' && choice('zone', 'Zone', ground.zones ?? {}, 'choose one')}
        <NumberField
          spec={WAVE_FIELDS.times}
          of={of}
          value={times}
          onCommit={(n) => {
            // Agents come again after some time: never at once unless that is asked for.
            if (n !== 1 && wave.delay === undefined) set('delay', USUAL_DELAY);
            set('times', n === 1 ? undefined : n);
          }}
        >
          {times === 0 && <span> without end</span>}
          <TierValues path={`${path}.times`} />
        </NumberField>
        {times !== 1 && (
          <>
            <Row label={WAVE_FIELDS.delay.label}>
              <OptionalNumberText
                label={`Delay of ${of}`}
                about={WAVE_FIELDS.delay.about}
                spec={WAVE_FIELDS.delay}
                value={wave.delay}
                placeholder="none"
                onCommit={(n) => set('delay', n)}
              />{' '}
              s
              <TierValues path={`${path}.delay`} />
            </Row>
            <ChoiceField
              label={WAVE_FIELDS.after.label}
              of={of}
              value={wave.after ?? WAVE_FIELDS.after.usual}
              options={RETURNS}
              onChoose={(id) => set('after', id === WAVE_FIELDS.after.usual ? undefined : id)}
            />
          </>
        )}
        {choice('squad', 'Squad', document.squads ?? {}, 'its archetype’s')}
        {choice('route', 'Route', ground.routes, 'no route')}
        {choice('home', 'Home', ground.zones ?? {}, 'no home')}
      </Rows>
    </section>
  );
}

/** Seconds until they come again, where none are given. */
const USUAL_DELAY = 5;
