import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { connect, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readProjectText, serialiseProject, type ProjectDocument } from '@crooked-lantern/core';
import type { FastifyInstance } from 'fastify';
import pino from 'pino';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { WebSocket } from 'ws';
import { EDITS_A_PAGE, PROJECTS_A_PAGE } from './routes/projects.ts';
import { createServer } from './server.ts';
import { openDatabase, type Database } from './storage/database.ts';
import { loadDemos } from './storage/load-demos.ts';
import { createProjectStore } from './storage/projects.ts';
import { startProxy, type CuttableProxy } from './testing/cuttable-proxy.fixture.ts';
import { freshDatabase } from './testing/database.fixture.ts';

const DEMOS = path.resolve(import.meta.dirname, '../../../demo');
const demo = JSON.parse(
  readFileSync(path.join(DEMOS, 'night-watch.lantern.json'), 'utf8'),
) as ProjectDocument;
const HOST = '127.0.0.1:4173';

let drop: () => Promise<void>;
let proxy: CuttableProxy;
let database: Database;
let address: string;
const logger = pino({ level: 'silent' });
let app: FastifyInstance;

beforeAll(async () => {
  const fresh = await freshDatabase();
  drop = fresh.drop;
  const url = new URL(fresh.url);
  proxy = await startProxy(Number(url.port));
  url.port = String(proxy.port);
  address = url.href;
  database = await openDatabase(address);
  app = await createServer({ database, pages: '/nowhere', logger });
});

afterAll(async () => {
  await app.close();
  await database.close();
  await proxy.close();
  await drop();
});

beforeEach(async () => {
  await database.models.Project.destroy({ where: {}, force: true });
});

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

async function call(
  method: Method,
  url: string,
  body?: unknown,
  headers: Record<string, string> = {},
) {
  const response = await app.inject({
    method,
    url,
    headers: {
      host: HOST,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...headers,
    },
    ...(body === undefined
      ? {}
      : { payload: typeof body === 'string' ? body : JSON.stringify(body) }),
  });
  return {
    status: response.statusCode,
    headers: response.headers,
    type: String(response.headers['content-type']),
    text: response.body,
    body:
      response.body && /json/.test(String(response.headers['content-type']))
        ? response.json<Record<string, never>>()
        : null,
  };
}

const titled = (title: string): ProjectDocument => ({ ...demo, title });

/** Adds a project with this title; gives its id. */
async function add(title: string): Promise<string> {
  const { body } = await call('POST', '/api/projects', titled(title));
  return String(body!.id);
}

