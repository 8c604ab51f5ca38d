import { existsSync, readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import * as core from '@crooked-lantern/core';
import {
  EXAMPLES,
  ACTIONS,
  checkProject,
  exampleProject,
  readProject,
  readProjectText,
  type NodeDocument,
} from '@crooked-lantern/core';
import { describe, expect, it } from 'vitest';
import { referencePages } from './reference.mjs';

const ROOT = path.resolve(import.meta.dirname, '..');
const read = (file: string) => readFileSync(path.join(ROOT, file), 'utf8');
const pages = referencePages(core);

/** Text without what a formatter adds: padding of tables, line breaks in JSON, blank lines. */
const plain = (text: string) => text.replace(/-{3,}/g, '---').replace(/\s+/g, '');

function errorsOf(node: NodeDocument): string[] {
  const document = exampleProject(node);
  const form = readProject(document);
  if (!form.ok) return form.faults.map(({ path: at, message }) => `${at}: ${message}`);
  return checkProject(document)
    .findings.filter(({ severity }) => severity === 'error')
    .map(({ path: at, message }) => `${at}: ${message}`);
}

describe('the reference', () => {
  it('has a page for each action and each node, as the code has them, and no other', () => {
    for (const [page, text] of pages) {
      expect(plain(read(`docs/reference/${page}`)), page).toBe(plain(text));
    }
    const written = ['actions', 'nodes'].flatMap((folder) =>
      readdirSync(path.join(ROOT, 'docs/reference', folder)).map((file) => `${folder}/${file}`),
    );
    expect(written.filter((file) => !pages.has(file))).toEqual([]);
  });

  it.each(Object.keys(ACTIONS))('shows how %s is written, without an error', (action) => {
    const example = EXAMPLES[action as keyof typeof ACTIONS];
    expect(errorsOf(example)).toEqual([]);
    const needed = Object.entries(ACTIONS[action as keyof typeof ACTIONS].parameters).map(
      ([name]) => name,
    );
    expect(Object.keys(example)).toEqual(expect.arrayContaining(needed));
  });

  it.each(Object.keys(core.NODES))('shows how %s is written, without an error', (node) => {
    expect(errorsOf(EXAMPLES[node as keyof typeof core.NODES])).toEqual([]);
  });

  it('names every field of the file', () => {
    const fields = new Set<string>();
    JSON.parse(read('docs/project.schema.json'), (key, value: unknown) => {
      if (key === 'properties') for (const field of Object.keys(value as object)) fields.add(field);
      return value;
    });
    const text = [read('docs/reference/model.md'), ...pages.values()].join('\n');
    const missing = [...fields].filter(
      (field) => !text.includes(`\`${field}\``) && !text.includes(`"${field}"`),
    );
    expect(missing).toEqual([]);
    expect(fields.size).toBeGreaterThan(80);
  });
});

describe('the docs', () => {
  it('show an open file that opens, without a finding', () => {
    const [, file] = /```json\n([\s\S]*?)```/.exec(read('docs/open-file.md'))!;
    const result = readProjectText(file);
    expect(result.ok ? [] : result.faults).toEqual([]);
    expect(result.ok && checkProject(result.document).findings).toEqual([]);
  });

  it('link only to what is there', () => {
    const files = [
      'README.md',
      ...readdirSync(path.join(ROOT, 'docs'), { recursive: true, encoding: 'utf8' })
        .filter((file) => file.endsWith('.md'))
        .map((file) => `docs/${file}`),
    ];
    const dead = files.flatMap((page) =>
      [...read(page).matchAll(/\]\(([^)#]+)(?:#[^)]*)?\)/g)]
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

describe('the glossary', () => {
  const avoided = core.GLOSSARY.flatMap(({ avoid = [] }) => avoid);
  const written = [
    'README.md',
    ...readdirSync(path.join(ROOT, 'docs'), { recursive: true, encoding: 'utf8' })
      .filter((file) => file.endsWith('.md') && file !== 'glossary.md')
      .map((file) => path.join('docs', file)),
    ...['core', 'web', 'cli', 'server'].flatMap((name) =>
      readdirSync(path.join(ROOT, 'packages', name, 'src'), { recursive: true, encoding: 'utf8' })
        .filter((file) => /\.tsx?$/.test(file) && !file.endsWith('glossary.ts'))
        .map((file) => path.join('packages', name, 'src', file)),
    ),
  ];

  it('says which words are avoided, and none of them is written anywhere', () => {
    expect(avoided.length).toBeGreaterThan(6);
    const found = written.flatMap((file) => {
      const text = read(file);
      return avoided
        .filter((word) => new RegExp(`\\b${word}\\b`, 'i').test(text))
        .map((word) => `${file}: ${word}`);
    });
    expect(found).toEqual([]);
  });
});
