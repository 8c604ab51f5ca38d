import {
  freshCall,
  namesOf,
  type ActivityDocument,
  type ChoiceCallDocument,
  type RulesCallDocument,
  type TreeCallDocument,
} from '@crooked-lantern/core';
import { X } from 'lucide-react';
import { Suspense } from 'react';
import styled from 'styled-components';
import { useProject } from '../../state/store.ts';
import { Jump, QuietButton } from '../../ui/button.tsx';
import type { MenuEntry } from '../../ui/overlays/menu.tsx';
import { Explained } from '../../ui/overlays/tooltip.tsx';
import { CallArguments } from './call-arguments.tsx';
import { RowFindings } from '../../findings/row-findings.tsx';
import { Outline } from '../outline/late-outline.ts';

type CallDocument = TreeCallDocument | RulesCallDocument | ChoiceCallDocument;

/** Opens a tree, rules or a choice by themselves. */
export type OpenPart = (part: CalledPart, name: string) => void;
export type CalledPart = 'trees' | 'rules' | 'choices';

/** What an activity calls: in which part of the mind, and by which name. */
function calledBy(activity: CallDocument): { part: CalledPart; word: string; name: string } {
  if ('tree' in activity) return { part: 'trees', word: 'tree', name: activity.tree };
  if ('rules' in activity) return { part: 'rules', word: 'rules', name: activity.rules };
  return { part: 'choices', word: 'choice', name: activity.choice };
}

export function isCall(activity: ActivityDocument): activity is CallDocument {
  return 'tree' in activity || 'rules' in activity || 'choice' in activity;
}

const Line = styled.div`
  display: flex;
  align-items: baseline;
  gap: 5px;
  color: var(--mute);
  small {
    font-size: 1em;
  }
`;

/** Menu entries for the trees, rules and choices a state can do. */
export function useCallEntries(mind: string, onChoose: (call: CallDocument) => void): MenuEntry[] {
  const document = useProject((project) => project.document);
  const { trees = {}, rules = {}, choices = {} } = document.minds[mind] ?? {};
  return [
    ...namesOf(trees).map((tree) => ({
      id: `tree ${tree}`,
      text: `Tree ${trees[tree].title ?? tree}`,
      label: `Tree ${trees[tree].title ?? tree}`,
      onAction: () => onChoose(freshCall(document, mind, tree)),
    })),
    ...namesOf(rules).map((name) => ({
      id: `rules ${name}`,
      text: `Rules ${rules[name].title ?? name}`,
      label: `Rules ${rules[name].title ?? name}`,
      onAction: () => onChoose({ rules: name }),
    })),
    ...namesOf(choices).map((name) => ({
      id: `choice ${name}`,
      text: `Choice ${choices[name].title ?? name}`,
      label: `Choice ${choices[name].title ?? name}`,
      onAction: () => onChoose({ choice: name }),
    })),
  ];
}

/** What a state does, where that is a tree, rules or a choice: its name, what its parameters are bound to, and its rows. */
export function ActivityCall({
  mind,
  activity,
  path,
  where,
  onOpen,
  onChange,
  onRemove,
}: {
  mind: string;
  activity: CallDocument;
  path: string;
  where: string;
  onOpen: OpenPart;
  onChange: (activity: CallDocument) => void;
  /** Left out where there must be one. */
  onRemove?: () => void;
}) {
  const document = useProject((project) => project.document.minds[mind]);
  const { part, word: kind, name } = calledBy(activity);
  const called = document[part]?.[name];
  return (
    <div>
      <Line>
        <span>{kind}</span>{' '}
        <Explained text={called?.note}>
          <Jump type="button" onClick={() => onOpen(part, name)}>
            {called?.title ?? name}
          </Jump>
        </Explained>
        {'tree' in activity && (
          <CallArguments
            mind={mind}
            call={activity}
            path={path}
            where={where}
            onChange={(given) => onChange({ tree: name, ...(given && { with: given }) })}
          />
        )}
        {onRemove && (
          <QuietButton
            aria-label={`Remove ${kind} ${name} ${where}`}
            onPress={onRemove}
            style={{ minHeight: 24 }}
          >
            <X size={12} />
          </QuietButton>
        )}
      </Line>
      <RowFindings path={path} />
    </div>
  );
}

/** The rows of what a state calls. */
export function CallRows({
  mind,
  activity,
  onOpen,
}: {
  mind: string;
  activity: CallDocument;
  onOpen: OpenPart;
}) {
  const document = useProject((project) => project.document.minds[mind]);
  const { part, name } = calledBy(activity);
  const place = document[part]?.[name]?.title ?? name;
  return (
    <Suspense fallback={<div aria-busy />}>
      <Outline
        mind={mind}
        activity={activity}
        label={`Rows of ${place}`}
        place={place}
        onOpen={onOpen}
      />
    </Suspense>
  );
}
