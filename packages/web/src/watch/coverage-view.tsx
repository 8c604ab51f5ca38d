import type { CoverageItem, CoveredPart } from '@crooked-lantern/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useCoverage } from '../engine/use-coverage.ts';
import { PartTitle, Sheet } from '../minds/sheet-layout.ts';
import { useAppDispatch, useAppSelector, useProject } from '../state/store.ts';
import { coverageOver } from '../state/view-slice.ts';
import { Choice } from '../ui/fields/fields.tsx';
import { counted } from '../ui/words/counted.ts';
import { CoverageToggle, useCoverageCommand } from '../shell/coverage-toggle.tsx';

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
`;

const OneMind = styled.section`
  margin-top: 12px;
  h3 {
    font-weight: 600;
  }
  table {
    width: 100%;
    margin: 4px 0;
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
  }
  th {
    width: 9em;
    padding: 2px 6px 2px 4px;
    color: var(--mute);
    font-weight: 400;
    text-align: left;
  }
  td {
    padding: 2px 4px;
    white-space: nowrap;
  }
  td:last-child {
    width: 55%;
  }
  ul {
    columns: 2 220px;
    margin-top: 4px;
  }
  li {
    padding: 1px 4px;
    break-inside: avoid;
    overflow-wrap: anywhere;
  }
  small {
    color: var(--mute);
    font-size: 0.92em;
  }
`;

/** How much of it was done: light, where nothing runs. */
const Bar = styled.div`
  height: 6px;
  border-radius: 3px;
  background: var(--line);
  div {
    height: 100%;
    border-radius: 3px;
    background: var(--done);
  }
`;

const PARTS: readonly { part: CoveredPart; title: string; done: string; never: string }[] = [
  { part: 'state', title: 'states', done: 'entered', never: 'never entered' },
  { part: 'transition', title: 'transitions', done: 'taken', never: 'never taken' },
  { part: 'row', title: 'rows', done: 'reached', never: 'never reached' },
  { part: 'option', title: 'options', done: 'picked', never: 'never picked' },
];

function Mind({ name, items }: { name: string; items: readonly CoverageItem[] }) {
  const id = useProject((project) => project.id);
  const title = useProject(({ document }) => document.minds[name]?.title ?? name);
  const missing = items.filter(({ times }) => times === 0);
  const shown = PARTS.filter(({ part }) => items.some((item) => item.part === part));
  return (
    <OneMind aria-label={`Coverage of ${title}`}>
      <h3>{title}</h3>
      <table>
        <tbody>
          {shown.map(({ part, title: what, done }) => {
            const all = items.filter((item) => item.part === part);
            const count = all.filter(({ times }) => times > 0).length;
            return (
              <tr key={part}>
                <th scope="row">
                  {what} {done}
                </th>
                <td>
                  {count} of {all.length}
                </td>
                <td>
                  <Bar>
                    <div style={{ width: `${(100 * count) / all.length}%` }} />
                  </Bar>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {missing.length === 0 ? (
        <p>All of it was done.</p>
      ) : (
        <ul aria-label={`Never done of ${title}`}>
          {missing.map((item) => (
            <li key={`${item.part} ${item.key}`}>
              <Link
                to={
                  item.part === 'option'
                    ? `/projects/${id}/weigh/${name}/${item.key.split(':')[0]}`
                    : `/projects/${id}/minds/${name}?state=${item.state}`
                }
              >
                {item.title}
              </Link>{' '}
              <small>{PARTS.find(({ part }) => part === item.part)!.never}</small>
            </li>
          ))}
        </ul>
      )}
    </OneMind>
  );
}

/** What of the minds was ever done, and what never was. */
export function CoverageView() {
  useCoverageCommand();
  const dispatch = useAppDispatch();
  const over = useAppSelector(({ view }) => view.coverage.over);
  const coverage = useCoverage(over);
  const minds = [...new Set(coverage?.items.map(({ mind }) => mind))];
  return (
    <Sheet aria-label="Coverage" aria-busy={coverage === null}>
      <Head>
        <PartTitle>Coverage</PartTitle>
        <Choice
          label="Which runs count"
          value={over ? 'all' : 'this'}
          options={[
            { id: 'this', title: 'of this run' },
            { id: 'all', title: `of all ${counted(coverage?.runs ?? 1, 'run')} that are kept` },
          ]}
          onChoose={(chosen) => dispatch(coverageOver(chosen === 'all'))}
        />
        <CoverageToggle />
      </Head>
      {minds.map((mind) => (
        <Mind key={mind} name={mind} items={coverage!.items.filter((item) => item.mind === mind)} />
      ))}
    </Sheet>
  );
}
