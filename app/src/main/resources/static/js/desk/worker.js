// Reads, hashes and writes files of a desk beside the page, so that the page stays usable.
import { sha256 } from "../../vendor/sha256.js";
import { Folder, NoLeave } from "./folder.js";

const MOST = 100_000;
const AT_ONCE = 24;
const SMALL = 32 << 20;
const SLICE = 8 << 20;
const TRIES = 6;
const hex = (bytes) => Array.from(new Uint8Array(bytes), (b) => b.toString(16).padStart(2, "0")).join("");
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

/** SHA-256 of a file; a large one is never in memory whole. */
async function hash(file, told = () => {}) {
  if (file.size <= SMALL) {
    const digest = hex(await crypto.subtle.digest("SHA-256", await file.arrayBuffer()));
    told(file.size);
    return digest;
  }
  const digest = sha256.create();
  for (const reader = file.stream().getReader(); ;) {
    const { done, value } = await reader.read();
    if (done) return hex(digest.digest());
    digest.update(value);
    told(value.length);
  }
}

/** Everything that lies in the folder; what has the size and time of before is not read again. */
async function list({ handle, known = {} }, tell) {
  const files = [];
  const skipped = [];
  let bytes = 0;
  let told = 0;
  const progress = (n) => {
    bytes += n;
    if (performance.now() - told > 150) { told = performance.now(); tell({ files: files.length, bytes }); }
  };
  const one = async ([path, entry]) => {
    let file;
    try {
      file = await entry.getFile();
      if (!file.size) return;
      const before = known[path];
      const same = before && before.size === file.size && before.modified === file.lastModified;
      const sum = same ? before.sha256 : await hash(file, progress);
      files.push({ path, size: file.size, modified: file.lastModified, sha256: sum });
      if (same) progress(0);
    } catch (error) {
      if (error?.name === "NotAllowedError") throw new NoLeave(error.message);
      skipped.push(path); // written to while it was read, or gone: it is seen the next time
    }
  };
  let batch = [];
  for await (const entry of new Folder(handle).files()) {
    if (files.length + batch.length >= MOST) throw new RangeError(`More than ${MOST.toLocaleString("en")} files lie in this folder. Choose a smaller one for a desk.`);
    batch.push(entry);
    if (batch.length === AT_ONCE) { await Promise.all(batch.map(one)); batch = []; }
  }
  await Promise.all(batch.map(one));
  return { files, skipped };
}

async function refused(answer) {
  const problem = await answer.json().catch(() => ({}));
  return new RangeError([problem.detail, problem.remedy].filter(Boolean).join(" ") || `The shelf answered ${answer.status}.`);
}

/**
 * Puts a version in its place, in slices that are asked for again where the connection is lost; whole or not at all. A file that
 * is there and is not the one that was expected stays.
 */
async function bring({ handle, path, url, expect }, tell) {
  const folder = new Folder(handle);
  const before = await folder.file(path);
  if (before && await hash(before) !== expect) return { changed: true };
  const out = await folder.writable(path);
  try {
    const digest = sha256.create();
    let tag = null;
    let total = Infinity;
    for (let from = 0, failures = 0; from < total;) {
      try {
        const answer = await fetch(url, { headers: { Range: `bytes=${from}-${from + SLICE - 1}` } });
        if (answer.status !== 206) throw await refused(answer);
        if (tag && answer.headers.get("ETag") !== tag) throw new RangeError("The file changed on the way. Bring it again.");
        const bytes = new Uint8Array(await answer.arrayBuffer());
        tag = answer.headers.get("ETag");
        total = Number(answer.headers.get("Content-Range").split("/")[1]);
        digest.update(bytes);
        await out.write(bytes);
        from += bytes.length;
        failures = 0;
        tell({ received: from, total });
      } catch (error) {
        if (error instanceof RangeError || error?.name === "QuotaExceededError" || ++failures >= TRIES) throw error;
        await pause(400 * failures);
      }
    }
    if (tag !== `"${hex(digest.digest())}"`) throw new RangeError(`“${path}” did not arrive as it was sent. What lay there is untouched.`);
    const meanwhile = await folder.file(path);
    if (meanwhile && (!before || meanwhile.lastModified !== before.lastModified || meanwhile.size !== before.size)) {
      await out.abort();
      return { changed: true };
    }
    await out.close();
    return { size: total };
  } catch (error) {
    await out.abort().catch(() => {});
    if (!before && !await folder.file(path)) await folder.remove(path).catch(() => {});
    throw error;
  }
}

/** The hash of one file as it lies there now; nothing where none lies. */
async function look({ handle, path }) {
  const file = await new Folder(handle).file(path);
  return { sha256: file ? await hash(file) : null };
}

const doing = { list, bring, look };

self.onmessage = async ({ data }) => {
  const tell = (progress) => self.postMessage({ id: data.id, progress });
  try {
    self.postMessage({ id: data.id, result: await doing[data.act](data, tell) });
  } catch (error) {
    self.postMessage({ id: data.id, error: { message: error.message, name: error.name, leave: error instanceof NoLeave || error?.name === "NotAllowedError" } });
  }
};
