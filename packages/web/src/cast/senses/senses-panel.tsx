import {
  namesOf,
  type ArchetypeDocument,
  type ProjectDocument,
  type Stance,
} from '@crooked-lantern/core';
import { Suspense, useMemo, useState } from 'react';
import styled from 'styled-components';
import { useTokens } from '../../theme/use-tokens.ts';
import { Choice } from '../../ui/fields/fields.tsx';
import { NumberText } from '../../ui/fields/number-text.tsx';
import { factionTint, stanceOf } from '../factions.ts';
import type { KindEditor } from '../use-cast.ts';
import {
  gaitNamed,
  noticeCases,
  noticeCurves,
  noticeTime,
  secondsText,
  strokeOf,
} from './notice-curves.ts';
import { PolarDrawing, type Heard } from './polar-drawing.tsx';
import type { PolarPlace } from './polar.ts';
import { latePart } from '../../loading/late-part.tsx';

/** How far off the heading one can stand. */
const ANGLE = { minimum: 0, maximum: 180 };

const NoticeChart = latePart('the chart', () =>
  import('./notice-chart.tsx').then((file) => file.default),
);

const Panel = styled.section`
  display: grid;
  grid-template-rows: minmax(220px, 1fr) auto auto minmax(170px, 0.35fr);
  min-width: 0;
  min-height: 0;
  border-left: 1px solid var(--line);
  overflow: hidden;
`;

const Line = styled.p`
  min-height: 24px;
  padding: 2px 12px;
  color: var(--mute);
  button {
    min-height: 24px;
  }
`;

const Key = styled.ul`
  display: grid;
  grid-template-columns: repeat(2, max-content);
  gap: 0 18px;
  padding: 2px 12px;
  li {
    display: flex;
    align-items: center;
    gap: 5px;
    color: var(--mute);
  }
`;

const Nothing = styled.p`
  align-self: center;
  padding: 20px 30px;
  color: var(--mute);
  text-align: center;
`;

/** The kind that this kind looks out for: the first it is hostile to, else any other, else itself. */
function usualTarget(document: ProjectDocument, kind: ArchetypeDocument): string {
  const names = namesOf(document.archetypes);
  const wanted: Stance[] = ['hostile', 'neutral', 'friendly'];
  for (const stance of wanted) {
    const found = names.find((name) => {
      const { faction } = document.archetypes[name];
      return stanceOf(document.factions, kind.faction, faction) === stance;
    });
    if (found) return found;
  }
  return names[0] ?? '';
}

/** What the target does that can be heard. */
function noisesOf(target: ArchetypeDocument | undefined): Heard[] {
  if (!target) return [];
  return namesOf(target.gaits).flatMap((name) => {
    const reach = gaitNamed(target, name)!.noise ?? 0;
    return reach > 0 ? [{ title: name, reach }] : [];
  });
}

/** What an agent sees and hears, drawn from above, and how long it takes to notice another. */
export function SensesPanel({
  editor,
  document,
}: {
  editor: KindEditor;
  document: ProjectDocument;
}) {
  const { kind, of, put } = editor;
  const { sight, hearing, reaction = 0 } = kind;
  const tokens = useTokens();
  const [chosen, setChosen] = useState<string | null>(null);
  const [until, setUntil] = useState<'curious' | 'certain'>('certain');
  const [angle, setAngle] = useState(0);
  const [pointed, setPointed] = useState<PolarPlace | null>(null);
  const names = namesOf(document.archetypes);
  const name = chosen !== null && names.includes(chosen) ? chosen : usualTarget(document, kind);
  const target: ArchetypeDocument | undefined = document.archetypes[name];
  const light = document.grounds[document.start.ground]?.light ?? 1;
  const cases = useMemo(() => (target ? noticeCases(target, light) : []), [target, light]);
  const question = useMemo(
    () => (sight ? { sight, threshold: sight[until], reaction } : null),
    [sight, until, reaction],
  );
  const points = useMemo(
    () => (question ? noticeCurves(question, cases, angle) : []),
    [question, cases, angle],
  );
  const tint = factionTint(document, kind.faction, tokens.factions);
  if (!sight && !hearing) {
    return (
      <Panel aria-label={`Senses of ${of}`}>
        <Nothing>
          {of} neither sees nor hears. Give it a sense, and what it covers is drawn here.
        </Nothing>
      </Panel>
    );
  }
  return (
    <Panel aria-label={`Senses of ${of}`}>
      <PolarDrawing
        of={of}
        sight={sight}
        threshold={hearing?.threshold}
        noises={noisesOf(target)}
        tint={tint}
        onCones={(cones) => put(['sight', 'cones'], cones)}
        onThreshold={(threshold) => put(['hearing', 'threshold'], threshold)}
        onHover={setPointed}
      />
      <Line style={{ minHeight: 42 }}>
        {pointed && question
          ? `${pointed.distance.toFixed(1)} m, ${Math.abs(pointed.angle).toFixed(0)}° off: ${cases
              .map(({ title, exposure }) => {
                const { distance, angle: off } = pointed;
                return `${title.replace(',', '')} ${secondsText(noticeTime(question, distance, off, exposure))}`;
              })
              .join(' · ')}`
          : 'Drag a handle, or press the arrow keys on it. Dashed rings: how far steps are heard. Point anywhere for the times there.'}
      </Line>
      {sight && (
        <>
          <Line as="div">
            Seconds until{' '}
            <Choice
              label="Noticed means"
              value={until}
              options={[
                { id: 'curious', title: `curious (${sight.curious})` },
                { id: 'certain', title: `certain (${sight.certain})` },
              ]}
              onChoose={(id) => setUntil(id as 'curious' | 'certain')}
            />{' '}
            of a
            <Choice
              label="Target of the chart"
              value={name}
              options={names.map((id) => ({ id, title: document.archetypes[id].title }))}
              onChoose={setChosen}
            />
            <NumberText
              label="Degrees off the heading"
              spec={ANGLE}
              value={angle}
              shown={angle === 0 ? 'ahead' : `${angle}° off`}
              onCommit={setAngle}
            />
          </Line>
          <div style={{ display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)', minHeight: 0 }}>
            <Key aria-label="Lines of the chart">
              {cases.map((each) => (
                <li key={each.id}>
                  <svg width="20" height="8" aria-hidden>
                    <line x1="0" x2="20" y1="4" y2="4" {...strokeOf(each)} />
                  </svg>
                  {each.title}
                </li>
              ))}
            </Key>
            <Suspense fallback={null}>
              <NoticeChart points={points} cases={cases} pointed={pointed?.distance ?? null} />
            </Suspense>
          </div>
        </>
      )}
    </Panel>
  );
}
