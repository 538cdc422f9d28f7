import createClient, { type Middleware } from 'openapi-fetch';
import { words } from '../words';
import { tellSettled } from './acts';
import { withReason } from './reason';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];

/** A refusal as the server tells it (RFC 9457). */
export interface Problem {
  type: string;
  status: number;
  title: string;
  detail: string;
  request?: string;
  faults?: { pointer: string; message: string }[];
  theirs?: Schemas['RecordView'];
  theirsTag?: string;
}

export class ProblemError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** What went wrong, in words: the server's where it said some. */
export function errorText(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}

function cookie(name: string): string {
  const found = document.cookie.split('; ').find((c) => c.startsWith(name + '='));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : '';
}

const csrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') {
      request.headers.set('X-XSRF-TOKEN', cookie('__Host-XSRF-TOKEN') || cookie('XSRF-TOKEN'));
      // Whatever sends it again on its way, it is done once.
      if (!request.headers.has('Idempotency-Key')) {
        request.headers.set('Idempotency-Key', newKey());
      }
    }
    return request;
  },
};

const EYES = 'as-seen-by';

/** With whose eyes a coordinator looks at pages now, instead of their own. */
export interface Eyes {
  id: number;
  name: string;
  right: Schemas['Session']['right'];
}

export function eyes(): Eyes | null {
  const kept = sessionStorage.getItem(EYES);
  return kept ? (JSON.parse(kept) as Eyes) : null;
}

/** Everything fetched until now was another's; the page begins anew. */
export function lookWith(other: Eyes | null) {
  if (other) {
    sessionStorage.setItem(EYES, JSON.stringify(other));
  } else {
    sessionStorage.removeItem(EYES);
  }
  window.location.assign(other ? '/' : '/who-sees-what');
}

const seenBy: Middleware = {
  onRequest({ request }) {
    const other = eyes();
    if (other && !new URL(request.url).pathname.startsWith('/api/v1/session')) {
      request.headers.set('As-Seen-By', String(other.id));
    }
    return request;
  },
};

/** A file is taken in parts, which its page tells of together. */
const settles: Middleware = {
  onResponse({ request, response }) {
    if (!new URL(request.url).pathname.startsWith('/api/v1/files/')) {
      tellSettled(response.headers.get('Act'));
    }
  },
};

export const api = createClient<paths>({ baseUrl: '/' });
api.use(csrf);
api.use(seenBy);
api.use(settles);
api.use(withReason);

/** The same, but nothing is done: each change answers what it would do. */
const looks = createClient<paths>({ baseUrl: '/', headers: { 'Look-First': 'true' } });
looks.use(csrf);
looks.use(seenBy);
looks.use(withReason);

export type Client = typeof api;

/** What a change would do to all entries. */
export function lookAt(
  change: (client: Client) => Promise<unknown>,
): Promise<Schemas['SetPreview']> {
  return change(looks) as Promise<Schemas['SetPreview']>;
}

/** What came back; without an answer that is said. */
async function answered<T>(call: Promise<T>): Promise<T> {
  try {
    return await call;
  } catch {
    throw new ProblemError({
      type: 'offline',
      status: 0,
      title: 'No answer',
      detail: words.noAnswer,
    });
  }
}

/** The answer's data, or the server's refusal as an error; without an answer that is said. */
export async function take<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const result = await answered(call);
  if (!result.response.ok) {
    const problem = result.error as Problem | undefined;
    throw new ProblemError(
      problem?.detail
        ? problem
        : {
            type: 'failure',
            status: result.response.status,
            title: 'Failure',
            detail: words.answered(result.response.status),
          },
    );
  }
  return result.data as T;
}

/** The same with the answer's tag. */
export async function takeTagged<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<{ data: T; tag: string }> {
  const done = await answered(call);
  const data = await take(Promise.resolve(done));
  return { data, tag: done.response.headers.get('ETag') ?? '*' };
}

/** A key under which the server does something once, however often it is asked. */
export function newKey(): string {
  return crypto.randomUUID();
}

/** A change together with the tag of what it changes, as it was seen. */
export type Seen<Change> = Change & { tag: string };

/** Sends that tag, so that what somebody else changed meanwhile is not written over. */
export function ifStill(tag: string) {
  return { header: { 'If-Match': tag } };
}
