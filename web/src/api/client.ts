import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];

/** An error answer: machine code, sentence and the faulty fields. */
export interface Problem {
  status: number;
  code: string;
  title: string;
  faults: { path: string; field: string; value: unknown; now: unknown; message: string; allowed: string }[];
}

/** A refusal by the server, with its problem as told. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

/** The token that every change must carry. */
export function csrfToken(): string {
  return document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1] ?? "";
}

export const client = createClient<paths>({ baseUrl: "/", credentials: "same-origin" });

client.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrfToken());
    return request;
  },
});

function isProblem(value: unknown): value is Problem {
  return typeof value === "object" && value !== null && "title" in value && "faults" in value;
}

/** Unwrap an answer, or throw a Refusal; where it is done and nothing is to be said there is nothing in it. */
export function unwrap<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.response.status === 204) return undefined as T;
  if (answer.response.ok && answer.data !== undefined) return answer.data;
  if (isProblem(answer.error)) throw new Refusal(answer.error);
  throw new Refusal({
    status: answer.response.status,
    code: "unknown",
    title: `The server answered ${answer.response.status}; whether it did what was asked is not known.`,
    faults: [],
  });
}