describe('a project', () => {
  it('is created, read, changed and listed', async () => {
    const created = await call('POST', '/api/projects', demo);
    expect([created.status, created.headers.etag, created.headers.location]).toEqual([
      201,
      '"1"',
      '/api/projects/night-watch',
    ]);
    const changed = await call('PUT', '/api/projects/night-watch', titled('Late Watch'), {
      'if-match': '"1"',
    });
    expect([changed.status, changed.headers.etag]).toEqual([200, '"2"']);
    const read = await call('GET', '/api/projects/night-watch');
    expect([read.headers.etag, read.body]).toEqual([
      '"2"',
      expect.objectContaining({ id: 'night-watch', edit: 2, document: titled('Late Watch') }),
    ]);
    const { body } = await call('GET', '/api/projects');
    expect(body).toEqual({
      projects: [expect.objectContaining({ title: 'Late Watch', edit: 2, minds: 3, agents: 8 })],
      total: 1,
    });
  });

  it('that is sent as version 1 of the format is kept as version 2', async () => {
    const old = readFileSync(
      path.resolve(import.meta.dirname, '../../core/src/testing/version-1/windfall.lantern.json'),
      'utf8',
    );
    await call('POST', '/api/projects', JSON.parse(old));
    const { body } = await call('GET', '/api/projects/windfall');
    const read = readProjectText(old);
    expect(body).toMatchObject({ document: { version: 2 } });
    expect(body!.document).toEqual(read.ok && read.document);
  });

  it('comes first in the list when it was changed last', async () => {
    const [one, two] = [await add('One'), await add('Two')];
    const order = async () => {
      const { body } = await call('GET', '/api/projects');
      return (body!.projects as { id: string }[]).map(({ id }) => id);
    };
    expect(await order()).toEqual([two, one]);
    await call('PUT', `/api/projects/${one}`, titled('One'), { 'if-match': '"1"' });
    expect(await order()).toEqual([one, two]);
  });

  it('keeps the name of an edit, and gives it with the list', async () => {
    const id = await add('Named night');
    const name = async (value: unknown, number = 1) =>
      (await call('PUT', `/api/projects/${id}/edits/${number}/name`, value)).status;
    const names = async () => {
      const { body } = await call('GET', `/api/projects/${id}/edits`);
      return (body!.edits as { name?: string }[]).map((edit) => edit.name);
    };
    expect(await names()).toEqual([undefined]);
    expect(await name({ name: ' First night ' })).toBe(204);
    expect(await names()).toEqual(['First night']);
    expect(await name({ name: null })).toBe(204);
    expect(await names()).toEqual([undefined]);
    for (const wrong of [{}, { name: '' }, { name: 5 }, [], { name: 'x'.repeat(81) }])
      expect(await name(wrong)).toBe(400);
    expect(await name({ name: 'No' }, 9)).toBe(404);
  });

  it('keeps what an edit says that it changes, and refuses what is no line of words', async () => {
    const id = await add('Told night');
    const write = async (what?: string) =>
      (
        await call('PUT', `/api/projects/${id}`, titled('Told night'), {
          'if-match': '"1"',
          ...(what !== undefined && { 'x-edit-what': what }),
        })
      ).status;
    for (const wrong of ['', '%20', '%', '%E2%28', '%00', 'x'.repeat(201)])
      expect(await write(wrong), wrong).toBe(400);
    expect(await write(encodeURIComponent('guard of Chase: 2 → 3 · “später”'))).toBe(200);
    const { body } = await call('GET', `/api/projects/${id}/edits`);
    expect((body!.edits as { what?: string }[]).map(({ what }) => what)).toEqual([
      'guard of Chase: 2 → 3 · “später”',
      undefined,
    ]);
  });

  it('is listed in pages, each project once', async () => {
    const ids: string[] = [];
    for (let i = 0; i < PROJECTS_A_PAGE + 3; i++) ids.unshift(await add(`Night ${i}`));
    const page = async (offset: number) => {
      const { body } = await call('GET', `/api/projects?offset=${offset}`);
      const { projects, total } = body as unknown as { projects: { id: string }[]; total: number };
      return { ids: projects.map(({ id }) => id), total };
    };
    const [first, second] = [await page(0), await page(PROJECTS_A_PAGE)];
    expect([first.total, first.ids.length]).toEqual([ids.length, PROJECTS_A_PAGE]);
    expect([...first.ids, ...second.ids]).toEqual(ids);
    expect((await page(1000)).ids).toEqual([]);
    expect((await call('GET', '/api/projects?offset=-1')).status).toBe(400);
  });

  it('is listed with all others by three queries, however many there are', async () => {
    for (let i = 0; i < 12; i++) await add(`Night ${i}`);
    let queries = 0;
    database.sequelize.addHook('beforeQuery', 'counting', () => {
      queries++;
    });
    const { body } = await call('GET', '/api/projects');
    database.sequelize.removeHook('beforeQuery', 'counting');
    expect(body!.projects).toHaveLength(12);
    expect(queries).toBeLessThanOrEqual(3);
  });

  it.each(['GET', 'PUT', 'DELETE'] as const)(
    'with an id that can’t be one is refused: %s',
    async (method) => {
      const { status, type, body } = await call(
        method,
        '/api/projects/Not%20One',
        method === 'PUT' ? demo : undefined,
        { 'if-match': '"1"' },
      );
      expect([status, type]).toEqual([400, expect.stringMatching(/problem\+json/)]);
      expect(body!.faults).toContainEqual(expect.objectContaining({ path: 'id' }));
    },
  );

  it('takes one of two edits that are sent in the same moment, on top of the same', async () => {
    const id = await add('Contended');
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        call('PUT', `/api/projects/${id}`, titled(`Edit ${i}`), { 'if-match': '"1"' }),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, ...Array(7).fill(412)]);
    const { body } = await call('GET', `/api/projects/${id}/edits`);
    expect(body!.edits).toHaveLength(2);
  });

  it('keeps the order of its lists and the text of its file', async () => {
    await call('POST', '/api/projects', demo);
    const file = await call('GET', '/api/projects/night-watch/file');
    expect(file.text).toBe(serialiseProject(demo));
    expect(file.headers['content-disposition']).toContain('night-watch.lantern.json');
    expect(readProjectText(file.text).ok).toBe(true);
  });

  it('gets an address of its own where the title is taken or says nothing', async () => {
    const ids: unknown[] = [];
    for (const title of ['Night Watch', 'Night Watch', '☾☾☾'])
      ids.push((await call('POST', '/api/projects', titled(title))).body!.id);
    expect(ids).toEqual(['night-watch', 'night-watch-2', 'project']);
  });

  it('keeps every edit', async () => {
    await call('POST', '/api/projects', demo);
    for (let edit = 1; edit <= 3; edit++)
      await call('PUT', '/api/projects/night-watch', titled(`Watch ${edit}`), {
        'if-match': `"${edit}"`,
      });
    const { body } = await call('GET', '/api/projects/night-watch/edits');
    expect(
      (body as unknown as { edits: { number: number }[] }).edits.map(({ number }) => number),
    ).toEqual([4, 3, 2, 1]);
    expect((await call('GET', '/api/projects/night-watch/edits/2')).body).toMatchObject({
      edit: 2,
      document: { title: 'Watch 1' },
    });
    expect((await call('GET', '/api/projects/night-watch/edits/9')).status).toBe(404);
  });

  it('gives the edits page by page, and those that say a text', async () => {
    const id = await add('Long night');
    const count = EDITS_A_PAGE + 30;
    await database.models.Edit.bulkCreate(
      Array.from({ length: count - 1 }, (_, i) => ({
        projectId: id,
        number: i + 2,
        document: { ...demo, note: `edit ${i % 7}` },
        what: i === 4 ? 'speed of Warden: 40 % → 50 %' : `guard ${i}`,
        name: i === 9 ? 'The Quiet One' : null,
      })) as never,
    );
    const page = async (query = '') => {
      const { body } = await call('GET', `/api/projects/${id}/edits${query}`);
      const { edits, more } = body as unknown as { edits: { number: number }[]; more: number };
      return { numbers: edits.map(({ number }) => number), more };
    };
    const first = await page();
    expect(first.numbers).toHaveLength(EDITS_A_PAGE);
    expect([first.numbers[0], first.more]).toEqual([count, 30]);
    const second = await page(`?before=${first.numbers.at(-1)}`);
    expect([second.numbers[0], second.numbers.at(-1), second.more]).toEqual([30, 1, 0]);
    expect(await page('?find=quiet')).toEqual({ numbers: [11], more: 0 });
    expect(await page('?find=Edit%2011')).toMatchObject({ numbers: expect.arrayContaining([11]) });
    // What databases take for a wildcard is meant as it is written.
    expect(await page(`?find=${encodeURIComponent('40 %')}`)).toEqual({ numbers: [6], more: 0 });
    expect(await page('?find=_uard')).toEqual({ numbers: [], more: 0 });
    expect((await call('GET', `/api/projects/${id}/edits?before=x`)).status).toBe(400);
    expect((await call('GET', `/api/projects/${id}/edits?find=`)).status).toBe(400);
  });

  it('can be put away and brought back', async () => {
    await call('POST', '/api/projects', demo);
    expect((await call('DELETE', '/api/projects/night-watch')).status).toBe(204);
    expect((await call('GET', '/api/projects/night-watch')).status).toBe(404);
    expect((await call('POST', '/api/projects/night-watch/restore')).status).toBe(204);
    expect((await call('GET', '/api/projects/night-watch')).body).toMatchObject({ document: demo });
  });
});

