// The port to a folder of the person's machine. All that Mint Shelf does to a disk goes through here; it asks nothing of the
// server and knows no documents. Paths have slashes and begin at the folder.

/** The browser has taken back its leave, or the folder is gone. */
export class NoLeave extends Error {}

const DATABASE = "mint-shelf";
const MISSING = ["NotFoundError", "TypeMismatchError"];

const parts = (path) => {
  const segments = path.split("/");
  if (segments.some((s) => s === "" || s === "." || s === "..")) throw new TypeError(`“${path}” is no place in the folder.`);
  return segments;
};

const wrap = (error) => (error?.name === "NotAllowedError" || error?.name === "SecurityError"
  ? new NoLeave("The browser has taken back its leave to work in this folder. Nothing was lost.") : error);

export class Folder {
  constructor(handle) { this.handle = handle; }

  get name() { return this.handle.name; }

  /** "granted", "prompt" or "denied". */
  async leave() { return this.handle.queryPermission ? this.handle.queryPermission({ mode: "readwrite" }) : "granted"; }

  /** Asks the person; only within a click. */
  async askLeave() { return this.handle.requestPermission ? this.handle.requestPermission({ mode: "readwrite" }) : "granted"; }

  async #within(path, create) {
    const segments = parts(path);
    const name = segments.pop();
    let at = this.handle;
    for (const segment of segments) at = await at.getDirectoryHandle(segment, { create });
    return [at, name];
  }

  /** The file, or nothing where none is. An empty one is none: an interrupted write leaves it, and it holds nothing. */
  async file(path) {
    try {
      const [at, name] = await this.#within(path, false);
      const file = await (await at.getFileHandle(name)).getFile();
      return file.size ? file : null;
    } catch (error) {
      if (MISSING.includes(error?.name)) return null;
      throw wrap(error);
    }
  }

  /** A stream into a file: what was there stays there until it is closed. */
  async writable(path) {
    try {
      const [at, name] = await this.#within(path, true);
      const handle = await at.getFileHandle(name, { create: true });
      return await handle.createWritable();
    } catch (error) {
      if (MISSING.includes(error?.name)) throw new TypeError(`At “${path}” something else lies on the desk.`);
      throw wrap(error);
    }
  }

  async remove(path) {
    try {
      const [at, name] = await this.#within(path, false);
      await at.removeEntry(name);
    } catch (error) {
      if (!MISSING.includes(error?.name)) throw wrap(error);
    }
  }

  /** Moves a file to a place where none lies. The first one goes only when the second is whole. */
  async move(from, to) {
    const file = await this.file(from);
    if (!file) throw new TypeError(`“${from}” is not there any more.`);
    if (await this.file(to)) throw new TypeError(`At “${to}” a file lies already.`);
    await file.stream().pipeTo(await this.writable(to));
    const there = await this.file(to);
    if (there?.size !== file.size) throw new TypeError(`“${from}” could not be copied whole; it stays where it is.`);
    await this.remove(from);
  }

  /** Sets a file aside under another name beside it; gives the path. */
  async aside(path) {
    const dot = path.lastIndexOf(".") > path.lastIndexOf("/") ? path.lastIndexOf(".") : path.length;
    for (let i = 1; ; i++) {
      const other = `${path.slice(0, dot)} (mine${i === 1 ? "" : ` ${i}`})${path.slice(dot)}`;
      if (await this.file(other)) continue;
      await this.move(path, other);
      return other;
    }
  }

  /** Calls when something in the folder changes; false where the browser cannot tell. */
  watch(changed) {
    if (!("FileSystemObserver" in self)) return false;
    new self.FileSystemObserver(() => changed()).observe(this.handle, { recursive: true }).catch(() => {});
    return true;
  }

  /** All files but hidden ones: path and handle, in no order. */
  async* files() {
    const open = [["", this.handle]];
    while (open.length) {
      const [path, at] = open.pop();
      try {
        for await (const [name, handle] of at.entries()) {
          if (name.startsWith(".") || name.endsWith(".crswap")) continue;
          if (handle.kind === "directory") open.push([`${path}${name}/`, handle]);
          else yield [path + name, handle];
        }
      } catch (error) {
        throw wrap(error);
      }
    }
  }
}

function database() {
  return new Promise((done, failed) => {
    const asked = indexedDB.open(DATABASE, 1);
    asked.onupgradeneeded = () => ["desks", "hashes"].forEach((store) => asked.result.createObjectStore(store));
    asked.onsuccess = () => done(asked.result);
    asked.onerror = () => failed(asked.error);
  });
}

async function stored(store, mode, act) {
  const db = await database();
  try {
    return await new Promise((done, failed) => {
      const request = act(db.transaction(store, mode).objectStore(store));
      request.onsuccess = () => done(request.result);
      request.onerror = () => failed(request.error);
    });
  } finally {
    db.close();
  }
}

/** What this browser remembers: the folders of a person's desks by name, and hashes of files that did not change. */
export const memory = {
  desks: (me) => stored("desks", "readonly", (s) => s.getAll(IDBKeyRange.bound([me], [me, []]))),
  keep: (me, name, handle) => stored("desks", "readwrite", (s) => s.put({ name, handle }, [me, name])),
  forget: async (me, name) => {
    await stored("desks", "readwrite", (s) => s.delete([me, name]));
    await stored("hashes", "readwrite", (s) => s.delete([me, name]));
  },
  hashes: (me, name) => stored("hashes", "readonly", (s) => s.get([me, name])),
  keepHashes: (me, name, hashes) => stored("hashes", "readwrite", (s) => s.put(hashes, [me, name])),
};
