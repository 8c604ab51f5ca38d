import { useProject } from '../state/store.ts';

/**
 * What the findings say of the part of the document at `path`, shown where it is edited. Faults inside
 * expressions are left to the fields that show the expressions.
 */
export function RowFindings({ path }: { path: string }) {
  const findings = useProject((project) => project.findings);
  return findings
    .filter(
      (finding) =>
        finding.path === path ||
        (finding.path.startsWith(`${path}.`) && finding.code !== 'expression'),
    )
    .map(({ message }) => (
      <p key={message} role="alert" style={{ color: 'var(--harm)', flexBasis: '100%' }}>
        {message}
      </p>
    ));
}
