import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ensureBuilt } from './build.mjs';
import { ROOT, runScript } from './project.mjs';
/** @typedef {typeof import('../packages/core/dist/index.js')} Tables */

const UNITS = { deg: '°', same: 'the unit of its arguments' };
const MADE =
  'Made from the tables the code itself uses, by `npm run reference`. [All pages](README.md)';

/** @param {string | undefined} unit */
function unitText(unit) {
  return unit === undefined ? '' : (UNITS[/** @type {keyof typeof UNITS} */ (unit)] ?? unit);
}

/** @param {string} text */
function cell(text) {
  return text.replaceAll('|', '\\|');
}

/** @param {unknown} example */
function json(example) {
  return ['```json', JSON.stringify(example, null, 2), '```', ''];
}

/**
 * @param {{ kind: string; required?: boolean; unit?: string; minimum?: number; maximum?: number; default?: number | string; about: string }} spec
 * @param {string} name
 */
function fieldLine(name, spec) {
  const limits =
    spec.minimum !== undefined && spec.maximum !== undefined
      ? `, from ${spec.minimum} to ${spec.maximum}`
      : '';
  const fallback = spec.default === undefined ? '' : `, ${spec.default} if left out`;
  const unit = spec.unit === undefined ? '' : ` in ${unitText(spec.unit)}`;
  const optional = spec.required === false ? ', may be left out' : '';
  return `- \`${name}\` (${KINDS[spec.kind] ?? spec.kind}${unit}${optional}${limits}${fallback}): ${spec.about}`;
}

/** @type {Record<string, string>} */
const KINDS = {
  number: 'a number, or an expression for one',
  place: 'an expression for a point or an agent',
  value: 'an expression',
  route: 'an expression for a route',
  key: 'a name',
  list: 'a name',
  gait: 'a name',
  name: 'a name',
  event: 'an event name',
  node: 'a node',
  nodes: 'a list of nodes',
  whole: 'a whole number',
  flag: 'true, or left out',
  result: '`success` or `failure`, may be left out',
  arguments: 'an object, may be left out',
  expression: 'an expression',
};

/** @param {Tables} tables @returns {string[]} */
function expressionPage({ BUILTINS, missingText, signature }) {
  const rows = (/** @type {typeof BUILTINS} */ list) =>
    list.map(
      (builtin) =>
        `| \`${cell(signature(builtin))}\` | ${builtin.result} | ${unitText(builtin.unit)} | ${cell(builtin.about)} | ${missingText(builtin)} |`,
    );
  const head = [
    '| name | gives | unit | about | where it is missing |',
    '| --- | --- | --- | --- | --- |',
  ];
  return [
    '# Expressions',
    '',
    MADE,
    '',
    'ECMAScript expression syntax: numbers, `true`, `false`, texts in quotes, names, `+ - * / %`, `< <= > >= == !=`, `&& || !`, `? :`, brackets, and calls of the functions below. Memory keys of the mind are names, and so are the parameters of a tree and the routes of the ground. There is no assignment.',
    '',
    'A missing number, agent, point or text is _nothing_. Arithmetic with nothing, and any arithmetic without a finite result, gives nothing; every comparison with nothing is false, `!=` too. Units are checked: a length can’t be compared with a time, while a bare number fits any unit.',
    '',
    '## Values',
    '',
    ...head,
    ...rows(BUILTINS.filter((builtin) => !builtin.parameters)),
    '',
    '## Functions',
    '',
    ...head,
    ...rows(BUILTINS.filter((builtin) => builtin.parameters)),
  ];
}

/**
 * @param {string} name
 * @param {Tables['ACTIONS'][keyof Tables['ACTIONS']]} action
 */
function actionPage(name, action) {
  const parameters = Object.entries(action.parameters).map(([parameter, spec]) =>
    fieldLine(parameter, spec),
  );
  return [
    `# Action: ${name}`,
    '',
    MADE.replace('README.md', '../README.md'),
    '',
    action.about,
    '',
    action.lasts
      ? 'Takes time: it belongs under `activity`, or into a tree or rules. With `"uninterrupted": true` the mind makes no decision while it runs.'
      : 'Takes no time: it belongs under `entry`, `exit` or a transition’s `do`, or into a tree or rules.',
    '',
    `- Uses ${action.channel === null ? 'no part of the body' : `the ${action.channel}`}.`,
    `- Succeeds ${action.succeeds}.`,
    `- Fails: ${action.fails}.`,
    ...parameters,
    '',
    ...json(action.example),
  ];
}

/**
 * @param {string} name
 * @param {import('../packages/core/dist/index.js').NodeSpec} node
 * @param {Tables} tables
 */
