/**
 * What is said of one number, choice or flag of a document, in one place: the schema, the JSON Schema,
 * the reference and the forms all read it, so that no bound, unit or default is written twice.
 */

export interface NumberSpec {
  kind: 'number';
  /** What people call it. */
  label: string;
  unit: FieldUnit;
  minimum: number;
  maximum: number;
  whole?: true;
  required?: true;
  /** What holds where it is left out; a function where that depends on the rest of the part. */
  usual?: number | ((part: Record<string, unknown>) => number);
  /** What it means that it is left out, where no number says it. */
  none?: string;
  about: string;
}

export type FieldUnit =
  '' | 'm' | 'm/s' | 'm/s²' | 's' | '°' | '°/s' | 'points' | 'ticks' | '/s' | 'kg';

export interface ChoiceSpec {
  kind: 'choice';
  label: string;
  options: readonly string[];
  required?: true;
  /** What holds where it is left out. */
  usual?: string;
  about: string;
}

/** True, or left out. */
export interface FlagSpec {
  kind: 'flag';
  label: string;
  about: string;
}

export type FieldSpec = NumberSpec | ChoiceSpec | FlagSpec;
export type FieldSpecs = Readonly<Record<string, FieldSpec>>;

/** The two fields of everything that gives light. */
export function lightFields(maximumReach: number, brightest: string) {
  return {
    reach: {
      kind: 'number',
      label: 'Reach',
      unit: 'm',
      minimum: 0.5,
      maximum: maximumReach,
      required: true,
      about: 'how far its light goes',
    },
    strength: {
      kind: 'number',
      label: 'Strength',
      unit: '',
      minimum: 0,
      maximum: 1,
      required: true,
      about: `the light it gives ${brightest}`,
    },
  } as const satisfies FieldSpecs;
}

/** What a number is where its part leaves it out; NaN where nothing is said. */
export function usualNumber(spec: NumberSpec, part: object = {}): number {
  const { usual } = spec;
  return (typeof usual === 'function' ? usual(part as Record<string, unknown>) : usual) ?? NaN;
}

/** The number of a field: the explicit value, or its default. */
export function numberOf(part: object, field: string, spec: NumberSpec): number {
  const said = (part as Record<string, unknown>)[field];
  return typeof said === 'number' ? said : usualNumber(spec, part);
}
