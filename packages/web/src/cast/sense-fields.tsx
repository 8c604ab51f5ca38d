import {
  CONE_FIELDS,
  HEARING_FIELDS,
  LANTERN_FIELDS,
  MOST_CONES,
  SIGHT_FIELDS,
  type ConeDocument,
  type NumberSpec,
  NEW_HEARING,
  NEW_LANTERN,
  NEW_SIGHT,
} from '@crooked-lantern/core';
import { Plus } from 'lucide-react';
import { QuietButton, RemoveButton } from '../ui/button.tsx';
import { Rows } from '../ui/fields/fields.tsx';
import { NumberText } from '../ui/fields/number-text.tsx';
import { Table } from './gait-table.tsx';
import { KindNumber, kindNumbers, OwnMark, type KindNumberProps } from './kind-field.tsx';
import type { KindEditor } from './use-cast.ts';
import { TierValues } from '../project/tier-values.tsx';

const SIGHT = kindNumbers(['sight'], SIGHT_FIELDS);
const HEARING = kindNumbers(['hearing'], HEARING_FIELDS);
const LANTERN = kindNumbers(['lantern'], LANTERN_FIELDS);
const CONE = Object.entries(CONE_FIELDS) as [keyof ConeDocument, NumberSpec][];

function ConeTable({ editor, cones }: { editor: KindEditor; cones: readonly ConeDocument[] }) {
  const { of, put } = editor;
  const set = (list: ConeDocument[]) => put(['sight', 'cones'], list);
  return (
    <>
      <Table aria-label={`Cones of ${of}`}>
        <thead>
          <tr>
            <th scope="col">Cone</th>
            {CONE.map(([id, { label, unit }]) => (
              <th key={id} scope="col">
                {label.toLowerCase()} {unit}
              </th>
            ))}
            <th aria-label="Remove" />
          </tr>
        </thead>
        <tbody>
          {cones.map((cone, i) => (
            <tr key={i}>
              <td>{i + 1}</td>
              {CONE.map(([id, spec]) => (
                <td key={id}>
                  <NumberText
                    label={`${spec.label} of cone ${i + 1} of ${of}`}
                    spec={spec}
                    value={cone[id]}
                    onCommit={(value) =>
                      set(cones.map((other, n) => (n === i ? { ...other, [id]: value } : other)))
                    }
                  />
                  <TierValues path={`${editor.path}.sight.cones[${i}].${id}`} />
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
      {cones.length < MOST_CONES && (
        <QuietButton
          style={{ minHeight: 24 }}
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
              <KindNumber key={field.spec.label} editor={editor} {...field} />
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