function nodePage(name, node, { EXAMPLE_CHOICES, EXAMPLE_RULES, EXAMPLE_TREES }) {
  const shown = {
    tree: { trees: EXAMPLE_TREES },
    rules: { rules: EXAMPLE_RULES },
    choice: { choices: EXAMPLE_CHOICES },
  };
  const called = shown[/** @type {keyof typeof shown} */ (name)];
  return [
    `# Node: ${name}`,
    '',
    MADE.replace('README.md', '../README.md'),
    '',
    node.about,
    '',
    `- Succeeds ${node.succeeds}.`,
    `- Fails ${node.fails}.`,
    ...Object.entries(node.fields).map(([field, spec]) => fieldLine(field, spec)),
    '',
    'Like any node it may carry `title`, `note`, and a guard: `when` with `holds` and `preempts`, see [the model](../model.md#trees). With `off: true` it is switched off.',
    '',
    ...json(node.example),
    ...(called ? ['where the mind has', '', ...json(called)] : []),
  ];
}

/** @typedef {import('../packages/core/dist/index.js').Schema} Schema */

/**
 * The parts of a project file with the path each has in it, in the order of the file. Actions and the nodes of
 * trees have pages of their own.
 * @param {Tables} tables
 */
function partsOfTheFile({ projectSchema, actionSchema, nodeSchema }) {
  /** @type {Map<Schema, { path: string, tag?: string, about?: string, fields: [string, Schema][] }>} */
  const found = new Map();
  /** @type {(schema: Schema, path: string) => void} */
  const walk = (schema, path) => {
    if (isOne(schema, actionSchema) || isOne(schema, nodeSchema) || found.has(schema)) return;
    if (schema.kind === 'part') {
      const fields = Object.entries(schema.fields);
      found.set(schema, { path, tag: schema.tag, about: schema.about, fields });
      for (const [key, field] of fields) walk(field, path === '' ? key : `${path}.${key}`);
    }
    if (schema.kind === 'record') walk(schema.of, `${path}.*`);
    if (schema.kind === 'list') walk(schema.of, `${path}[]`);
    if (schema.kind === 'named') walk(schema.schema(), path);
    if (schema.kind === 'either') for (const variant of schema.variants) walk(variant, path);
  };
  walk(projectSchema, '');
  return [...found.values()];
}

/**
 * Whether a schema is the other one, needed and described or not.
 * @type {(schema: Schema, other: Schema) => boolean}
 */
function isOne(schema, other) {
  if (schema.kind === 'named') return other.kind === 'named' && schema.name === other.name;
  return schema.kind === 'either' && other.kind === 'either' && schema.variants === other.variants;
}

/**
 * What a value may be.
 * @type {(schema: Schema, tables: Tables) => string}
 */
function takes(schema, tables) {
  const inner = (/** @type {Schema} */ of) => takes(of, tables);
  switch (schema.kind) {
    case 'number':
    case 'plain number': {
      const { minimum, maximum, whole } = schema;
      if (minimum === undefined || maximum === undefined) return 'a number';
      const unit = schema.kind === 'number' && schema.unit ? ` ${schema.unit}` : '';
      return `${whole ? 'whole, ' : ''}${minimum} to ${maximum}${unit}`;
    }
    case 'choice':
    case 'word':
      return schema.options.map((option) => `\`${option}\``).join(', ');
    case 'flag':
      return '`true`';
    case 'boolean':
      return '`true`, `false`';
    case 'text':
      if (schema.pattern === tables.NAME_PATTERN) return 'a name';
      if (schema.pattern) return 'an event';
      if (schema.maximum === 2000) return 'an expression';
      return schema.maximum === undefined ? 'text' : `text of up to ${schema.maximum} characters`;
    case 'pair':
      return 'two numbers [x, y]';
    case 'list':
      return `a list of up to ${schema.maximum}: ${inner(schema.of)}`;
    case 'record':
      return `by name: ${inner(schema.of)}`;
    case 'part':
      return schema.tag ? `an object with \`${schema.tag}\`` : 'an object';
    case 'named':
      return `a ${schema.name}`;
    case 'either':
      return isOne(schema, tables.actionSchema)
        ? 'an action'
        : [...new Set(schema.variants.map(inner))].join(', or ');
  }
}

/**
 * What holds where a field is left out.
 * @param {Schema} schema
 */
function leftOut(schema) {
  if (schema.required) return 'is needed';
  if (schema.kind === 'flag') return 'no';
  if (schema.kind !== 'number' && schema.kind !== 'choice') return '';
  const { usual } = schema;
  if (schema.kind === 'number' && schema.none) return schema.none;
  return typeof usual === 'function' ? 'depends on the others' : String(usual ?? '');
}

/**
 * What tells a part: a field, and its value where it has but one.
 * @type {(tag: string, fields: [string, Schema][]) => string}
 */
function tagText(tag, fields) {
  const schema = new Map(fields).get(tag);
  const value = schema?.kind === 'word' && schema.options.length === 1 ? schema.options[0] : null;
  return value === null ? `\`${tag}\`` : `\`${tag}: ${value}\``;
}