describe('two that write at once', () => {
  it('never overwrite each other: the stale one gets 412, and nothing is lost', async () => {
    await call('POST', '/api/projects', demo);
    const writes = await Promise.all(
      ['First', 'Second', 'Third'].map((title) =>
        call('PUT', '/api/projects/night-watch', titled(title), { 'if-match': '"1"' }),
      ),
    );
    expect(writes.map(({ status }) => status).sort()).toEqual([200, 412, 412]);
    const stale = writes.find(({ status }) => status === 412)!;
    expect(stale.body).toMatchObject({
      status: 412,
      currentEdit: 2,
      detail: expect.stringContaining('based on edit 1; the latest is 2') as string,
    });
    const winner = writes.find(({ status }) => status === 200)!;
    expect((await call('GET', '/api/projects/night-watch')).body).toMatchObject({
      edit: 2,
      document: winner.body!.document,
    });
  });

  it('must say what they are based on', async () => {
    await call('POST', '/api/projects', demo);
    expect((await call('PUT', '/api/projects/night-watch', demo)).status).toBe(428);
    expect((await call('PUT', '/api/projects/night-watch', demo, { 'if-match': '*' })).status).toBe(
      400,
    );
  });
});

describe('refusals', () => {
  it.each<[string, () => ReturnType<typeof call>, number, string]>([
    [
      'a document with faults',
      () =>
        call('POST', '/api/projects', { ...demo, title: '', minds: { warden: { title: 'W' } } }),
      422,
      'minds.warden',
    ],
    [
      'a foreign document',
      () => call('POST', '/api/projects', { format: 'other' }),
      422,
      'belongs to another program',
    ],
    ['what is not JSON', () => call('POST', '/api/projects', '{"format":'), 400, 'JSON'],
    [
      'another media type',
      () => call('POST', '/api/projects', 'x', { 'content-type': 'text/plain' }),
      415,
      'application/json',
    ],
    [
      'a body of 20 MB',
      () => call('POST', '/api/projects', `"${'x'.repeat(20 * 1_048_576)}"`),
      413,
      '8 MB',
    ],
    ['an unknown project', () => call('GET', '/api/projects/nobody'), 404, 'no project “nobody”'],
    ['an impossible id', () => call('GET', '/api/projects/%20x'), 400, 'project’s id'],
    ['an unknown address', () => call('GET', '/api/nothing'), 404, 'not known'],
    [
      'another host',
      () => call('GET', '/api/projects', undefined, { host: 'orchard.example' }),
      403,
      'orchard.example',
    ],
    [
      'another origin',
      () => call('POST', '/api/projects', demo, { origin: 'http://orchard.example' }),
      403,
      'orchard.example',
    ],
    [
      'another port on this machine',
      () => call('GET', '/api/projects', undefined, { origin: 'http://127.0.0.1:9999' }),
      403,
      '9999',
    ],
  ])('%s is refused with what, where and what to do', async (_, send, status, words) => {
    const response = await send();
    expect(response.status).toBe(status);
    expect(response.type).toContain('application/problem+json');
    expect(response.body).toMatchObject({
      status,
      title: expect.any(String) as string,
      type: expect.stringContaining('urn:crooked-lantern:problem:') as string,
    });
    expect(response.text).toContain(words);
    expect(response.text).not.toMatch(/at .*\.ts:/);
    expect(await database.models.Project.count()).toBe(0);
  });

  it('leaves the project untouched when an edit has faults', async () => {
    await call('POST', '/api/projects', demo);
    const response = await call(
      'PUT',
      '/api/projects/night-watch',
      { ...demo, ticksPerSecond: 5000 },
      { 'if-match': '"1"' },
    );
    expect(response.body).toMatchObject({
      status: 422,
      faults: [{ path: 'ticksPerSecond', message: 'must be at most 120, not 5000' }],
    });
    expect((await call('GET', '/api/projects/night-watch')).body).toMatchObject({
      edit: 1,
      document: demo,
    });
  });

  it('takes requests from its own pages', async () => {
    expect(
      (await call('GET', '/api/projects', undefined, { origin: `http://${HOST}` })).status,
    ).toBe(200);
    expect(
      (
        await call('GET', '/api/projects', undefined, {
          host: 'localhost:4173',
          origin: 'http://localhost:4173',
        })
      ).status,
    ).toBe(200);
  });
});

