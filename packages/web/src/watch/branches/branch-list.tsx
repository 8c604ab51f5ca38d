import { GitCompareArrows, PencilLine, Play } from 'lucide-react';
import styled from 'styled-components';
import type { BranchPicture } from '../../engine/protocol.ts';
import { useEngine, useEngineValue } from '../../engine/use-engine.tsx';
import { useAskText } from '../../ui/fields/ask-text.tsx';
import { QuietButton, RemoveButton } from '../../ui/button.tsx';
import { checkTitle } from '../../ui/fields/fields.tsx';
import { clockText } from '../../ui/words/time.ts';
import { branchTitle, originWords } from './branch-words.ts';

const Item = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 8px;
  padding: 5px 4px;
  border-bottom: 1px solid var(--line);
  &[data-compared='true'] {
    background: var(--raised);
  }
  b {
    font-weight: 600;
  }
  i {
    margin-left: 6px;
    padding: 0 6px;
    border-radius: 999px;
    background: var(--lamp);
    color: var(--onLamp);
    font-style: normal;
    font-size: 0.92em;
  }
  small {
    display: block;
    color: var(--mute);
  }
  > div:last-child {
    display: flex;
    align-items: start;
  }
`;

/** The ways runs have taken, the one that goes on first. */
export function BranchList({
  compared,
  onCompare,
}: {
  /** The one that is compared; null for none. */
  compared: number | null;
  onCompare: (id: number) => void;
}) {
  const engine = useEngine();
  const branches = useEngineValue((client) => client.branches);
  const perSecond = useEngineValue(({ program }) => program?.ticksPerSecond ?? 60);
  const { ask, dialog } = useAskText();
  const name = (branch: BranchPicture) =>
    ask({
      title: `Name ${branchTitle(branch)}`,
      label: 'Name; named branches are kept until deleted',
      verb: 'Name it',
      value: branch.name ?? '',
      check: (text) => checkTitle(text, true),
      onGive: (text) => {
        engine.nameBranch(branch.id, text === '' ? null : text);
        return null;
      },
    });
  return (
    <>
      <ul aria-label="Branches">
        {branches.map((branch, i) => {
          const title = branchTitle(branch);
          const isCurrent = i === 0;
          return (
            <Item key={branch.id} data-compared={branch.id === compared}>
              <div>
                <b>{title}</b>
                {isCurrent && <i>goes on</i>}
                <small>
                  {originWords(branch, branches, perSecond)}; seed {branch.seed}
                  {branch.head !== null && `, until ${clockText(branch.head, perSecond, 1)}`}
                </small>
              </div>
              <div>
                {!isCurrent && (
                  <>
                    <QuietButton
                      aria-label={`Compare with ${title}`}
                      onPress={() => onCompare(branch.id)}
                    >
                      <GitCompareArrows size={14} /> compare
                    </QuietButton>
                    <QuietButton
                      aria-label={`Go on with ${title}`}
                      onPress={() => engine.goToBranch(branch.id)}
                    >
                      <Play size={13} /> go there
                    </QuietButton>
                  </>
                )}
                <QuietButton aria-label={`Name ${title}`} onPress={() => name(branch)}>
                  <PencilLine size={13} />
                </QuietButton>
                {!isCurrent && (
                  <RemoveButton
                    label={`Delete ${title}`}
                    onPress={() => engine.letGoOfBranch(branch.id)}
                  />
                )}
              </div>
            </Item>
          );
        })}
      </ul>
      {dialog}
    </>
  );
}
