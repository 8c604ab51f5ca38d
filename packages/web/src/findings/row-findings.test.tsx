// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { afterEach, expect, it } from 'vitest';
import { checked, opened } from '../state/project-slice.ts';
import { createStore } from '../state/store.ts';
import { SMALL_PROJECT } from '../testing/small-project.fixture.ts';
import { RowFindings } from './row-findings.tsx';

afterEach(cleanup);

it('calls out what keeps an edit from running, and only notes what is half written', () => {
  const store = createStore();
  const path = 'minds.keeper.rules.main.rows[0]';
  store.dispatch(
    opened({ id: 'small', edit: 1, document: SMALL_PROJECT, updatedAt: '2026-01-01T00:00:00Z' }),
  );
  store.dispatch(
    checked({
      edit: 1,
      runs: false,
      findings: [
        { severity: 'warning', code: 'noChildren', path, message: 'It does nothing yet.' },
        { severity: 'error', code: 'parameter', path: `${path}.do`, message: 'No such action.' },
      ],
    }),
  );
  render(
    <Provider store={store}>
      <RowFindings path={path} />
    </Provider>,
  );
  expect(screen.getByRole('alert').textContent).toBe('No such action.');
  expect(screen.getByRole('note').textContent).toBe('It does nothing yet.');
});