describe('health and documents', () => {
  it('says that all is well', async () => {
    expect((await call('GET', '/api/health')).body).toEqual({ status: 'ok', database: 'ok' });
  });

  it('says so when the database is lost, and goes on when it is back', async () => {
    await call('POST', '/api/projects', demo);
    proxy.cut();
    const health = await call('GET', '/api/health');
    expect([health.status, health.body]).toEqual([
      503,
      { status: 'degraded', database: 'unreachable' },
    ]);
    const write = await call('PUT', '/api/projects/night-watch', titled('Lost?'), {
      'if-match': '"1"',
    });
    expect([write.status, write.body!.type]).toEqual([
      503,
      'urn:crooked-lantern:problem:database-unreachable',
    ]);
    proxy.mend();
    expect(
      (await call('PUT', '/api/projects/night-watch', titled('Kept'), { 'if-match': '"1"' }))
        .status,
    ).toBe(200);
  });

  it('answers 503 whenever the line to the database breaks, and never anything worse', async () => {
    const id = await add('Cut');
    let edit = 1;
    const seen = new Set<number>();
    for (let round = 0; round < 12; round++) {
      const answers = [
        call('PUT', `/api/projects/${id}`, titled(`Cut ${round}`), { 'if-match': `"${edit}"` }),
        call('GET', `/api/projects/${id}`),
        call('GET', '/api/projects'),
      ];
      // At another point of the way each time: what was sent is cut in two.
      for (let turn = 0; turn < round; turn++) await new Promise(setImmediate);
      proxy.cut();
      for (const { status } of await Promise.all(answers)) seen.add(status);
      proxy.mend();
      // Connections that were cut are let go of as they are met.
      await expect.poll(async () => (await call('GET', '/api/projects')).status).toBe(200);
      await expect
        .poll(async () => {
          const { status, body } = await call('GET', `/api/projects/${id}`);
          edit = Number(body!.edit);
          return status;
        })
        .toBe(200);
    }
    expect([...seen].filter((status) => status !== 200 && status !== 503)).toEqual([]);
    expect(seen).toContain(503);
  });

  it('ends a statement that hangs, and says so', async () => {
    const id = await add('Locked');
    const impatient = await openDatabase(address, { statementLimit: 300 });
    const other = await createServer({ database: impatient, pages: '/nowhere', logger });
    const holder = await database.sequelize.transaction();
    await database.sequelize.query('lock table projects in exclusive mode', {
      transaction: holder,
    });
    const { statusCode, body } = await other.inject({
      method: 'PUT',
      url: `/api/projects/${id}`,
      headers: { host: HOST, 'content-type': 'application/json', 'if-match': '"1"' },
      payload: JSON.stringify(demo),
    });
    await holder.rollback();
    await other.close();
    await impatient.close();
    expect([statusCode, JSON.parse(body)]).toEqual([
      503,
      expect.objectContaining({ title: 'The database does not answer' }),
    ]);
    expect((await call('GET', `/api/projects/${id}`)).body).toMatchObject({ edit: 1 });
  });

  it('answers others while it checks the largest of documents', async () => {
    const document = structuredClone(demo);
    const inner = (room: number) =>
      Array.from({ length: 100 }, (_, i) => ({ id: `s${room}x${i}`, note: 'x'.repeat(400) }));
    const rooms = Array.from({ length: 90 }, (_, i) => ({
      id: `room${i}`,
      initial: `s${i}x0`,
      states: inner(i),
    }));
    document.minds.large = { title: 'Large', machine: { initial: 'room0', states: rooms } };
    let done = false;
    const adding = call('POST', '/api/projects', document).finally(() => (done = true));
    let answers = 0;
    while (!done) {
      await call('GET', '/api/health');
      answers++;
    }
    expect((await adding).status).toBe(201);
    expect(answers).toBeGreaterThan(20);
  });

  it('describes itself as OpenAPI, with every route', async () => {
    const { body } = await call('GET', '/api/openapi.json');
    const { openapi, paths } = body as unknown as {
      openapi: string;
      paths: Record<string, Record<string, unknown>>;
    };
    expect(openapi).toBe('3.1.0');
    expect(Object.keys(paths).sort()).toEqual([
      '/api/health',
      '/api/project.schema.json',
      '/api/projects',
      '/api/projects/{id}',
      '/api/projects/{id}/edits',
      '/api/projects/{id}/edits/{number}',
      '/api/projects/{id}/edits/{number}/name',
      '/api/projects/{id}/file',
      '/api/projects/{id}/restore',
    ]);
    expect(JSON.stringify(paths['/api/projects'].post)).toContain('ticksPerSecond');
  });

  it('sends security headers', async () => {
    const { headers } = await call('GET', '/api/health');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
    expect(headers['x-content-type-options']).toBe('nosniff');
  });
});

