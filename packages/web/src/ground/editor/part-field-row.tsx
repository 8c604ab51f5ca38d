import {
  numberOf,
  pathOnto,
  type GroundDocument,
  type ProjectDocument,
} from '@crooked-lantern/core';
import { TierValues } from '../../project/tier-values.tsx';
import { ChoiceField, FlagField, NumberField } from '../../ui/fields/fields.tsx';
import { withField, type PartField } from './part-fields.ts';
import type { AnyPart } from './parts.ts';

/** One field of a part of the ground, edited where it stands. */
export function PartFieldRow({
  document,
  ground,
  field,
  part,
  of,
  path,
  onChange,
}: {
  document: ProjectDocument;
  ground: GroundDocument;
  field: PartField;
  part: AnyPart;
  of: string;
  /** Of the part in the document. */
  path: string;
  onChange: (part: AnyPart) => void;
}) {
  const set = (value: unknown) => onChange(withField(part, field, value));
  switch (field.kind) {
    case 'number': {
      const { spec, id } = field;
      const value = numberOf(part, id, spec);
      const said = Number.isNaN(value) ? undefined : value;
      return (
        <NumberField spec={spec} of={of} value={said} onCommit={set}>
          <TierValues path={pathOnto(path, id)} />
        </NumberField>
      );
    }
    case 'flag':
      return (
        <FlagField
          label={field.label}
          of={of}
          value={part[field.id] === true}
          onChange={(on) => set(on || undefined)}
        />
      );
    case 'choice': {
      const options = field.options(document, ground);
      return (
        <ChoiceField
          label={field.label}
          of={of}
          value={(part[field.id] as string | undefined) ?? field.usual ?? ''}
          options={field.none ? [{ id: '', title: field.none }, ...options] : options}
          onChoose={(id) => set(id === '' ? undefined : id)}
        />
      );
    }
  }
}
