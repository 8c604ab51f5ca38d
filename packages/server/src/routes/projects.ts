import {
  LONGEST_WHAT,
  matching,
  needed,
  parseJson,
  part,
  projectSchema,
  serialiseProject,
  toJsonSchema,
} from '@crooked-lantern/core';
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import type { Checker } from '../checking/checker.ts';
import { stated, validator } from '../plugins/yup-schemas.ts';
import { Problem } from '../problem.ts';
import type { ProjectStore, StoredProject } from '../storage/projects.ts';

const id = needed(matching(/^[a-z0-9][a-z0-9-]{0,79}$/, 'must be a project’s id'));
export const PROJECT = stated(part({ id }));
const EDIT = stated(
  part({ id, number: needed(matching(/^[1-9]\d{0,8}$/, 'must be the number of an edit')) }),
);
const PAGE = stated(part({ offset: matching(/^\d{1,9}$/, 'must be a number from 0') }));

const EDITS = stated(
  part({
    before: matching(/^[1-9]\d{0,8}$/, 'must be the number of an edit'),
    find: matching(/^[^\p{Cc}]{1,200}$/u, 'takes 1 to 200 characters'),
  }),
);

/** Projects in one answer of the list. */
export const PROJECTS_A_PAGE = 50;
/** Edits in one answer of the list. */
export const EDITS_A_PAGE = 200;

type WithId = { Params: { id: string } };

const etag = (edit: number) => `"${edit}"`;

/** The edit an If-Match header names. Source: RFC 9110, 13.1.1. */
function basedOn(request: FastifyRequest): number {
  const header = request.headers['if-match'];
  if (header === undefined) {
    throw new Problem(
      'edit-missing',
      'Send the ETag of the edit this is based on as If-Match, so that no work is overwritten.',
    );
  }
  const number = /^"(\d{1,9})"$/.exec(header)?.[1];
  if (number === undefined)
    throw new Problem(
      'malformed-request',
      `If-Match must be the ETag of one edit, such as "3", not ${header}.`,
    );
  return Number(number);
}

/** What an edit changes, as its header says in words, encoded as in an address; null where there is none. */
function whatItChanges(request: FastifyRequest): string | null {
  const header = request.headers['x-edit-what'];
  if (header === undefined) return null;
  const faulty = new Problem(
    'malformed-request',
    `X-Edit-What takes 1 to ${LONGEST_WHAT} characters, encoded as in an address.`,
  );
  try {
    const what = decodeURIComponent(String(header)).trim();
    if (what === '' || [...what].length > LONGEST_WHAT || /\p{Cc}/u.test(what)) throw faulty;
    return what;
  } catch {
    throw faulty;
  }
}

function send(reply: FastifyReply, project: StoredProject): FastifyReply {
  return reply.header('etag', etag(project.edit)).send(project);
}

const DOCUMENT_BODY = { content: { 'application/json': { schema: toJsonSchema(projectSchema) } } };

