import { hasErrors } from '@crooked-lantern/core';
import { findingText, readProjectFile } from './read-file.ts';

export function check(file: string, json: boolean): number {
  const { findings } = readProjectFile(file);
  for (const finding of findings) {
    process.stdout.write(
      `${json ? JSON.stringify({ type: 'finding', ...finding }) : findingText(finding)}\n`,
    );
  }
  if (!json) {
    const errors = findings.filter((finding) => finding.severity === 'error').length;
    process.stdout.write(`${errors} errors, ${findings.length - errors} warnings\n`);
  }
  return hasErrors(findings) ? 1 : 0;
}
