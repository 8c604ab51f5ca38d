import {
  LONGEST_WHAT,
  type Fault,
  type GroundDocument,
  type ProjectDocument,
} from '@crooked-lantern/core';
import ReconnectingSocket from 'partysocket/ws';

export interface ProjectSummary {
  id: string;
  title: string;
  note?: string;
  edit: number;
  minds: number;
  agents: number;
  createdAt: string;
  updatedAt: string;
  /** The ground a run begins on; absent where the document names none that exists. */
  ground?: GroundDocument;
}

export interface StoredProject {
  id: string;
  edit: number;
  updatedAt: string;
  document: ProjectDocument;
}

export interface EditSummary {
  number: number;
  createdAt: string;
  /** The same for edits of the same document. */
  digest: string;
  /** What people call it; absent for most. */
  name?: string;
  /** What it changed, in words; absent where that was not said. */
  what?: string;
}

/** A refusal by the server, or (status 0) no answer at all. */
export class ApiError extends Error {
  readonly status: number;
  readonly faults: Fault[];
  readonly currentEdit: number | undefined;

  constructor(status: number, message: string, faults: Fault[] = [], currentEdit?: number) {
    super(message);
    this.status = status;
    this.faults = faults;
    this.currentEdit = currentEdit;
  }

  /** Trying again later may help. */
  get passing(): boolean {
    return this.status === 0 || this.status === 429 || this.status >= 500;
  }
}

async function request<T>(path: string, init: RequestInit = {}): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new ApiError(0, 'The server does not answer.');
  }
  if (response.status === 204) return undefined as T;
  const body = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  if (!response.ok) {
    const message =
      [body.title, body.detail].filter(Boolean).join('. ') ||
      `The server answered ${response.status}.`;
    throw new ApiError(
      response.status,
      message,
      (body.faults as Fault[] | undefined) ?? [],
      body.currentEdit as number | undefined,
    );
  }
  return body as T;
}

const json = (body: unknown, headers: Record<string, string> = {}): RequestInit => ({
  headers: { 'content-type': 'application/json', ...headers },
  body: JSON.stringify(body),
});

/** The header that says what an edit changes: a line of whole characters, whatever titles hold; none for no words. */
function whatHeader(what: string): Record<string, string> {
  const line = what.replace(/[\p{Cc}\p{Cs}]+/gu, ' ').trim();
  if (line === '') return {};
  return { 'x-edit-what': encodeURIComponent([...line].slice(0, LONGEST_WHAT).join('')) };
}

/** Times in ms between tries to reach the server again. */
const WATCHING = { minReconnectionDelay: 500, maxReconnectionDelay: 8000 };

export const api = {
  /** The latest projects from the one at `offset`, a page of them, and how many there are in all. */
  list: (offset = 0) =>
    request<{ projects: ProjectSummary[]; total: number }>(`/api/projects?offset=${offset}`),
  read: (id: string) => request<StoredProject>(`/api/projects/${id}`),
  create: (document: ProjectDocument) =>
    request<StoredProject>('/api/projects', { method: 'POST', ...json(document) }),
  /** `what`: what the edit changes, in words. */
  write: (id: string, basedOn: number, document: ProjectDocument, what: string) =>
    request<StoredProject>(`/api/projects/${id}`, {
      method: 'PUT',
      ...json(document, { 'if-match': `"${basedOn}"`, ...whatHeader(what) }),
    }),
  /** A page of the edits before one (left out: from the latest on) that say a text, latest first, and how many more there are. */
  edits: (id: string, page: { before?: number; find?: string } = {}) => {
    const said = Object.entries(page).filter(([, value]) => value !== undefined && value !== '');
    const query = new URLSearchParams(said.map(([key, value]) => [key, String(value)])).toString();
    return request<{ edits: EditSummary[]; more: number }>(
      `/api/projects/${id}/edits${query && `?${query}`}`,
    );
  },
  readEdit: (id: string, number: number) =>
    request<StoredProject>(`/api/projects/${id}/edits/${number}`),
  nameEdit: (id: string, number: number, name: string | null) =>
    request<void>(`/api/projects/${id}/edits/${number}/name`, { method: 'PUT', ...json({ name }) }),
  /**
   * Calls `onSaved` with the number of the latest edit whenever the server has a newer one, and when the server is
   * reached again. Returns a cancel function.
   */
  watch(id: string, onSaved: (edit: number) => void): () => void {
    const address = new URL(`/api/projects/${id}/live`, location.href);
    address.protocol = address.protocol === 'https:' ? 'wss:' : 'ws:';
    const socket = new ReconnectingSocket(address.href, [], WATCHING);
    socket.addEventListener('message', ({ data }) => {
      const { edit } = JSON.parse(data as string) as { edit: number };
      onSaved(edit);
    });
    return () => socket.close();
  },
  remove: (id: string) => request<void>(`/api/projects/${id}`, { method: 'DELETE' }),
  restore: (id: string) => request<void>(`/api/projects/${id}/restore`, { method: 'POST' }),
};

export function fileAddress(id: string): string {
  return `/api/projects/${id}/file`;
}
