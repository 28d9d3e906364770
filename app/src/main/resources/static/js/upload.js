// Bytes on their way to the shelf: in slices that can be resumed, from where the server stands.
import { ask, Problem } from "./http.js";

const SLICE = 8 << 20;
const TRIES = 8;
const BESIDE = 3;
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/**
 * Sends a file; a lost connection is picked up where the server stands. Gives the upload's token.
 *
 * @param opened the address that opens the upload
 */
export async function send(file, onProgress, name = file.name, opened = `/uploads?name=${encodeURIComponent(name)}&size=${file.size}`) {
  let state = await ask("POST", opened);
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
      const waits = error.code === "upload.busy";
      if ((error instanceof Problem && !waits) || ++failures >= TRIES) throw error;
      await pause(500 * failures);
      state = await ask("GET", `/uploads/${state.token}`).catch((e) => { if (e instanceof Problem) throw e; return state; });
    }
  }
  onProgress(file.size);
  return state.token;
}

/**
 * Sends files a few beside each other: of small ones most of the time is the way.
 *
 * @param files each a file, or what gives it
 * @param opened gives the address that opens the upload of a file; the usual one without
 * @param told is given the place of a file and how many of its bytes are there
 * @returns by place a token, or the error
 */
export async function sendAll(files, told, opened) {
  const results = new Array(files.length);
  const next = files.entries();
  const one = async (i, given) => {
    const file = typeof given === "function" ? await given() : given;
    return send(file, (n) => told(i, n), file.name, opened?.(i, file));
  };
  await Promise.all(Array.from({ length: BESIDE }, async () => {
    for (const [i, given] of next) results[i] = await one(i, given).then((token) => ({ token }), (error) => ({ error }));
  }));
  return results;
}

export const size = (bytes) => (bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);
export const words = (error) => (error instanceof Problem ? error.message : "The connection was lost. Bring it again; what came before is untouched.");
