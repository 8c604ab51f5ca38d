import { limitsOf, OBSERVATION_LIMITS, type ObservationLimits } from '@crooked-lantern/core';
import { Trouble } from '../../minds/sheet-layout.ts';
import { useProject } from '../../state/store.ts';
import { useEdit } from '../../state/use-edit.ts';
import styled from 'styled-components';
import { NumberField, Rows } from '../../ui/fields/fields.tsx';

/** Two limits a line: how often, and within which time. */
const Grid = styled(Rows)`
  grid-template-columns: auto 1fr auto 1fr;
  margin: 4px 0 10px;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line);
`;

/** From when on what happens is an observation; kept in the project. */
export function Limits() {
  const limits = useProject((project) => project.document.observationLimits);
  const { put, trouble } = useEdit();
  return (
    <>
      <Grid aria-label="Limits of observations">
        {(Object.keys(OBSERVATION_LIMITS) as (keyof ObservationLimits)[]).map((name) => (
          <NumberField
            key={name}
            spec={OBSERVATION_LIMITS[name]}
            of="the run"
            value={limitsOf(limits)[name]}
            onCommit={(value) =>
              limits
                ? put(['observationLimits', name], value)
                : put(['observationLimits'], { [name]: value })
            }
          />
        ))}
      </Grid>
      {trouble && <Trouble role="alert">{trouble}</Trouble>}
    </>
  );
}
