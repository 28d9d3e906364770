// What other pages ask of the desk of this browser.
import { Desk, desksHere } from "./desk.js";
import { memory } from "./folder.js";

/** The desk worked on last, when the browser may write in its folder now. */
export async function deskFor() {
  const me = document.body.dataset.me;
  if (!("indexedDB" in window) || !me) return null;
  const desk = (await desksHere(me))[0];
  return desk && await desk.folder.leave().catch(() => "denied") === "granted" ? desk : null;
}

const CLEAR = "mint.clear";

/** What is to leave the desk once the shelf has it. */
export function clearLater(desk, files) {
  if (files.length) sessionStorage.setItem(CLEAR, JSON.stringify({ me: desk.me, name: desk.name, files }));
  else sessionStorage.removeItem(CLEAR);
}

/** Clears files off the desk whose documents took them; one that changed since stays. Gives how many went. */
export async function clearNow(documents) {
  const asked = JSON.parse(sessionStorage.getItem(CLEAR) ?? "null");
  sessionStorage.removeItem(CLEAR);
  const known = asked && (await memory.desks(asked.me)).find((d) => d.name === asked.name);
  if (!known) return 0;
  const desk = new Desk(asked.me, asked.name, known.handle);
  const gone = [];
  for (const file of asked.files.filter((f) => documents.includes(f.document))) {
    if (await desk.look(file.path) !== file.sha256) continue;
    await desk.folder.remove(file.path);
    gone.push(file.document);
  }
  await desk.cleared(gone);
  return gone.length;
}

/** The copy on the desk follows what became of its document; gives what became of the copy, or nothing where there is none. */
export async function follow(item, version, path) {
  const desk = await deskFor();
  const line = desk && (await desk.status()).find((s) => s.document === item);
  if (!line?.sha256 || line.line) return null; // a copy of a trial follows its own line
  const name = await arrive(item, version, path);
  return name
    ? `Your desk ${name} has it too: ${path}`
    : `The copy on your desk ${desk.name} was changed there and stayed as it is; the desk page says what can be done.`;
}

/** What was checked out comes to the desk; gives its name, or nothing where it could not lie down there. */
export async function arrive(item, version, path) {
  const desk = await deskFor();
  if (!desk) return null;
  const line = (await desk.status()).find((s) => s.document === item);
  // Who holds it on a trial goes on with that: the copy of the trial stays.
  const free = !line?.sha256 || (["even", "behind", "set"].includes(line.word) && !(line.line && line.hold));
  if (!free || !await desk.bring(item, version, path, line?.sha256)) return null;
  await desk.note([{ document: item, version: String(version), path, onPurpose: false }]);
  return desk.name;
}
