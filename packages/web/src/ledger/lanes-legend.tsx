import { CircleHelp } from 'lucide-react';
import { Fragment, useMemo, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { useCommands } from '../shell/commands.tsx';
import { QuietButton } from '../ui/button.tsx';
import { Dialog } from '../ui/overlays/dialog.tsx';
import { Legend } from '../ui/legend.ts';
import { DOT_WORDS } from './mark-words.ts';

const Sign = styled.svg`
  display: block;
  width: 46px;
  height: 16px;
`;

const band = (fill: string, opacity = 1) => (
  <rect x="1" y="2" width="44" height="12" rx="4" fill={fill} opacity={opacity} />
);

const LANE_SIGNS: readonly [sign: ReactNode, words: string][] = [
  [band('var(--lamp)'), 'a state, active at the playhead; an ember where it was lately'],
  [band('var(--line)'), 'a state that was active before'],
  [
    <g key="ended">
      {band('var(--lamp)')}
      <rect x="20" y="8" width="25" height="6" fill="var(--night)" opacity="0.6" />
    </g>,
    'the lower half dark: what the state does has ended, and it stays',
  ],
  [band('var(--line)', 0.45), 'after the playhead: recorded, and not yet so'],
  [
    <rect
      key="sleep"
      x="1.5"
      y="2.5"
      width="43"
      height="11"
      rx="4"
      fill="none"
      stroke="var(--line2)"
      strokeDasharray="2 3"
    />,
    'asleep: since the start, or since every player is beyond its sleep distance',
  ],
  [
    <path key="line" d="M1 13H12L24 4H45" fill="none" stroke="var(--ember)" strokeWidth="1.6" />,
    'at the foot: how much it has noticed, 0 to 1',
  ],
  [
    <path key="health" d="M1 4H16V7H30V13H45" fill="none" stroke="var(--done)" strokeWidth="1.6" />,
    'at the foot, after its first damage: the health left',
  ],
  [
    <path key="score" d="M1 12H14V5H30V9H45" fill="none" stroke="var(--sight)" strokeWidth="1.6" />,
    'below, where there is room: what each pick scored, of the most that any did',
  ],
  [
    <g key="rows">
      <rect x="1" y="1" width="30" height="6" rx="2" fill="var(--line2)" />
      <rect x="12" y="9" width="20" height="6" rx="2" fill="var(--line2)" />
    </g>,
    'below, where there is room: what else is active, what was picked, the moves made, other minds, the states around, and the actions of trees and rules',
  ],
  [
    <g key="squad" fill="var(--line2)">
      <rect x="1" y="1" width="44" height="4" rx="2" />
      <rect x="1" y="6" width="30" height="4" rx="2" />
      <rect x="1" y="11" width="38" height="4" rx="2" />
    </g>,
    'a squad that is folded: the states of each of its members, one below the other',
  ],
  [
    <path key="edit" d="M23 0V16" stroke="var(--found)" strokeDasharray="3 3" />,
    'an edit comes into force',
  ],
];

const dot = (tint: string) => <circle cx="23" cy="8" r="4.5" fill={`var(--${tint})`} />;

/** What the bands, lines and dots of the lanes mean: a button, and a command. */
export function LanesLegend() {
  const [isOpen, setOpen] = useState(false);
  useCommands(
    useMemo(
      () => [{ id: 'lanes-legend', name: 'Signs of the ledger', run: () => setOpen(true) }],
      [],
    ),
    'ledger',
  );
  const rows: readonly [ReactNode, string][] = [
    ...LANE_SIGNS,
    ...DOT_WORDS.map(({ tint, words }): [ReactNode, string] => [dot(tint), words]),
  ];
  return (
    <>
      <QuietButton aria-label="Signs of the ledger" onPress={() => setOpen(true)}>
        <CircleHelp size={13} />
      </QuietButton>
      <Dialog title="Signs of the ledger" isOpen={isOpen} onClose={() => setOpen(false)}>
        <Legend>
          {rows.map(([sign, words]) => (
            <Fragment key={words}>
              <dt>
                <Sign viewBox="0 0 46 16" aria-hidden>
                  {sign}
                </Sign>
              </dt>
              <dd>{words}</dd>
            </Fragment>
          ))}
        </Legend>
        <p>
          A double click on a lane or a mark asks why, at that moment; so does Enter on the
          playhead, of the followed agent.
        </p>
      </Dialog>
    </>
  );
}
