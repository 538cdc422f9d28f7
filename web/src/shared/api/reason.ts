import type { Middleware } from 'openapi-fetch';

/** Asks why something is done that a limit warns of; null: it is left. */
export type AskReason = (why: string) => Promise<string | null>;

let ask: AskReason = () => Promise.resolve(null);

/** Who asks from now on; gives the way to ask no more. */
export function onReasonAsked(asker: AskReason): () => void {
  ask = asker;
  return () => {
    ask = () => Promise.resolve(null);
  };
}

const HEADER = 'Act-Reason';
const REFUSED = /:reason$/;

const sent = new Map<string, Request>();
/** What was looked at first is not asked about again when it is done. */
const NOT_LOOKED = { why: '', reason: '' };
let looked = NOT_LOOKED;

/** Sends again with its reason what was refused for the want of one. */
export const withReason: Middleware = {
  onRequest({ request, id }) {
    if (request.method !== 'GET') {
      sent.set(id, request.clone());
    }
    return request;
  },
  async onResponse({ response, id }) {
    const again = sent.get(id);
    sent.delete(id);
    if (response.status !== 409 || !again) {
      return undefined;
    }
    const problem = (await response.clone().json()) as { type?: string; detail?: string };
    if (!REFUSED.test(problem.type ?? '')) {
      return undefined;
    }
    const why = problem.detail ?? '';
    const reason = looked.why === why ? looked.reason : await ask(why);
    if (!reason) {
      return undefined;
    }
    looked = again.headers.has('Look-First') ? { why, reason } : NOT_LOOKED;
    again.headers.set(HEADER, encodeURIComponent(reason));
    return fetch(again);
  },
};
