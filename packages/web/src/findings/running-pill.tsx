import { useState, type ReactNode } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { useEngineValue } from '../engine/use-engine.tsx';
import { editWords } from '../engine/edit-words.ts';
import { useProject } from '../state/store.ts';
import { QuietButton } from '../ui/button.tsx';
import { counted } from '../ui/words/counted.ts';
import { Surface } from '../ui/overlays/menu.tsx';
import { Pill } from '../ui/pill.tsx';
import { FindingList } from './finding-list.tsx';

const Opener = styled(QuietButton)`
  padding: 0;
  border-radius: 999px;
  font-weight: 400;
`;

const List = styled(Dialog)`
  width: min(420px, calc(100vw - 32px));
  max-height: min(480px, 70vh);
  overflow: auto;
  padding: 4px 2px;
`;

/** Which edit runs, and what is wrong with the one that does not. */
function useWords(): { trouble: boolean; words: ReactNode } {
  const edit = useProject((project) => project.edit);
  const running = useProject((project) => project.runningEdit);
  const shown = useEngineValue(({ frame }) =>
    frame && frame.tick < frame.head ? frame.edit : null,
  );
  const isChecked = useProject((project) => project.checkedEdit === project.edit);
  const errors = useProject(
    (project) => project.findings.filter((finding) => finding.severity === 'error').length,
  );
  if (isChecked && errors > 0) {
    const broken = `edit ${edit} has ${counted(errors, 'error')}`;
    const words =
      running > 0 ? (
        <>
          running <strong>edit {running}</strong> · {broken}
        </>
      ) : (
        <>nothing runs · {broken}</>
      );
    return { trouble: true, words };
  }
  if (shown !== null && shown !== running && running > 0)
    return {
      trouble: false,
      words: (
        <>
          ran under <strong>{editWords(shown)}</strong> · edit {running} runs on from here
        </>
      ),
    };
  return {
    trouble: false,
    words: (
      <>
        running <strong>edit {running || edit}</strong> · live
      </>
    ),
  };
}

/** Which edit runs, in the header of every place; it opens what the checks have to say of the latest. */
export function RunningPill() {
  const [isOpen, setOpen] = useState(false);
  const findings = useProject((project) => project.findings.length);
  const { trouble, words } = useWords();
  return (
    <DialogTrigger isOpen={isOpen} onOpenChange={setOpen}>
      <span role="status">
        <Opener>
          <Pill $tone={trouble ? 'trouble' : 'plain'}>
            <span>{words}</span>
            {findings > 0 && <span> · {counted(findings, 'finding')}</span>}
          </Pill>
        </Opener>
      </span>
      <Surface placement="bottom end">
        <List aria-label="Findings of the latest edit">
          <FindingList onLeave={() => setOpen(false)} />
        </List>
      </Surface>
    </DialogTrigger>
  );
}
