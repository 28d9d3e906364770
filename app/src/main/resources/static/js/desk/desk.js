// A desk in this browser: its folder, what lies in it, and how that stands to the shelf.
import { Folder, memory, NoLeave } from "./folder.js";
import { api, Problem } from "../http.js";

let worker;
let last = 0;
const waiting = new Map();

function inWorker(act, asked, tell = () => {}) {
  if (!worker) {
    worker = new Worker("/static/js/desk/worker.js", { type: "module" });
    worker.onmessage = ({ data }) => {
      const one = waiting.get(data.id);
      if (data.progress) { one.tell(data.progress); return; }
      waiting.delete(data.id);
      if (!data.error) one.done(data.result);
      else if (data.error.leave) one.failed(new NoLeave("The browser has taken back its leave to work in this folder. Nothing was lost."));
      else if (data.error.name === "QuotaExceededError") one.failed(new Problem("The disk is full. What lay there is untouched."));
      else one.failed(new Problem(data.error.message));
    };
    worker.onerror = () => {
      waiting.forEach((one) => one.failed(new Problem("This browser could not start what reads the desk. Load the page again.")));
      waiting.clear();
    };
  }
  return new Promise((done, failed) => {
    const id = ++last;
    waiting.set(id, { done, failed, tell });
    worker.postMessage({ ...asked, act, id });
  });
}

export class Desk {
  constructor(me, name, handle) {
    this.me = me;
    this.name = name;
    this.folder = new Folder(handle);
  }

  get address() { return `/desks/${encodeURIComponent(this.name)}`; }

  get lock() { return `mint-desk ${this.me} ${this.name}`; }

  /** Reads the disk, then the shelf: each line with the bytes' hash, size and time where a file lies there. */
  async status(tell) {
    const known = await memory.hashes(this.me, this.name).catch(() => undefined);
    const { files, skipped } = await inWorker("list", { handle: this.folder.handle, known }, tell);
    const byPath = {};
    files.forEach((f) => { byPath[f.path] = f; });
    await memory.keepHashes(this.me, this.name, byPath).catch(() => {});
    const lines = await api("POST", `${this.address}/status`, { files: files.map(({ path, sha256 }) => ({ path, sha256 })) });
    const standings = lines.map((line) => ({ ...line, ...byPath[line.path] }));
    standings.skipped = skipped;
    this.#remember(standings);
    return standings;
  }

  /** Other pages show the words beside the documents. */
  #remember(standings) {
    const words = {};
    const versions = {};
    // What it has of a trial says nothing of the document's own versions.
    standings.filter((s) => s.document && !s.line).slice(0, 4000).forEach((s) => {
      words[s.document] = s.word;
      versions[s.document] = s.word === "even" ? s.version : s.base;
    });
    try { localStorage.setItem("mint.words", JSON.stringify({ me: this.me, desk: this.name, words, versions })); } catch { /* they are a comfort only */ }
  }

  /** Brings a version; false when something else lies there now than was expected. */
  async bring(document, version, path, expect, tell) {
    const url = `/api/v1/documents/${document}/versions/${version}/content`;
    const result = await inWorker("bring", { handle: this.folder.handle, path, url, expect: expect ?? null }, tell);
    return !result.changed;
  }

  async look(path) { return (await inWorker("look", { handle: this.folder.handle, path })).sha256; }

  note(files) { return files.length ? api("POST", `${this.address}/files`, { files }) : null; }

  cleared(documents) { return documents.length ? api("POST", `${this.address}/cleared`, { documents }) : null; }
}

export const can = () => window.isSecureContext && "showDirectoryPicker" in window;

/** The desks of a person that this browser knows the folders of; the one worked on last first. */
export async function desksHere(me) {
  const last = localStorage.getItem("mint.desk");
  const all = await memory.desks(me).catch(() => []);
  return all.map((d) => new Desk(me, d.name, d.handle)).sort((a, b) => (b.name === last) - (a.name === last) || a.name.localeCompare(b.name));
}
