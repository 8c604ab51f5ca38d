import { NODE_KINDS, type Finding } from '@crooked-lantern/core';
import { useProject } from '../state/store.ts';

/** Whether a path, from a row on, leads to something of the row itself, rather than of a row inside it. */
function isOwn(rest: string): boolean {
  const [, field, ...further] = rest.split('.');
  return !rest.includes('[') && further.length < 2 && !NODE_KINDS.some((kind) => kind === field);
}

/** Whether two checks found the same, which is nearly always so. */
function isSame(before: Finding[], after: Finding[]): boolean {
  return (
    before.length === after.length && before.every(({ message }, i) => message === after[i].message)
  );
}

/**
 * What the findings say of the part of the document at `path`, shown where it is edited. Faults inside
 * expressions are left to the fields that show the expressions. `own`: what stands inside it has a place of
 * its own.
 */
export function RowFindings({ path, own = false }: { path: string; own?: boolean }) {
  const findings = useProject(
    (project) =>
      project.findings.filter(
        (finding) =>
          finding.path === path ||
          (finding.path.startsWith(`${path}.`) &&
            finding.code !== 'expression' &&
            (!own || isOwn(finding.path.slice(path.length)))),
      ),
    isSame,
  );
  return findings.map(({ message, severity }) => (
    <p
      key={message}
      // Readers hear at once what keeps an edit from running; a warning waits until it is read.
      role={severity === 'error' ? 'alert' : 'note'}
      style={{ color: severity === 'error' ? 'var(--harm)' : 'var(--found)', flexBasis: '100%' }}
    >
      {message}
    </p>
  ));
}
