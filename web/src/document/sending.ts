import { Refusal } from "@/api/client";

const LONGEST_PAUSE_MS = 5000;
const FIRST_PAUSE_MS = 500;
const BUSY_TRIES = 8;

/** No answer came, or one that somebody on the way gave: whether the server did it is not known. */
export function isLost(error: unknown): boolean {
  if (error instanceof Refusal)
    return error.problem.code === "unknown" && [502, 503, 504].includes(error.problem.status);
  return error instanceof TypeError;
}

function isBusy(error: unknown): boolean {
  return error instanceof Refusal && error.problem.code === "busy";
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Send what may be sent again (it carries a key, so that it is applied once) until an answer comes.
 *
 * @param lost told with true while there is no connection
 */
export async function sentAgain<T>(work: () => Promise<T>, lost: (is: boolean) => void): Promise<T> {
  for (let attempt = 0; ; attempt += 1) {
    try {
      const answer = await work();
      lost(false);
      return answer;
    } catch (error) {
      if (!isLost(error)) lost(false);
      if (!isLost(error) && !(isBusy(error) && attempt < BUSY_TRIES)) throw error;
      if (isLost(error)) lost(true);
      await pause(Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** attempt));
    }
  }
}