/** @param {Tables} tables */
function fieldsPage(tables) {
  return [
    '# The fields of the file',
    '',
    MADE,
    '',
    'Each part of a project, where it stands in the file, and its fields: what they are, what they take, and what holds where they are left out. `*` is any name, `[]` any entry of a list. The schema and the forms read the same statement.',
    ...partsOfTheFile(tables).flatMap(({ path: where, tag, about, fields }) => [
      '',
      `## ${where === '' ? 'The project' : `\`${where}\``}${tag ? ` with ${tagText(tag, fields)}` : ''}`,
      '',
      ...(about ? [about, ''] : []),
      '| field | what it is | takes | left out |',
      '| --- | --- | --- | --- |',
      ...fields.map(([field, schema]) => {
        const label = 'label' in schema ? `${schema.label}: ` : '';
        return `| \`${field}\` | ${label}${schema.about ?? ''} | ${takes(schema, tables)} | ${leftOut(schema)} |`;
      }),
    ]),
  ];
}

/** @param {Tables} tables */
function findingsPage({ FINDINGS, OBSERVATIONS }) {
  return [
    '# Findings',
    '',
    MADE,
    '',
    'What the checker has to say of a project, by kind. An error keeps an edit from running; the edit before goes on.',
    ...Object.entries(FINDINGS).flatMap(([code, { title, about, remedy }]) => [
      '',
      `## ${title}`,
      '',
      `\`${code}\`: ${about} ${remedy}`,
    ]),
    '',
    '# Observations',
    '',
    'What is noticed while a run goes on. From when on something is an observation, stands under `observationLimits` in the project: see [The fields of the file](fields.md).',
    ...Object.entries(OBSERVATIONS).flatMap(([kind, { title, about, remedy }]) => [
      '',
      `## ${title}`,
      '',
      `\`${kind}\`: ${about} ${remedy}`,
    ]),
  ];
}

/** The words of the product, with the trade's words that lead to them. @param {Tables} tables */
function glossaryPage({ GLOSSARY }) {
  return [
    '# Glossary',
    '',
    'One term a thing, one thing a term. Interface, documentation, messages and names keep to it. The words in the middle are what practitioners also call it: reference, command list and completion find it by them. A test looks for the words on the right.',
    '',
    'Made from `packages/core/src/model/glossary.ts` by `npm run reference`.',
    '',
    '| term | what it means | also called | not |',
    '| --- | --- | --- | --- |',
    ...GLOSSARY.map(
      ({ term, meaning, aliases, avoid = [] }) =>
        `| ${term} | ${cell(meaning)} | ${cell(aliases.join(', '))} | ${avoid.join(', ')} |`,
    ),
  ];
}

/** @param {Tables} tables */
function indexPage({ ACTIONS, NODES }) {
  return [
    '# Reference',
    '',
    'All it takes to write a project file by hand. A file to begin with stands in [The open file](../open-file.md); what it means in [What a mind means](../semantics.md).',
    '',
    '- [The model](model.md): every part of the file and its fields',
    '- [The fields of the file](fields.md): each part of a project with its fields, their bounds and units, and what holds where a field is left out',
    '- [Expressions](expressions.md): guards, parameters, weights',
    '- [Findings](findings.md): what the checker reports of a project, and what to do',
    '',
    '## Actions',
    '',
    ...Object.entries(ACTIONS).map(
      ([name, { about }]) => `- [${name}](actions/${name}.md): ${about}`,
    ),
    '',
    '## Nodes of trees',
    '',
    'Every action is a node too.',
    '',
    ...Object.entries(NODES).map(([name, { about }]) => `- [${name}](nodes/${name}.md): ${about}`),
  ];
}

/**
 * The generated pages of the reference by their path in `docs/reference`.
 * @param {Tables} tables
 * @returns {Map<string, string>}
 */
export function referencePages(tables) {
  const text = (/** @type {string[]} */ lines) => `${lines.join('\n').replace(/\n+$/, '')}\n`;
  return new Map([
    ['README.md', text(indexPage(tables))],
    ['../glossary.md', text(glossaryPage(tables))],
    ['expressions.md', text(expressionPage(tables))],
    ['fields.md', text(fieldsPage(tables))],
    ['findings.md', text(findingsPage(tables))],
    ...Object.entries(tables.ACTIONS).map(
      ([name, action]) =>
        /** @type {[string, string]} */ ([`actions/${name}.md`, text(actionPage(name, action))]),
    ),
    ...Object.entries(tables.NODES).map(
      ([name, node]) =>
        /** @type {[string, string]} */ ([`nodes/${name}.md`, text(nodePage(name, node, tables))]),
    ),
  ]);
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  await runScript(async () => {
    ensureBuilt(['programs']);
    const tables = await import('../packages/core/dist/index.js');
    const folder = path.join(ROOT, 'docs/reference');
    for (const part of ['actions', 'nodes']) {
      rmSync(path.join(folder, part), { recursive: true, force: true });
      mkdirSync(path.join(folder, part), { recursive: true });
    }
    for (const [page, text] of referencePages(tables)) writeFileSync(path.join(folder, page), text);
  });
}
