import { namesOf } from '@crooked-lantern/core';
import { useEffect, useMemo, useState, type ReactNode } from 'react';
import { useLocation, useSearchParams } from 'react-router';
import { Toolbar } from 'react-aria-components';
import styled from 'styled-components';
import { useCommands } from '../../shell/commands.tsx';
import { LedgerPanel } from '../../ledger/ledger-panel.tsx';
import { QuietButton, Toggle } from '../../ui/button.tsx';
import { Menu } from '../../ui/overlays/menu.tsx';
import { PlacePanes } from '../../shell/panes.tsx';
import { PlaceLayout } from '../../ui/place.ts';
import { EditorStage, useWalkableArea } from './editor-stage.tsx';
import { Inspector } from './inspector.tsx';
import { allParts, type PartRef } from './parts.ts';
import { PartList } from './part-list.tsx';
import { toolsFor, type Tool } from './tools.ts';
import { useGroundEditor } from './use-ground-editor.ts';

const Work = styled.div`
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  min-width: 0;
  min-height: 0;
`;

const Bar = styled(Toolbar)`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 1px;
  padding: 4px 6px;
  button {
    padding: 0 0.5em;
    gap: 0.35em;
  }
  border-bottom: 1px solid var(--line);
  color: var(--mute);
`;

const Foot = styled.p`
  min-height: 26px;
  padding: 3px 10px;
  border-top: 1px solid var(--line);
  color: var(--mute);
  &[role='alert'] {
    color: var(--harm);
  }
`;

const Apart = styled.section`
  margin-top: 14px;
  color: var(--mute);
  h3 {
    color: var(--bone);
    font-weight: 600;
  }
`;

const SNAPS = [0, 0.1, 0.25, 0.5, 1];

const HINTS: Record<Tool['how'], string> = {
  choose:
    'Click to choose, with Shift several · drag or arrows to move · Ctrl+D copies · Delete removes',
  box: 'Drag to draw it, or arrow keys and Space · Escape to stop',
  point: 'Click to place it, or arrow keys and Space · Escape to stop',
  points: 'Click each waypoint, Enter ends the route · Escape gives it up',
};

function snapText(snap: number): string {
  return snap === 0 ? 'no snap' : `snap ${snap} m`;
}

/** Where it happens: everything on the ground, placed and changed directly, with numbers beside it. */
export function GroundPage({ header }: { header: ReactNode }) {
  const editor = useGroundEditor();
  const { document, ground } = editor;
  const archetypes = namesOf(document.archetypes);
  // Coming from the cast, one is about to place an agent of the archetype one comes from.
  const wanted = useLocation().state as { place?: string; archetype?: string } | null;
  const [toolId, setToolId] = useState(wanted?.place ?? 'choose');
  const [snap, setSnap] = useState(0.1);
  const [showsRun, setShowsRun] = useState(true);
  const [bodyOf, setBodyOf] = useState(wanted?.archetype ?? archetypes[0] ?? '');
  const [watched, setWatched] = useState<string | null>(null);
  const tools = useMemo(() => toolsFor(ground), [ground]);
  const tool = tools.find(({ id }) => id === toolId) ?? tools[0];
  const radius = document.archetypes[bodyOf]?.body.radius ?? 0.3;
  const area = useWalkableArea(editor, radius);
  const { apart } = area;
  const { remove, duplicate, choose, isFree, chosen } = editor;
  const [search] = useSearchParams();
  const named = search.get('part');
  // A link to a part of the ground chooses it.
  useEffect(() => {
    const [, kind, name] = /^([a-z]+):(.+)$/.exec(named ?? '') ?? [];
    if (kind) choose([{ kind: kind as PartRef['kind'], name }]);
  }, [named, choose]);
  const nothing = chosen.length === 0 ? 'nothing is chosen' : undefined;

  useCommands(
    useMemo(
      () => [
        ...tools.map(({ id, title, kind }) => ({
          id: `tool-${id}`,
          name: kind === null ? 'Choose parts of the ground' : `Place: ${title}`,
          run: () => setToolId(id),
        })),
        {
          id: 'remove-parts',
          name: 'Remove what is chosen',
          keys: 'Delete',
          disabled: nothing,
          run: remove,
        },
        {
          id: 'duplicate-parts',
          name: 'Duplicate what is chosen',
          keys: '$mod+KeyD',
          disabled: nothing,
          run: duplicate,
        },
        {
          id: 'choose-all',
          name: 'Choose everything that is not locked',
          keys: '$mod+Shift+KeyA',
          run: () => choose(allParts(ground).filter(isFree)),
        },
      ],
      [tools, setToolId, remove, duplicate, choose, isFree, ground, nothing],
    ),
  );

  return (
    <PlaceLayout>
      {header}
      <PlacePanes
        place="ground"
        list={{
          name: 'the list of parts',
          size: '238px',
          least: '140px',
          content: <PartList editor={editor} />,
        }}
        work={
          <Work>
            <Bar aria-label="Tools">
              {tools.map(({ id, title, icon: Icon }) => (
                <Toggle
                  key={id}
                  isSelected={id === toolId}
                  onChange={() => setToolId(id)}
                  aria-label={title}
                  data-tool={id}
                >
                  <Icon size={13} /> {title}
                </Toggle>
              ))}
              <Menu
                label="Snap"
                entries={SNAPS.map((value) => ({
                  id: String(value),
                  text: snapText(value),
                  label: snapText(value),
                  onAction: () => setSnap(value),
                }))}
              >
                <QuietButton aria-label={`${snapText(snap)}. Choose`}>{snapText(snap)}</QuietButton>
              </Menu>
              <Menu
                label="Body whose walkable area is shown"
                entries={archetypes.map((name) => ({
                  id: name,
                  text: document.archetypes[name].title,
                  label: document.archetypes[name].title,
                  onAction: () => setBodyOf(name),
                }))}
              >
                <QuietButton
                  aria-label={`Body: ${document.archetypes[bodyOf]?.title ?? 'none'}. Choose`}
                >
                  body: {document.archetypes[bodyOf]?.title ?? '—'} {radius} m
                </QuietButton>
              </Menu>
              <Toggle isSelected={showsRun} onChange={setShowsRun} aria-label="Show live positions">
                run
              </Toggle>
            </Bar>
            <EditorStage
              editor={editor}
              tool={tool}
              snap={snap}
              area={area}
              agentKind={bodyOf}
              showsRun={showsRun}
              onToolDone={() => setToolId('choose')}
            />
            {editor.trouble ? (
              <Foot role="alert">{editor.trouble}</Foot>
            ) : (
              <Foot>
                {tool.id === 'agent'
                  ? `Click to place a ${document.archetypes[bodyOf]?.title}`
                  : HINTS[tool.how]}
              </Foot>
            )}
          </Work>
        }
        side={{
          name: 'the inspector',
          size: '264px',
          least: '200px',
          content: (
            <Inspector editor={editor}>
              <Apart aria-label="Cut off">
                <h3>{apart.length === 0 ? 'Every place can be reached' : 'Unreachable areas'}</h3>
                <ul>
                  {apart.map(({ name, x, y, squareMetres }) => (
                    <li key={name}>
                      {name}: {squareMetres.toFixed(1)} m² around {x.toFixed(1)}, {y.toFixed(1)}
                    </li>
                  ))}
                </ul>
              </Apart>
            </Inspector>
          ),
        }}
        ledger={<LedgerPanel agent={watched} onSelectAgent={setWatched} />}
      />
    </PlaceLayout>
  );
}