describe('demos', () => {
  it('are loaded into an empty database, once', async () => {
    const store = createProjectStore(database);
    const files = readdirSync(DEMOS).filter((file) => file.endsWith('.lantern.json'));
    expect(files.length).toBeGreaterThan(3);
    expect(await loadDemos(store, DEMOS)).toBe(files.length);
    expect(await loadDemos(store, DEMOS)).toBe(0);
    await store.remove('night-watch');
    expect(
      await loadDemos(store, DEMOS),
      'a project that was put away does not come back by itself',
    ).toBe(0);
  });
});

describe('every refusal is a problem', () => {
  it.each(['/%E0%A4%A', '/api/projects/%', '/api/nothing', '/api/projects/Not%20An%20Id'])(
    'of %s',
    async (url) => {
      const response = await app.inject({ method: 'GET', url, headers: { host: HOST } });
      expect(response.statusCode).toBeGreaterThanOrEqual(400);
      expect(response.headers['content-type']).toMatch(/^application\/problem\+json/);
      expect(response.json()).toMatchObject({ title: expect.any(String) });
    },
  );

  it('of what is no HTTP; a connection that is dropped in the midst of a request is no failure', async () => {
    const lines: string[] = [];
    const logged = await createServer({
      database,
      pages: '/nowhere',
      logger: pino({ level: 'warn' }, { write: (line: string) => void lines.push(line) }),
    });
    const { port } = new URL(await logged.listen({ host: '127.0.0.1', port: 0 }));
    const send = (text: string, done: (socket: Socket) => void) =>
      new Promise<string>((resolve) => {
        let answer = '';
        const socket = connect(Number(port), '127.0.0.1', () => {
          socket.write(text);
          done(socket);
        });
        socket.on('data', (data) => (answer += String(data)));
        socket.on('close', () => resolve(answer));
      });
    expect(await send('orchard\r\n\r\n', () => {})).toMatch(
      /^HTTP\/1\.1 400 [^]*application\/problem\+json/,
    );
    const half = `POST /api/projects HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: application/json\r\nContent-Length: 9000\r\n\r\n{"format":`;
    await send(half, (socket) => socket.end());
    await send(half, (socket) => socket.resetAndDestroy());
    // The server has seen the end of both when it answers another.
    expect((await fetch(`http://127.0.0.1:${port}/api/health`)).status).toBe(200);
    await logged.close();
    expect(lines).toEqual([]);
  });
});

