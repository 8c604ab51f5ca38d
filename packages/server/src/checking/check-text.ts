import { parseJson, readProject, type Fault } from '@crooked-lantern/core';

/** What is wrong with the text of a document, as a worker hands it back: the document itself stays where it is. */
export type Verdict = { form: 'good' } | { form: 'not-json' | 'invalid'; faults: Fault[] };

/** Checks the text of a document. Takes seconds for the largest there may be, so it runs in a worker. */
export default function checkText(text: string): Verdict {
  const parsed = parseJson(text);
  if ('faults' in parsed) return { form: 'not-json', faults: parsed.faults };
  const result = readProject(parsed.value);
  return result.ok ? { form: 'good' } : { form: 'invalid', faults: result.faults };
}
