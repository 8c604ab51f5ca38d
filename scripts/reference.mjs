import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt } from './build.mjs';
import { ROOT, runScript } from './project.mjs';

/** @typedef {Pick<typeof import('../packages/core/dist/index.js'), 'ACTIONS' | 'BUILTINS' | 'signature'>} Tables */

const UNITS = { deg: '°', same: 'the unit of its arguments' };

/** @param {string | undefined} unit */
function unitText(unit) {
  return unit === undefined ? '' : (UNITS[/** @type {keyof typeof UNITS} */ (unit)] ?? unit);
}

/** @param {string} text */
function cell(text) {
  return text.replaceAll('|', '\\|');
}

/**
 * The reference of expressions and actions, made from the tables the code uses.
 * @param {Tables} tables
 */
export function languageReference({ ACTIONS, BUILTINS, signature }) {
  const values = BUILTINS.filter((builtin) => !builtin.parameters);
  const functions = BUILTINS.filter((builtin) => builtin.parameters);
  const rows = (/** @type {typeof BUILTINS} */ list) =>
    list.map(
      (builtin) =>
        `| \`${cell(signature(builtin))}\` | ${builtin.result} | ${unitText(builtin.unit)} | ${cell(builtin.about)} | ${builtin.missing ?? ''} |`,
    );
  const head = [
    '| name | gives | unit | about | where it is missing |',
    '| --- | --- | --- | --- | --- |',
  ];
  const actions = Object.entries(ACTIONS).flatMap(([name, action]) => {
    const parameters = Object.entries(action.parameters).map(([parameter, spec]) => {
      const limits =
        'minimum' in spec && 'maximum' in spec ? `, from ${spec.minimum} to ${spec.maximum}` : '';
      const fallback = 'default' in spec ? `, ${spec.default} if left out` : '';
      const unit = 'unit' in spec ? ` in ${unitText(spec.unit)}` : '';
      return `- \`${parameter}\` (${spec.kind}${unit}${spec.required ? '' : ', may be left out'}${limits}${fallback}): ${spec.about}`;
    });
    return [
      `### ${name}`,
      '',
      action.about,
      '',
      `${action.lasts ? 'Takes time: it belongs under “while here”.' : 'Takes no time: it belongs on entry, on exit or on a transition.'} Uses ${action.channel === null ? 'no part of the body' : `the ${action.channel}`}. Succeeds ${action.succeeds}; fails: ${action.fails}.`,
      '',
      ...(parameters.length > 0 ? [...parameters, ''] : []),
    ];
  });
  return [
    '# Expressions and actions',
    '',
    'Made from the tables the code itself uses, by `npm run reference`.',
    '',
    '## Expressions',
    '',
    'ECMAScript expression syntax: numbers, `true`, `false`, texts in quotes, names, `+ - * / %`, `< <= > >= == !=`, `&& || !`, `? :`, brackets, and calls of the functions below. Memory keys of the mind are names, and so are the routes of the ground. There is no assignment.',
    '',
    '### Values',
    '',
    ...head,
    ...rows(values),
    '',
    '### Functions',
    '',
    ...head,
    ...rows(functions),
    '',
    '## Actions',
    '',
    ...actions,
  ]
    .join('\n')
    .replace(/\n+$/, '\n');
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  await runScript(async () => {
    ensureBuilt(['programs']);
    const tables = await import('../packages/core/dist/index.js');
    writeFileSync(path.join(ROOT, 'docs/reference/language.md'), languageReference(tables));
  });
}