describe('the socket of a project', () => {
  const where = '/api/projects/night-watch/live';
  let host: string;
  beforeAll(async () => {
    host = (await app.listen({ host: '127.0.0.1', port: 0 })).replace('http://', '');
  });

  /** Opens the socket; `edits` gives what it has told by now. */
  function listen() {
    const edits: number[] = [];
    const socket = new WebSocket(`ws://${host}${where}`);
    socket.addEventListener('message', ({ data }) =>
      edits.push((JSON.parse(String(data)) as { edit: number }).edit),
    );
    return { socket, edits: () => edits };
  }

  const save = (edit: number) =>
    call(
      'PUT',
      '/api/projects/night-watch',
      { ...demo, note: `edit ${edit}` },
      {
        'if-match': `"${edit}"`,
      },
    );

  it('tells the latest edit at once, and each that any window saves', async () => {
    await call('POST', '/api/projects', demo);
    await save(1);
    const [one, two] = [listen(), listen()];
    await expect.poll(() => [one.edits(), two.edits()]).toEqual([[2], [2]]);
    await save(2);
    await expect
      .poll(() => [one.edits(), two.edits()])
      .toEqual([
        [2, 3],
        [2, 3],
      ]);
    one.socket.close();
    await new Promise((closed) => one.socket.addEventListener('close', closed));
    await save(3);
    await expect.poll(() => two.edits()).toEqual([2, 3, 4]);
    expect(one.edits()).toEqual([2, 3]);
    two.socket.close();
  });

  it('tells nothing of an edit that was refused', async () => {
    await call('POST', '/api/projects', demo);
    const { socket, edits } = listen();
    await expect.poll(edits).toEqual([1]);
    expect((await save(7)).status).toBe(412);
    await save(1);
    await expect.poll(edits).toEqual([1, 2]);
    socket.close();
  });

  it('is closed where there is no such project, and refused to pages of others', async () => {
    const { socket, edits } = listen();
    await new Promise((closed) => socket.addEventListener('close', closed));
    expect(edits()).toEqual([]);
    const foreign = await call('GET', where, undefined, { origin: 'http://elsewhere.example' });
    expect(foreign.status).toBe(403);
  });
});

