import {
  ACTIONS,
  BUILTINS,
  FINDINGS,
  GLOSSARY,
  OBSERVATIONS,
  type ObservationKind,
  NODE_KINDS,
  nodeSpec,
  SENSE_KINDS,
  SENSES,
  missingText,
  signature,
  type ActionName,
  type ActionSpec,
  type FindingCode,
  type NodeFieldSpec,
  type Term,
} from '@crooked-lantern/core';

/** One page of the reference, from the tables that the checker, the runtime and `docs/reference` read. */
export interface ReferenceEntry {
  /** `do moveTo`, `sequence`, `builtin sees`, `sense sight`, `finding tie`, `term choice`. */
  id: string;
  kind: 'action' | 'node' | 'expression' | 'sense' | 'finding' | 'term';
  title: string;
  about: string;
  /** What else it is called; it is found by these too. */
  aliases?: readonly string[];
  facts: [string, string][];
  /** As it is written in the file. */
  example?: unknown;
}

function rangeText({
  minimum,
  maximum,
  unit,
}: {
  minimum?: number;
  maximum?: number;
  unit?: string;
}) {
  const range = minimum === undefined ? '' : `${minimum} to ${maximum}`;
  return [range, unit === 'deg' ? '°' : unit].filter(Boolean).join(' ');
}

function actionEntry(name: ActionName): ReferenceEntry {
  const spec: ActionSpec = ACTIONS[name];
  return {
    id: `do ${name}`,
    kind: 'action',
    title: spec.title,
    about: spec.about,
    facts: [
      ['uses', spec.channel === null ? 'no part of the body' : `the ${spec.channel}`],
      ['takes', spec.lasts ? 'time: it goes on over several ticks' : 'no time'],
      ['succeeds', spec.succeeds],
      ['fails', spec.fails],
      ...Object.entries(spec.parameters).map(([parameter, each]): [string, string] => [
        parameter,
        [
          each.about,
          rangeText(each),
          each.required ? 'needed' : each.default !== undefined ? `left out: ${each.default}` : '',
        ]
          .filter(Boolean)
          .join('; '),
      ]),
    ],
    example: spec.example,
  };
}

function nodeEntry(kind: (typeof NODE_KINDS)[number]): ReferenceEntry {
  const spec = nodeSpec(kind);
  return {
    id: kind,
    kind: 'node',
    title: spec.title,
    about: spec.about,
    facts: [
      ['succeeds', spec.succeeds],
      ['fails', spec.fails],
      ...Object.entries<NodeFieldSpec>(spec.fields).map(([field, each]): [string, string] => [
        field,
        [each.about, 'minimum' in each ? rangeText(each) : ''].filter(Boolean).join('; '),
      ]),
    ],
    example: spec.example,
  };
}

/** All ways of calling one built-in on one page. */
function builtinEntries(): ReferenceEntry[] {
  const names = [...new Set(BUILTINS.map(({ name }) => name))];
  return names.map((name) => {
    const forms = BUILTINS.filter((builtin) => builtin.name === name);
    const [first] = forms;
    return {
      id: `builtin ${name}`,
      kind: 'expression',
      title: name,
      about: `${first.about[0].toUpperCase()}${first.about.slice(1)}.`,
      facts: [
        ...forms.map((form): [string, string] => [
          signature(form),
          `${form.about}; gives ${form.result}${form.unit && form.unit !== 'same' ? ` in ${form.unit}` : ''}`,
        ]),
        ...(first.missing !== undefined
          ? [['where something is missing', missingText(first)] as [string, string]]
          : []),
        ...(first.sense ? [['sense', first.sense] as [string, string]] : []),
      ],
    };
  });
}

function termEntry({ term, meaning, aliases, builtins = [] }: Term): ReferenceEntry {
  return {
    id: `term ${term}`,
    kind: 'term',
    title: `${term[0].toUpperCase()}${term.slice(1)}`,
    about: meaning,
    aliases,
    facts: [
      ['also called', aliases.join(', ')],
      ...(builtins.length > 0 ? [['in expressions', builtins.join(', ')] as [string, string]] : []),
    ],
  };
}

const OTHERS: ReferenceEntry[] = [
  ...SENSES.map((sense): ReferenceEntry => {
    const { title, raises } = SENSE_KINDS[sense];
    return {
      id: `sense ${sense}`,
      kind: 'sense',
      title,
      about: `What ${title.toLowerCase()} brings can win the attention, and raises events that transitions take.`,
      facts: [
        [
          'raises',
          [
            ...raises.map((what) => `${sense}.${what}`),
            ...(sense === 'told' ? ['what minds say'] : []),
          ].join(', '),
        ],
        [
          'asked by',
          BUILTINS.filter((builtin) => builtin.sense === sense)
            .map(({ name }) => name)
            .filter((name, i, all) => all.indexOf(name) === i)
            .join(', ') || 'attention',
        ],
      ],
    };
  }),
  ...(Object.keys(FINDINGS) as FindingCode[]).map((code): ReferenceEntry => ({
    id: `finding ${code}`,
    kind: 'finding',
    title: FINDINGS[code].title,
    about: FINDINGS[code].about,
    facts: [['what to do', FINDINGS[code].remedy]],
  })),
  ...(Object.keys(OBSERVATIONS) as ObservationKind[]).map((kind): ReferenceEntry => ({
    id: `observation ${kind}`,
    kind: 'finding',
    title: OBSERVATIONS[kind].title,
    about: OBSERVATIONS[kind].about,
    facts: [['what to do', OBSERVATIONS[kind].remedy]],
  })),
];

export const REFERENCE: readonly ReferenceEntry[] = [
  ...(Object.keys(ACTIONS) as ActionName[]).map(actionEntry),
  ...NODE_KINDS.map(nodeEntry),
  ...builtinEntries(),
  ...OTHERS,
  ...GLOSSARY.map(termEntry),
];

export function referenceOf(id: string): ReferenceEntry | undefined {
  return REFERENCE.find((entry) => entry.id === id);
}

function names({ title, aliases = [] }: ReferenceEntry): string[] {
  return [title, ...aliases].map((name) => name.toLowerCase());
}

/** Entries that the words lead to: those called so first, then those also called so, then those that mention them. */
export function findInReference(words: string): ReferenceEntry[] {
  const text = words.trim().toLowerCase();
  if (text === '') return [...REFERENCE];
  const rank = (entry: ReferenceEntry): number => {
    const [title, ...aliases] = names(entry);
    if (title === text || aliases.includes(text)) return 0;
    if (title.includes(text)) return 1;
    if (aliases.some((alias) => alias.includes(text))) return 2;
    return entry.about.toLowerCase().includes(text) ? 3 : 4;
  };
  return REFERENCE.filter((entry) => rank(entry) < 4).sort((a, b) => rank(a) - rank(b));
}
