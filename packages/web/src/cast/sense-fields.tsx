import { DEFAULT_CLEAR_POINTS, type ConeDocument, type SightDocument } from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { QuietButton, RemoveButton } from '../ui/button.tsx';
import { Rows } from '../ui/fields.tsx';
import { checkNumber, InlineText } from '../ui/inline-text.tsx';
import { Table } from './gait-table.tsx';
import { KindNumber, OwnMark, type KindNumberProps } from './kind-field.tsx';
import type { KindEditor } from './use-cast.ts';

/** What a sense begins with when it is given to an archetype. */
const NEW_SIGHT: SightDocument = {
  cones: [{ range: 10, halfAngle: 30, gain: 2 }],
  fade: 0.3,
  grace: 0.5,
  curious: 0.3,
  certain: 1,
  forgetAfter: 10,
};
const NEW_HEARING = { threshold: 0.1 };
const NEW_LANTERN = { reach: 4, strength: 0.5 };

const SIGHT: KindNumberProps[] = [
  { path: ['sight', 'curious'], label: 'Curious from', minimum: 0, maximum: 1 },
  { path: ['sight', 'certain'], label: 'Certain from', minimum: 0, maximum: 1 },
  { path: ['sight', 'grace'], label: 'Holds for', unit: 's', minimum: 0, maximum: 600 },
  { path: ['sight', 'fade'], label: 'Then fades by', unit: '/s', minimum: 0, maximum: 100 },
  {
    path: ['sight', 'forgetAfter'],
    label: 'Place forgotten after',
    unit: 's',
    minimum: 0,
    maximum: 3600,
  },
  {
    path: ['sight', 'points'],
    label: 'Body points needed',
    minimum: 1,
    maximum: 3,
    whole: true,
    fallback: DEFAULT_CLEAR_POINTS,
  },
];
const HEARING: KindNumberProps[] = [
  { path: ['hearing', 'threshold'], label: 'Heard from loudness', minimum: 0, maximum: 1 },
];
const LANTERN: KindNumberProps[] = [
  { path: ['lantern', 'reach'], label: 'Reach', unit: 'm', minimum: 0.5, maximum: 50 },
  { path: ['lantern', 'strength'], label: 'Strength', minimum: 0, maximum: 1 },
];

const CONE_FIELDS = [
  { id: 'range', label: 'Range', head: 'range m', minimum: 0.1, maximum: 500 },
  { id: 'halfAngle', label: 'Half-angle', head: 'half-angle °', minimum: 1, maximum: 180 },
  { id: 'gain', label: 'Gain', head: 'gain /s', minimum: 0, maximum: 100 },
] as const;

function ConeTable({ editor, cones }: { editor: KindEditor; cones: readonly ConeDocument[] }) {
  const { of, put } = editor;
  const set = (list: ConeDocument[]) => put(['sight', 'cones'], list);
  return (
    <>
      <Table aria-label={`Cones of ${of}`}>
        <thead>
          <tr>
            <th scope="col">Cone</th>
            {CONE_FIELDS.map(({ id, head }) => (
              <th key={id} scope="col">
                {head}
              </th>
            ))}
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {cones.map((cone, i) => (
            <tr key={i}>
              <td>{i + 1}</td>
              {CONE_FIELDS.map(({ id, label, minimum, maximum }) => (
                <td key={id}>
                  <InlineText
                    mono
                    label={`${label} of cone ${i + 1} of ${of}`}
                    value={String(cone[id])}
                    check={checkNumber(minimum, maximum)}
                    onCommit={(text) =>
                      set(
                        cones.map((other, n) =>
                          n === i ? { ...other, [id]: Number(text) } : other,
                        ),
                      )
                    }
                  />
                </td>
              ))}
              <td>
                {cones.length > 1 && (
                  <RemoveButton
                    label={`Remove cone ${i + 1} of ${of}`}
                    onPress={() => set(cones.filter((_, n) => n !== i))}
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {cones.length < 8 && (
        <QuietButton
          style={{ minHeight: 20 }}
          aria-label={`Add a cone to ${of}`}
          onPress={() => set([...cones, { range: 3, halfAngle: 90, gain: 1 }])}
        >
          <Plus size={12} /> cone
        </QuietButton>
      )}
      <OwnMark editor={editor} path={['sight', 'cones']} label="Cones" usual="its cones" />
    </>
  );
}

/** A sense or a lantern: its numbers, or the offer to give it. */
function Part({
  editor,
  part,
  title,
  numbers,
  fresh,
  without,
  children,
}: {
  editor: KindEditor;
  part: 'sight' | 'hearing' | 'lantern';
  title: string;
  numbers: readonly KindNumberProps[];
  fresh: unknown;
  without: string;
  children?: React.ReactNode;
}) {
  const { kind, base, of, put } = editor;
  const has = kind[part] !== undefined;
  const removable = has && (!base || base[part] === undefined);
  return (
    <section aria-label={title}>
      <h3>
        {title}
        {removable && (
          <RemoveButton label={`Take ${part} from ${of}`} onPress={() => put([part], undefined)} />
        )}
      </h3>
      {has ? (
        <>
          {children}
          <Rows>
            {numbers.map((field) => (
              <KindNumber key={field.label} editor={editor} {...field} />
            ))}
          </Rows>
        </>
      ) : (
        <p>
          {without}
          <QuietButton onPress={() => put([part], fresh)} aria-label={`Give ${part} to ${of}`}>
            <Plus size={12} /> {title.toLowerCase()}
          </QuietButton>
        </p>
      )}
    </section>
  );
}

export function SenseFields({ editor }: { editor: KindEditor }) {
  const { sight } = editor.kind;
  return (
    <>
      <Part
        editor={editor}
        part="sight"
        title="Sight"
        numbers={SIGHT}
        fresh={NEW_SIGHT}
        without="It sees nothing."
      >
        {sight && <ConeTable editor={editor} cones={sight.cones} />}
      </Part>
      <Part
        editor={editor}
        part="hearing"
        title="Hearing"
        numbers={HEARING}
        fresh={NEW_HEARING}
        without="It hears nothing."
      />
      <Part
        editor={editor}
        part="lantern"
        title="Lantern"
        numbers={LANTERN}
        fresh={NEW_LANTERN}
        without="It carries no light."
      />
    </>
  );
}
