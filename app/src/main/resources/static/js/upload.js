// Bytes on their way to the shelf: in slices that can be resumed, from where the server stands.
const SLICE = 8 << 20;
const TRIES = 8;
export const token = document.querySelector("meta[name=csrf]")?.content;
const headers = { "X-CSRF-TOKEN": token };
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** What the server said no to, in its words; anything else is a lost connection. */
export class Problem extends Error {}

export async function ask(method, url, body) {
  const answer = await fetch(url, { method, headers, body });
  if (answer.ok && !answer.redirected) return answer.json();
  if (answer.status === 409 || answer.status === 404) {
    const problem = await answer.json();
    throw new Problem([problem.detail, problem.remedy].filter(Boolean).join(" "));
  }
  if (answer.redirected || answer.status === 401 || answer.status === 403) {
    throw new Problem("Your session has ended. Sign in again; what was sent so far is kept for a day.");
  }
  throw new Error(`status ${answer.status}`);
}

/** Sends a file; a lost connection is picked up where the server stands. Gives the upload's token. */
export async function send(file, onProgress, name = file.name) {
  let state = await ask("POST", `/uploads?name=${encodeURIComponent(name)}&size=${file.size}`);
  let failures = 0;
  while (!state.complete) {
    try {
      const slice = file.slice(state.received, Math.min(file.size, state.received + SLICE));
      const next = await ask("PUT", `/uploads/${state.token}?from=${state.received}`, slice);
      if (next.received > state.received || next.complete) failures = 0;
      state = next;
      onProgress(state.received);
    } catch (error) {
      // A file that was written to while it was read can be read no more: that is no lost connection.
      const readable = await file.slice(0, 1).arrayBuffer().then(() => true, () => false);
      if (!readable) throw new Problem(`“${name}” was changed or moved while it was sent. Nothing was made of it; bring it once more.`);
      if (error instanceof Problem || ++failures >= TRIES) throw error;
      await pause(500 * failures);
      state = await ask("GET", `/uploads/${state.token}`).catch((e) => { if (e instanceof Problem) throw e; return state; });
    }
  }
  onProgress(file.size);
  return state.token;
}

export const size = (bytes) => (bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);
export const words = (error) => (error instanceof Problem ? error.message : "The connection was lost. Drop the file again; what was filed before is untouched.");
