import { namesOf } from '@crooked-lantern/core';
import { useCallback, useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { LedgerPanel } from '../ledger/ledger-panel.tsx';
import { SideSheet } from './layout.ts';
import { useCommands } from '../shell/commands.tsx';
import { PlacePanes } from '../shell/panes.tsx';
import { useProject } from '../state/store.ts';
import { useEdit } from '../state/use-edit.ts';
import { PlaceLayout } from '../ui/place.ts';
import { BandsSheet } from './sheets/bands-sheet.tsx';
import { Board } from './board/board.tsx';
import { ChoiceSheet } from './sheets/choice-sheet.tsx';
import { FightFigures } from './fights/fight-figures.tsx';
import { HitList } from './fights/hit-list.tsx';
import { CurveSheet } from './curve/curve-sheet.tsx';
import { OptionSheet } from './sheets/option-sheet.tsx';
import { BeginWith } from './sheets/simple-form.tsx';
import { useWeighing, type Weighing } from './use-weighing.ts';
import { TiersSheet } from './sheets/tiers-sheet.tsx';
import { WeighList } from './weigh-list.tsx';
import { choiceWords } from './words.ts';

const Work = styled.section`
  overflow: auto;
  scrollbar-gutter: stable;
  padding: 10px 8px 14px;
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 14px;
  padding: 0 8px 8px;
  color: var(--mute);
  h2 {
    color: var(--bone);
    font: 600 1.35rem/1.2 var(--title);
  }
`;

const Empty = styled.div`
  max-width: 62ch;
  padding: 14px 8px;
  color: var(--mute);
  p {
    margin: 6px 0;
  }
`;

/** What is chosen: bands, one consideration, one option, or the choice as a whole. */
function Chosen({ weighing }: { weighing: Weighing }) {
  const { document, option, cell, bands, tiers, figures, select } = weighing;
  const editing = useEdit();
  const sets = useProject((project) => project.document.bands);
  if (figures) return <HitList />;
  if (tiers !== null)
    return (
      <TiersSheet
        editing={editing}
        asked={tiers}
        key={tiers}
        onClose={() => select({ tiers: false })}
      />
    );
  if (bands !== null && sets)
    return (
      <BandsSheet
        key={bands}
        name={bands}
        set={sets[bands]}
        editing={editing}
        onClose={() => select({ bands: null })}
        onRenamed={(name) => select({ bands: name })}
      />
    );
  if (!document) return <SideSheet aria-label="No choice" />;
  const chosen = document.options[option];
  if (!chosen) return <ChoiceSheet weighing={weighing} document={document} editing={editing} />;
  const consideration = chosen.considerations?.[cell];
  if (consideration)
    return (
      <CurveSheet
        key={`${chosen.id} ${cell}`}
        weighing={weighing}
        document={document}
        consideration={consideration}
        editing={editing}
      />
    );
  return (
    <OptionSheet
      key={chosen.id}
      weighing={weighing}
      document={document}
      option={chosen}
      editing={editing}
    />
  );
}

/** How minds weigh what to do: the board of options and considerations, the chosen curve beside it, the ledger below. */
export function WeighPage({ header }: { header: ReactNode }) {
  const weighing = useWeighing();
  const { document, choice, mind, agent, figures, select } = weighing;
  const editing = useEdit();
  const id = useProject((project) => project.id);
  const minds = useProject((project) => project.document.minds);
  const selectAgent = useCallback((name: string) => select({ agent: name }), [select]);
  useCommands(
    useMemo(
      () => [
        ...Object.keys(minds).flatMap((name) =>
          namesOf(minds[name].choices ?? {}).map((each) => ({
            id: `weigh-${name}-${each}`,
            name: `Weigh: ${minds[name].choices![each].title ?? each} of ${minds[name].title}`,
            run: () => select({ mind: name, choice: each }),
          })),
        ),
        {
          id: 'weigh-figures',
          name: 'Weigh: figures of fights',
          run: () => select({ figures: true }),
        },
      ],
      [minds, select],
    ),
  );
  return (
    <PlaceLayout>
      {header}
      <PlacePanes
        place="weigh"
        list={{
          name: 'the list of choices',
          size: '170px',
          least: '120px',
          content: <WeighList weighing={weighing} />,
        }}
        work={
          <Work aria-label={figures ? 'Figures of fights' : 'Board'}>
            {figures ? (
              <FightFigures />
            ) : document ? (
              <>
                <Head>
                  <h2>
                    {minds[mind].title}: {document.title ?? choice}
                  </h2>
                  <span>{choiceWords(document)}</span>
                </Head>
                {document.options.length === 0 && (
                  <Empty>
                    <p>
                      A choice weighs its options against each other and does what is worth most.
                      Add an option for each thing it could do; then say what speaks for it. Or
                      begin with a simple form, which writes such options, and go on from there.
                    </p>
                    <BeginWith weighing={weighing} editing={editing} />
                  </Empty>
                )}
                <Board weighing={weighing} document={document} editing={editing} />
              </>
            ) : (
              <Empty>
                <h2>No choice yet</h2>
                <p>
                  Here options are weighed against each other: each has considerations, numbers that
                  a curve makes 0 to 1, and the option that scores highest is done.
                </p>
                <p>
                  Add a choice with + in the list on the left, then let a state do it in{' '}
                  <Link to={`/projects/${id}/minds/${mind}`}>Minds</Link>.
                </p>
              </Empty>
            )}
          </Work>
        }
        side={{
          name: 'what is chosen',
          size: '30%',
          least: '240px',
          content: <Chosen weighing={weighing} />,
        }}
        ledger={<LedgerPanel agent={agent} onSelectAgent={selectAgent} />}
      />
    </PlaceLayout>
  );
}