/** Routes of projects, within a part of the server of their own: what they are sent is checked as text. */
export function projectRoutes(app: FastifyInstance, store: ProjectStore, checker: Checker): void {
  app.removeContentTypeParser('application/json');
  app.addContentTypeParser('application/json', { parseAs: 'string' }, (_, text, done) =>
    done(null, text),
  );
  const documentOf = ({ body }: FastifyRequest) =>
    checker.read(typeof body === 'string' ? body : '');
  // Documents are checked as a whole by the core, which gives every fault its path.
  const document = (summary: string, params?: Record<string, unknown>) => ({
    schema: { summary, ...(params ? { params } : {}), body: DOCUMENT_BODY },
    validatorCompiler: ({ httpPart, schema }: { httpPart?: string; schema: unknown }) =>
      httpPart === 'body' ? (data: unknown) => ({ value: data }) : validator(schema, httpPart),
  });

  app.get<{ Querystring: { offset?: string } }>(
    '/api/projects',
    {
      schema: {
        summary: `Projects, latest first, ${PROJECTS_A_PAGE} from the one at \`offset\`, and how many there are`,
        querystring: PAGE,
      },
    },
    async ({ query }) => store.list(Number(query.offset ?? 0), PROJECTS_A_PAGE),
  );

  app.post('/api/projects', document('Adds a project'), async (request, reply) => {
    const project = await store.create(await documentOf(request));
    return send(reply.code(201).header('location', `/api/projects/${project.id}`), project);
  });

  app.get<WithId>(
    '/api/projects/:id',
    { schema: { summary: 'The latest edit of a project', params: PROJECT } },
    async (request, reply) => send(reply, await store.read(request.params.id)),
  );

  app.put<WithId>(
    '/api/projects/:id',
    document(
      'Adds an edit on top of the one named by If-Match; X-Edit-What may say what it changes',
      PROJECT,
    ),
    async (request, reply) => {
      const edit = basedOn(request);
      const what = whatItChanges(request);
      const sent = await documentOf(request);
      return send(reply, await store.write(request.params.id, edit, sent, what));
    },
  );

  app.delete<WithId>(
    '/api/projects/:id',
    { schema: { summary: 'Puts a project away; it can be restored', params: PROJECT } },
    async (request, reply) => {
      await store.remove(request.params.id);
      return reply.code(204).send();
    },
  );

  app.post<WithId>(
    '/api/projects/:id/restore',
    { schema: { summary: 'Brings a deleted project back', params: PROJECT } },
    async (request, reply) => {
      await store.restore(request.params.id);
      return reply.code(204).send();
    },
  );

  app.get<WithId>(
    '/api/projects/:id/file',
    { schema: { summary: 'The project as an open file', params: PROJECT } },
    async (request, reply) => {
      const project = await store.read(request.params.id);
      return reply
        .header('content-disposition', `attachment; filename="${project.id}.lantern.json"`)
        .type('application/json; charset=utf-8')
        .send(serialiseProject(project.document));
    },
  );

  app.get<WithId & { Querystring: { before?: string; find?: string } }>(
    '/api/projects/:id/edits',
    {
      schema: {
        summary: `Edits, latest first, ${EDITS_A_PAGE} from the one before \`before\`, those that say \`find\`, and how many more there are`,
        params: PROJECT,
        querystring: EDITS,
      },
    },
    async ({ params, query: { before, find } }) =>
      store.edits(params.id, {
        before: before === undefined ? undefined : Number(before),
        find,
        limit: EDITS_A_PAGE,
      }),
  );

  app.get<{ Params: { id: string; number: string } }>(
    '/api/projects/:id/edits/:number',
    { schema: { summary: 'One edit', params: EDIT } },
    async (request, reply) =>
      send(reply, await store.readEdit(request.params.id, Number(request.params.number))),
  );

  app.put<{ Params: { id: string; number: string } }>(
    '/api/projects/:id/edits/:number/name',
    {
      schema: {
        summary: 'Gives an edit a name, or with null takes it away',
        params: EDIT,
        body: {
          content: {
            'application/json': {
              schema: {
                type: 'object',
                required: ['name'],
                properties: { name: { type: ['string', 'null'], maxLength: 80 } },
              },
            },
          },
        },
      },
      validatorCompiler: ({ httpPart, schema }: { httpPart?: string; schema: unknown }) =>
        httpPart === 'body' ? (data: unknown) => ({ value: data }) : validator(schema, httpPart),
    },
    async (request, reply) => {
      const { id: project, number } = request.params;
      await store.nameEdit(project, Number(number), nameIn(request.body));
      return reply.code(204).send();
    },
  );
}

/** The name that a request's text brings. */
function nameIn(body: unknown): string | null {
  const read = parseJson(typeof body === 'string' ? body : '');
  const name = 'faults' in read ? undefined : (read.value as { name?: unknown } | null)?.name;
  if (name === null) return null;
  if (typeof name !== 'string' || name.trim() === '' || name.length > 80)
    throw new Problem(
      'malformed-request',
      'Send {"name": "…"} with 1 to 80 characters, or {"name": null}.',
    );
  return name.trim();
}
