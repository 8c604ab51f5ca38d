import { Command as CommandIcon, Moon, Sun, SunMoon } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { QuietButton } from '../ui/button.tsx';
import { themeChosen, type ThemeChoice } from '../state/theme-slice.ts';
import { useCommands } from './commands.tsx';
import { FailureNotice } from './failure-notice.tsx';
import { useAppDispatch, useAppSelector } from '../state/store.ts';
import { commandListShown } from '../state/view-slice.ts';

const Bar = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
  min-height: 44px;
  padding: 0 14px;
  border-bottom: 1px solid var(--line);
  background: var(--panel);
  @media (max-width: 1180px) {
    gap: 10px;
  }
  @media (max-width: 900px) {
    flex-wrap: wrap;
    padding: 6px 14px;
    gap: 6px 14px;
  }
`;

const Mark = styled(NavLink)`
  display: inline-flex;
  align-items: center;
  gap: 8px;
  color: var(--lampText);
  font: 600 1.3rem var(--title);
  text-decoration: none;
  white-space: nowrap;
  img {
    width: 22px;
    height: 22px;
  }
  /* The lantern alone stands for it where a project needs the room. */
  @media (max-width: 1180px) {
    &[data-in-project] > span {
      display: none;
    }
  }
`;

const Right = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  margin-left: auto;
  @media (max-width: 900px) {
    flex-wrap: wrap;
  }
`;

const THEMES: Record<ThemeChoice, { next: ThemeChoice; name: string; icon: ReactNode }> = {
  system: { next: 'night', name: 'as the system', icon: <SunMoon size={16} /> },
  night: { next: 'day', name: 'night', icon: <Moon size={16} /> },
  day: { next: 'system', name: 'day', icon: <Sun size={16} /> },
};

/** The bar over every page, and below it what failed. `middle` follows the name, `right` comes before the standing buttons. */
export function Header({ middle, right }: { middle?: ReactNode; right?: ReactNode }) {
  const dispatch = useAppDispatch();
  const theme = useAppSelector((state) => state.theme);
  const { next, name, icon } = THEMES[theme];
  useCommands(
    useMemo(
      () =>
        (Object.keys(THEMES) as ThemeChoice[]).map((choice) => ({
          id: `theme-${choice}`,
          name: `Theme: ${THEMES[choice].name}`,
          run: () => dispatch(themeChosen(choice)),
        })),
      [dispatch],
    ),
    'everywhere',
  );
  return (
    <>
      <Bar>
        <Mark
          to="/"
          aria-label="Crooked Lantern: all projects"
          data-in-project={middle === undefined ? undefined : ''}
        >
          <img src="/lantern.svg" alt="" />
          <span>Crooked Lantern</span>
        </Mark>
        {middle}
        <Right>
          {right}
          <QuietButton
            aria-label="Show all commands (Ctrl+K)"
            onPress={() => dispatch(commandListShown(true))}
          >
            <CommandIcon size={16} />
          </QuietButton>
          <QuietButton
            aria-label={`Theme: ${name}. Change`}
            onPress={() => dispatch(themeChosen(next))}
          >
            {icon}
          </QuietButton>
        </Right>
      </Bar>
      <FailureNotice />
    </>
  );
}
