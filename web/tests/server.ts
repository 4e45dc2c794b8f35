// A server for tests of the browser: what is asked is kept, what is answered is said by each test.

export interface Asked {
  method: string;
  path: string;
  query: Record<string, string>;
  body: any;
}
/** What a route answers: a body, or a status with one. */
export type Answer = { status: number; body?: unknown } | Record<string, unknown> | unknown[];
type Routes = Record<string, Answer | ((asked: Asked) => Answer | Promise<Answer>)>;

export const asked: Asked[] = [];
let routes: Routes = {};

/** Answer these routes, by "METHOD /path"; those of before stay unless they are named again. */
export function plug(more: Routes): void {
  routes = { ...routes, ...more };
}

/** No connection: nothing is answered, and nothing was asked yet. */
export function unplug(): void {
  routes = {};
  asked.length = 0;
}

/** What a refusal of the server looks like. */
export function refused(status: number, title: string, code = "invalid", faults: unknown[] = []): Answer {
  return { status, body: { type: "about:blank", status, code, title, faults, rows: {} } };
}

/** In place of the browser's own fetch. */
export async function answered(input: RequestInfo | URL, init?: RequestInit): Promise<Response> {
  const request = new Request(input instanceof Request ? input : new URL(String(input), "http://test"), init);
  const url = new URL(request.url, "http://test");
  const text = await request.text();
  const one: Asked = {
    method: request.method,
    path: url.pathname,
    query: Object.fromEntries(url.searchParams),
    body: text.startsWith("{") || text.startsWith("[") ? JSON.parse(text) : text,
  };
  asked.push(one);
  const route = routes[`${one.method} ${one.path}`];
  if (route === undefined) throw new TypeError(`no answer to ${one.method} ${one.path}`);
  const answer = typeof route === "function" ? await route(one) : route;
  const told =
    !Array.isArray(answer) && typeof answer["status"] === "number" && Object.keys(answer).length <= 2;
  const [status, body] = told ? [answer["status"] as number, answer["body"]] : [200, answer];
  if (status === 204) return new Response(null, { status });
  return new Response(JSON.stringify(body ?? null), {
    status,
    headers: { "content-type": status < 400 ? "application/json" : "application/problem+json" },
  });
}

/** Turns of the page's queue, until what was answered is drawn. */
export async function settled(turns = 12): Promise<void> {
  for (let i = 0; i < turns; i += 1) await new Promise((next) => setImmediate(next));
}
