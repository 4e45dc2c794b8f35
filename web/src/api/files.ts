import { csrfToken, Refusal, type Problem } from "./client";

export interface Sending {
  /** Told the share that has been sent. */
  progress?: (share: number) => void;
  /** Stops it. */
  signal?: AbortSignal;
}

function refusal(status: number, title: string): Refusal {
  return new Refusal({ status, code: "unknown", title, faults: [] });
}

/**
 * Send a file with form fields; the answer's body. A request of this kind because it tells how far it is.
 * Throws a Refusal with the server's problem, or with what kept the file from being sent.
 */
export function sendFile<T>(
  path: string,
  file: File,
  fields: Record<string, string> = {},
  { progress, signal }: Sending = {},
): Promise<T> {
  const form = new FormData();
  form.append("file", file);
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    signal?.addEventListener("abort", () => request.abort());
    request.upload.onprogress = (event) => progress?.(event.loaded / Math.max(event.total, 1));
    request.onabort = () => reject(refusal(0, "Stopped. Nothing was changed."));
    request.onerror = () => reject(refusal(0, "The server does not answer. Nothing was changed."));
    request.onload = () => {
      if (request.status < 300) resolve(request.response as T);
      else
        reject(
          request.response
            ? new Refusal(request.response as Problem)
            : refusal(request.status, `The server answered ${request.status}. Nothing was changed.`),
        );
    };
    request.open("POST", path);
    request.responseType = "json";
    request.setRequestHeader("X-CSRFToken", csrfToken());
    request.send(form);
  });
}
