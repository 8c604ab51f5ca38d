import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { ACTIONS, BUILTINS, checkProject, readProjectText, signature } from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { languageReference } from './reference.mjs';

const ROOT = path.resolve(import.meta.dirname, '..');
const read = (file: string) => readFileSync(path.join(ROOT, file), 'utf8');

/** Rows of Markdown tables without the padding a formatter adds. */
const plain = (text: string) => text.replace(/ +\|/g, ' |').replace(/-{3,}/g, '---');

describe('the docs', () => {
  it('list every value, function and action as the code has them', () => {
    expect(plain(read('docs/reference/language.md'))).toBe(
      plain(languageReference({ ACTIONS, BUILTINS, signature })),
    );
  });

  it('show an open file that opens, without a finding', () => {
    const [, file] = /```json\n([\s\S]*?)```/.exec(read('docs/open-file.md'))!;
    const result = readProjectText(file);
    expect(result.ok ? [] : result.faults).toEqual([]);
    expect(result.ok && checkProject(result.document).findings).toEqual([]);
  });

  it('link only to what is there', () => {
    const pages = [
      'README.md',
      ...readdirSync(path.join(ROOT, 'docs'))
        .filter((file) => file.endsWith('.md'))
        .map((file) => `docs/${file}`),
    ];
    const dead = pages.flatMap((page) =>
      [...read(page).matchAll(/\]\(([^)#]+)\)/g)]
        .map(([, target]) => target)
        .filter(
          (target) =>
            !/^https?:/.test(target) && !existsSync(path.join(ROOT, path.dirname(page), target)),
        )
        .map((target) => `${page}: ${target}`),
    );
    expect(dead).toEqual([]);
  });
});
