import type { Fault } from '@crooked-lantern/core';

/** Problem Details for HTTP APIs, RFC 9457. `faults` and `currentEdit` are our extensions. */
export interface ProblemDetails {
  type: string;
  title: string;
  status: number;
  detail?: string;
  faults?: Fault[];
  currentEdit?: number;
}

const KINDS = {
  'malformed-request': [400, 'The request can’t be read'],
  'foreign-request': [403, 'Requests from there are not taken'],
  'not-found': [404, 'There is nothing here'],
  'stale-edit': [412, 'Another save came first'],
  'too-large': [413, 'That is too large'],
  'wrong-media-type': [415, 'That is not JSON'],
  'invalid-document': [422, 'The document has faults'],
  'edit-missing': [428, 'The request must say which edit it is based on'],
  'too-many-requests': [429, 'Too many requests'],
  'internal-error': [500, 'Something went wrong in the server'],
  'database-unreachable': [503, 'The database does not answer'],
  'disk-full': [507, 'The disk is full'],
} as const;

export type ProblemKind = keyof typeof KINDS;

/** An answer that is a problem; thrown by routes, written by the errors plugin. */
export class Problem extends Error {
  readonly kind: ProblemKind;
  readonly extensions: { faults?: Fault[]; currentEdit?: number };

  constructor(
    kind: ProblemKind,
    detail: string,
    extensions: { faults?: Fault[]; currentEdit?: number } = {},
  ) {
    super(detail);
    this.kind = kind;
    this.extensions = extensions;
  }

  get status(): number {
    return KINDS[this.kind][0];
  }

  body(): ProblemDetails {
    const [status, title] = KINDS[this.kind];
    return {
      type: `urn:crooked-lantern:problem:${this.kind}`,
      title,
      status,
      detail: this.message,
      ...this.extensions,
    };
  }
}

export const PROBLEM_MEDIA_TYPE = 'application/problem+json';
