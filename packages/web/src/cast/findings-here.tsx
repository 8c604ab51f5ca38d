import { useProject } from '../state/store.ts';
import { Trouble } from './layout.ts';

/** What the checks have to say about a part of the document. */
export function FindingsHere({ path }: { path: string }) {
  const findings = useProject((project) => project.findings);
  const here = findings.filter(
    (finding) =>
      finding.path.startsWith(path) && ['', '.', '['].includes(finding.path.charAt(path.length)),
  );
  return here.map(({ severity, message, path: at }) => (
    <Trouble
      key={`${at} ${message}`}
      role={severity === 'error' ? 'alert' : undefined}
      style={severity === 'error' ? undefined : { color: 'var(--found)' }}
    >
      {message}
    </Trouble>
  ));
}
