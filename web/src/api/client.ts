// The one door to the server. Every change carries the session's token.
import createClient from "openapi-fetch";
import type { paths } from "./schema";
import type { Problem } from "./types";

let token = "";

export function setToken(value: string) {
  token = value;
}

export const api = createClient<paths>({ baseUrl: "/" });

api.use({
  onRequest({ request }) {
    if (token) request.headers.set("x-hembo-token", token);
    return request;
  },
});

const UNREACHABLE: Problem = {
  type: "urn:hembo:unreachable",
  title: "No answer",
  status: 0,
  detail: "The server does not answer. What was saved is safe; try again in a moment.",
};

/** A refusal by the server, or its silence, as an error that can be shown. */
export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

type Answer<T> = { data?: T; error?: unknown; response: Response };

/** The answer's data, or a `Refusal`. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch {
    throw new Refusal(UNREACHABLE);
  }
  if (answer.response.ok) return answer.data as T;
  const problem = answer.error as Problem | undefined;
  throw new Refusal(problem?.detail ? problem : { ...UNREACHABLE, status: answer.response.status });
}