describe('the pages', () => {
  let folder: string;
  let withPages: FastifyInstance;

  beforeAll(async () => {
    folder = mkdtempSync(path.join(tmpdir(), 'pages-'));
    mkdirSync(path.join(folder, 'assets'));
    writeFileSync(path.join(folder, 'index.html'), '<title>Orchard</title>');
    writeFileSync(path.join(folder, 'assets', 'index-1a2b.js'), 'plain');
    writeFileSync(path.join(folder, 'assets', 'index-1a2b.js.br'), 'compressed');
    withPages = await createServer({ database, pages: folder, logger: pino({ level: 'silent' }) });
  });
  afterAll(async () => {
    await withPages.close();
    rmSync(folder, { recursive: true });
  });
  const get = (url: string, headers: Record<string, string> = {}) =>
    withPages.inject({ method: 'GET', url, headers: { host: HOST, ...headers } });

  it('are asked for again each time, and what they are built of is kept for good', async () => {
    expect((await get('/projects/night-watch/minds')).headers['cache-control']).toBe('no-cache');
    expect((await get('/assets/index-1a2b.js')).headers['cache-control']).toBe(
      'public, max-age=31536000, immutable',
    );
  });

  it('come compressed for clients that accept it', async () => {
    const compressed = await get('/assets/index-1a2b.js', { 'accept-encoding': 'br' });
    expect([compressed.body, compressed.headers['content-encoding']]).toEqual(['compressed', 'br']);
    const plain = await get('/assets/index-1a2b.js');
    expect([plain.body, plain.headers['content-encoding']]).toEqual(['plain', undefined]);
  });

  it('are the answer to every address of a place, whatever its query names', async () => {
    const page = await get('/projects/night/minds/warden?sheet=trees.combThePlace&state=comb');
    expect([page.statusCode, page.body]).toEqual([200, '<title>Orchard</title>']);
  });

  it('are no answer to what is neither a page nor there', async () => {
    expect((await get('/assets/gone.js')).statusCode).toBe(404);
    expect((await get('/api/gone')).statusCode).toBe(404);
  });

  it('too many requests are refused as a problem, with when to come again', async () => {
    let last = await get('/api/health');
    for (let i = 0; i < 5000 && last.statusCode === 200; i++) last = await get('/api/health');
    expect(last.statusCode).toBe(429);
    expect(last.headers['content-type']).toMatch(/application\/problem\+json/);
    expect(Number(last.headers['retry-after'])).toBeGreaterThan(0);
  });
});
