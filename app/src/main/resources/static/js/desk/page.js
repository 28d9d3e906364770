// The desk page: how each file stands, one act a row, and bringing what was asked for.
import { el, glyph, plural } from "../dom.js";
import { api, post, Problem } from "../http.js";
import { send, sendAll, size } from "../upload.js";
import { bringPlan } from "./bring-plan.js";
import { can, Desk, desksHere } from "./desk.js";
import { memory, NoLeave } from "./folder.js";
import { versionSays } from "../plan.js";

const page = document.querySelector("[data-page=desk]");
const { me } = document.body.dataset;
const here = (name) => page.querySelector(`[data-${name}]`);
const ROWS = 100;

/** Sections, in the order in which they want a hand. */
const SECTIONS = [
  ["strayed", "Strayed", "changed here without a hold that lets it in"],
  ["ahead", "Ahead", "changed here, and held by you"],
  ["new", "New", "only here"],
  ["behind", "Behind", "unchanged here; the shelf has moved on"],
  ["absent", "Absent", "held by you, or brought here before; only the shelf has it"],
  ["set", "Set at a version", "an older one, on purpose"],
  ["even", "Even", "as the shelf has it"],
];
const first = (name) => name?.split(" ")[0] ?? "";
/** Files in one filing sheet or check-in; the rest waits for the next one. */
const AT_ONCE = 200;
const portion = (lines) => lines.slice(0, AT_ONCE);
const howMany = (lines, all = "all") => (lines.length > AT_ONCE ? `the first ${AT_ONCE}` : `${all} ${lines.length}`);
/** The folders that the places of all lines begin with. */
const common = (lines) => {
  const [first, ...others] = lines.map((l) => l.path.split("/").slice(0, -1));
  let same = first.length;
  others.forEach((o) => { while (first.slice(0, same).some((part, i) => part !== o[i])) same--; });
  return first.slice(0, same).join("/");
};

let desk = null;
let standings = [];
let reading = null;
const shown = {};
const channel = new BroadcastChannel("mint-desk");

function say(text, kind = "") {
  const box = here("says");
  box.hidden = !text;
  box.className = `say ${kind}`;
  box.replaceChildren(text);
}

function problem(error) {
  if (error instanceof NoLeave) { askLeave(error.message); return; }
  if (!(error instanceof Problem)) console.error(error);
  say(error instanceof Problem || error instanceof TypeError ? error.message : "Something went wrong on the desk; what lies there is untouched. Read it again.", "no");
}

/** The browser asks the person anew, after a click only. */
function askLeave(why = "The browser asks anew, each time that it was closed, whether this page may work in the folder.") {
  say("", "");
  here("leave").hidden = false;
  here("leave-why").textContent = why;
}

function progress(text, value, max) {
  const box = here("progress");
  box.hidden = !text;
  box.replaceChildren(el("div", {}, text ?? ""), ...(max ? [el("progress", { max, value, "aria-label": "How far it is" })] : []));
}

async function read() {
  progress("Reading the desk");
  try {
    standings = await desk.status((p) => progress(`Reading the desk: ${plural(p.files, "file")}, ${size(p.bytes)} hashed`));
    here("leave").hidden = true;
    draw();
  } finally {
    progress();
  }
}

/** What was brought by itself, or could not be: once for each version, so that nothing goes in a ring. */
const cameBy = new Set();

/** What comes to every desk of its shelf is kept even, unless it was changed here. */
async function keepEven() {
  const due = standings.filter((s) => s.comes && ["absent", "behind"].includes(s.word) && !cameBy.has(`${s.document} ${s.gets}`));
  if (!due.length || page.classList.contains("at-work")) return;
  due.forEach((s) => cameBy.add(`${s.document} ${s.gets}`));
  let came = [];
  await navigator.locks.request(desk.lock, { ifAvailable: true }, async (lock) => { if (lock) came = await bringAll(due.map(toBring)); });
  progress();
  if (!came.length) return;
  const names = came.map((one) => one.path.split("/").pop());
  // What was said of an act of one's own is not talked over.
  if (here("says").hidden) say(`${names.slice(0, 3).join(", ")}${names.length > 3 ? ` and ${names.length - 3} more` : ""} ${names.length === 1 ? "comes" : "come"} to every desk of the shelf and ${names.length === 1 ? "was" : "were"} brought.`);
  await read();
}

/** One reading at a time; what is asked for meanwhile is done once, after it. */
function refresh() {
  if (reading) { reading.again = true; return reading.done; }
  const now = { again: false };
  reading = now;
  now.done = (async () => {
    try {
      if (await desk.folder.leave() !== "granted") { askLeave(); return; }
      await read();
      await keepEven();
    } catch (error) {
      problem(error);
    } finally {
      reading = null;
      if (now.again) refresh();
    }
  })();
  return now.done;
}

/** Runs an act alone among the tabs of this browser, on a desk that was read afresh. */
async function act(work) {
  try {
    if (await desk.folder.leave() !== "granted") { askLeave(); return; }
    say("");
    await navigator.locks.request(desk.lock, { ifAvailable: true }, async (lock) => {
      if (!lock) throw new Problem("Another tab is at work on this desk. Try again when it is done; nothing was done here.");
      page.classList.add("at-work");
      try {
        await reading?.done;
        await read();
        await work();
      } finally {
        page.classList.remove("at-work");
        progress();
      }
    });
  } catch (error) {
    problem(error);
  }
  await refresh();
  channel.postMessage("done");
}

/** The line as it is now; an act on what has changed its word meanwhile is not done. */
function again(line) {
  const now = standings.find((s) => (line.document ? s.document === line.document : s.path === line.path));
  if (!now || now.word !== line.word || now.sha256 !== line.sha256) {
    throw new Problem(`${line.number ?? line.path} is ${now?.word ?? "gone"} by now, no longer ${line.word}. Nothing was done; look again.`);
  }
  return now;
}

/** Brings versions in turn; gives those that came. */
async function bringAll(rows) {
  const came = [];
  const kept = [];
  try {
    for (const row of rows) {
      const at = came.length + kept.length;
      progress(`Bringing ${row.path}`, at, rows.length);
      const ok = await desk.bring(row.document, row.version, row.path, row.expect,
        (p) => progress(`Bringing ${row.path}, ${size(p.received)} of ${size(p.total)}`, at + p.received / p.total, rows.length));
      if (ok) came.push({ document: row.document, version: row.version, path: row.path, onPurpose: row.onPurpose === true, ...(row.line ? { line: row.line } : {}) });
      else kept.push(row.path);
    }
  } finally {
    await desk.note(came); // what came stays, whatever happened to the others
  }
  if (kept.length) say(`${kept.join(", ")} was changed meanwhile and stays as it is.`, "note");
  return came;
}

const toBring = (line) => ({ document: line.document, line: line.line, version: line.gets, path: line.path, expect: line.sha256 });

/** What a document is called on its line: "TG40-2010", "TG40-2010 t1". */
const called = (line) => (line.line ? `${line.number} ${line.line}` : line.number);
const checkIn = (line) => (line.trial ? `/check-in?trial=${line.trial}` : `/check-in?items=${line.document}`);

/** Work that is in no version goes to the shelf as a stray, whatever happens next. */
async function keepAsStray(line, why) {
  const file = await desk.folder.file(line.path);
  progress(`Keeping ${line.path} as a stray`);
  const upload = await send(file, () => {});
  if (await desk.look(line.path) !== line.sha256) throw new Problem(`${line.path} was changed while it was sent. Nothing was done; look again.`);
  const [became] = await api("POST", "/check-ins", { rows: [{ document: line.document, upload, hold: 0 }], comment: why, desk: "" });
  return became;
}

const WAYS = {
  stray: ["Keep it as a stray", async (line) => {
    const became = await keepAsStray(line, "");
    say(el("span", {}, became.what === "stray" ? "It is kept as a stray beside its document. " : "The shelf has these bytes already. ",
      became.what === "stray" ? el("a", { href: `/strays/${became.number}` }, "Look at it") : ""));
  }],
  aside: ["Set mine aside, bring the shelf's", async (line) => {
    const to = await desk.folder.aside(line.path);
    await bringAll([{ ...toBring(line), expect: null }]);
    say(`Yours lies beside it as “${to.split("/").pop()}”.`);
  }],
  replace: ["Replace with the shelf's; mine becomes a stray", async (line) => {
    await keepAsStray(line, "replaced on the desk by the shelf's");
    await bringAll([toBring(line)]);
    say("The shelf's lies there now; yours is kept as a stray.");
  }],
};

async function derived(line) {
  const file = await desk.folder.file(line.path);
  const dot = file.name.lastIndexOf(".");
  const name = dot > 0 ? `${file.name.slice(0, dot)} derived${file.name.slice(dot)}` : `${file.name} derived`;
  post(`/shelves/${line.shelf}/filings`, { folder: line.folder, uploads: await send(file, (n) => progress(`Sending ${file.name}`, n, file.size), name), derived: line.document });
}

/** Files that are only here go to the filing sheet of their folder, together. */
async function fileNew(lines) {
  const sent = new Set();
  const results = await sendAll(lines.map((line) => () => desk.folder.file(line.path)), (i, n) => {
    if (n) sent.add(i);
    progress(`Sending ${lines[i].path}`, sent.size, lines.length);
  });
  const failed = results.find((one) => one.error);
  if (failed) throw failed.error;
  post(`/shelves/${lines[0].shelf}/filings`, { folder: lines[0].folder, uploads: results.map((one) => one.token) });
}

async function take(lines) {
  const [{ line, trial }] = lines;
  const documents = lines.filter((l) => l.trial === trial).map((l) => l.document);
  await api("POST", "/holds", { documents, desk: desk.name, purpose: "", ...(line ? { line } : {}) });
  location.href = trial ? `/check-in?trial=${trial}` : `/check-in?items=${documents.join(",")}`;
}

/** The one proposed act of a row. */
function proposed(line) {
  const button = (text, work) => el("button", { type: "button", class: "btn btn-line btn-sm", onclick: () => act(() => work(again(line))) }, text);
  const link = (text, href) => el("a", { class: "btn btn-line btn-sm", href }, text);
  switch (line.act) {
    case "bring": return button(line.gets ? `Bring ${versionSays(line.gets)}` : "Bring it", (now) => bringAll([toBring(now)]));
    case "check-in": return link("Check in…", checkIn(line));
    case "take": return button("Take it now…", (now) => take([now]));
    case "ask": if (line.trial) return link(`Ask ${first(line.heldBy)}…`, `/trials/${line.trial}`); return button(`Ask ${first(line.heldBy)} for it`, async (now) => {
      await api("POST", `/documents/${now.document}/ask`, { message: "" });
      say(`${now.heldBy} was asked for ${now.number}. Your file stays as it is.`);
    });
    case "start": return link("Start the next revision with it…", `/start-revision?items=${line.document}&desk=true`);
    case "compare": return link("Compare with the shelf's…", line.trial ? `/trials/${line.trial}` : checkIn(line));
    case "file": return line.shelf ? button("File it…", (now) => fileNew([now])) : el("span", { class: "quiet" }, "lies beside the shelves' folders");
    default: return "";
  }
}

/** What else may be done with a row. */
function more(line) {
  const drop = el("div", { class: "drop" });
  const button = (text, work) => drop.append(el("button", { type: "button", onclick: () => act(() => work(again(line))) }, text));
  const link = (text, href) => drop.append(el("a", { href }, text));
  const changed = ["ahead", "strayed"].includes(line.word);
  if (changed && line.act !== "compare") link("Compare with the shelf's", line.trial && !line.hold ? `/trials/${line.trial}` : checkIn(line));
  if (changed) Object.values(WAYS).forEach(([text, work]) => button(text, work));
  if (changed) button(`File it as a new document derived from ${line.number}`, derived);
  if (line.belongs) button(`Put it where it belongs: ${line.belongs}`, (now) => putRight(now));
  if (page.dataset.practice === "true" && line.sha256 && /\.dxf$/i.test(line.path)) link("Change it at the practice seat", `/practice?path=${encodeURIComponent(line.path)}`);
  if (["even", "behind", "set"].includes(line.word)) button("Clear it off my desk", (now) => clear([now]));
  if (line.word === "absent" && line.base && !line.comes) button("It is not to be on this desk", (now) => desk.cleared([now.document]));
  if (!drop.childElementCount) return "";
  return el("details", { class: "more" }, el("summary", { class: "btn btn-plain btn-sm", "aria-label": `More for ${line.document ? called(line) : line.path}` }, "More"), drop);
}

async function putRight(line) {
  await desk.folder.move(line.path, line.belongs);
  if (line.had) await desk.note([{ document: line.document, version: line.had, path: line.belongs, onPurpose: line.word === "set", ...(line.line ? { line: line.line } : {}) }]);
}

async function clear(lines) {
  for (const line of lines) await desk.folder.remove(line.path);
  await desk.cleared(lines.map((l) => l.document));
  const back = lines.map((l) => ({ ...toBring(l), version: l.had ?? l.gets, expect: null, onPurpose: l.word === "set" }));
  say(el("span", {}, `${plural(lines.length, "file was", "files were")} cleared off the desk. `,
    el("button", { type: "button", class: "btn btn-plain btn-sm", onclick: () => act(() => bringAll(back)) }, "Take back")));
}

function row(line) {
  const slash = line.path.lastIndexOf("/") + 1;
  return el("div", { class: "desk-row", "data-line": line.path, "data-word": line.word },
    el("span", { class: "desk-word" }, glyph(line.word), line.word === "set" ? `set at ${versionSays(line.had)}` : line.word),
    el("span", { class: "desk-file" }, el("span", { class: "quiet" }, line.path.slice(0, slash)), line.path.slice(slash),
      line.comes ? el("small", { class: "quiet d-block" }, "comes to every desk of its shelf") : null,
      line.belongs ? el("small", { class: "amber d-block" }, `lies in the wrong place; belongs at ${line.belongs}`) : null),
    line.document ? el("span", { class: "desk-doc" }, el("a", { class: "mono", href: line.line ? `/documents/${line.document}/lines/${line.line}` : `/documents/${line.document}` }, called(line)), " ",
      el("span", { class: `tab ${["preparing", "deciding"].includes(line.stageClass) ? "pending" : line.stageClass}` }, line.revision), " ", el("span", { class: "quiet" }, line.title),
      el("small", { class: "quiet d-block" }, (line.line ? "on a trial" : line.stage) + (line.heldBy && !line.hold ? `, held by ${line.heldBy}` : ""), line.remarks ? el("a", { class: "flag", href: `/documents/${line.document}/remarks` }, ` · ${line.remarks} open ${line.remarks === 1 ? "remark" : "remarks"}`) : null)) : el("span"),
    el("span", { class: "mono" }, line.document ? (line.had && line.had !== line.gets ? `${versionSays(line.had)} of ${versionSays(line.gets)}` : versionSays(line.gets)) : ""),
    el("span", { class: "desk-acts" }, proposed(line), more(line)));
}

/** One answer for a whole section, where one answer does. */
function forAll(word, lines) {
  const acts = [];
  const button = (text, work) => acts.push(el("button", { type: "button", class: "btn btn-line btn-sm", onclick: () => act(work) }, text));
  // Each trial is taken and checked in by itself, on its rows.
  const taking = lines.filter((l) => l.act === "take" && !l.trial);
  const ahead = lines.filter((l) => !l.trial);
  if (word === "ahead" && ahead.length > 1) acts.push(el("a", { class: "btn btn-line btn-sm", href: `/check-in?items=${portion(ahead).map((l) => l.document).join(",")}` }, `Check in ${howMany(ahead)}…`));
  if (taking.length > 1) button(`Take ${howMany(taking)} now…`, () => take(portion(taking).map(again)));
  if (word === "strayed" && lines.length > 1) {
    button(`Keep all ${lines.length} as strays`, async () => {
      for (const line of lines) await WAYS.stray[1](again(line));
      say(`${lines.length} files are kept as strays beside their documents.`);
    });
  }
  if (word === "new") {
    const folders = Map.groupBy ? [...Map.groupBy(lines.filter((l) => l.shelf), (l) => `${l.shelf}/${l.folder}`).values()] : [];
    folders.filter((f) => f.length > 1).slice(0, 3).forEach((f) => button(`File ${howMany(f, "the")} of ${common(f)}…`, () => fileNew(portion(f).map(again))));
  }
  if (["behind", "absent"].includes(word) && lines.length > 1) button(`Bring all ${lines.length}`, () => bringAll(lines.map(again).map(toBring)));
  return acts;
}

function section([word, title, means]) {
  const lines = standings.filter((s) => s.word === word);
  if (!lines.length) return null;
  const most = shown[word] ?? (word === "even" ? 0 : ROWS);
  const left = lines.length - Math.min(most, lines.length);
  const next = Math.min(left, ROWS);
  return el("section", { "aria-label": title, "data-section": word },
    el("div", { class: "desk-head" }, glyph(word), el("h2", {}, `${title} `, el("b", {}, lines.length.toLocaleString("en"))), el("span", { class: "quiet" }, means),
      el("span", { class: "ms-auto desk-acts" }, ...forAll(word, lines))),
    lines.length > left ? el("div", { class: "card-ours" }, ...lines.slice(0, most).map(row)) : null,
    left ? el("button", { type: "button", class: "btn btn-plain btn-sm", onclick: () => { shown[word] = most + ROWS; draw(); } },
      most ? `Show ${next} more of ${left.toLocaleString("en")}` : `Show ${left <= ROWS ? (left === 1 ? "it" : "them") : `the first ${ROWS}`}`) : null);
}

let drawn = "";

/** Draws the sections; what did not change stays as it is, and so does where the keyboard stands. */
function draw() {
  const now = JSON.stringify([standings, shown]);
  if (now !== drawn) {
    drawn = now;
    const at = document.activeElement?.closest("[data-line]")?.dataset.line;
    const on = document.activeElement?.textContent;
    const open = page.querySelector("details[open].more")?.closest("[data-line]")?.dataset.line;
    here("sections").replaceChildren(...SECTIONS.map(section).filter(Boolean));
    here("sections").querySelectorAll("[data-line]").forEach((line) => {
      if (line.dataset.line === open) line.querySelector("details.more")?.setAttribute("open", "");
      if (line.dataset.line === at) [...line.querySelectorAll("a, button, summary")].find((e) => e.textContent === on)?.focus();
    });
  }
  const files = standings.filter((s) => s.sha256).length;
  const count = (word) => standings.filter((s) => s.word === word).length;
  const parts = SECTIONS.map(([word]) => [count(word), word]).filter(([n]) => n).map(([n, word]) => `${n.toLocaleString("en")} ${word}`);
  here("sum").textContent = `${plural(files, "file")}: ${parts.join(", ") || "nothing here yet"}. Read at ${new Date().toLocaleTimeString("en-GB", { hour: "2-digit", minute: "2-digit", second: "2-digit" })}.`
    + (standings.skipped?.length ? ` ${plural(standings.skipped.length, "file is", "files are")} being written to and will be seen with the next reading.` : "");
  const coming = standings.filter((s) => s.act === "bring");
  here("update").hidden = !coming.length;
  here("update").textContent = `Bring the desk up to date (${coming.length})`;
  here("bare").hidden = standings.length > 0;
}

async function open(name) {
  const all = await desksHere(me);
  desk = all.find((d) => d.name === name) ?? all[0] ?? null;
  here("none").hidden = desk !== null || !canAny();
  here("cannot").hidden = desk !== null || canAny();
  here("desk").hidden = desk === null;
  if (!desk) return;
  localStorage.setItem("mint.desk", desk.name);
  here("name").textContent = desk.name;
  here("folder").textContent = `folder “${desk.folder.name}”`;
  const others = all.filter((d) => d !== desk);
  here("others").replaceChildren(...others.map((d) => el("button", { type: "button", onclick: () => { location.href = `/desk?desk=${encodeURIComponent(d.name)}`; } }, `Go to ${d.name}`)));
  let soon;
  desk.folder.watch(() => { clearTimeout(soon); soon = setTimeout(() => { if (!page.classList.contains("at-work")) refresh(); }, 600); });
  await refresh();
  if (!here("leave").hidden) return;
  await bringPlan(desk, () => standings, { page, act, bringAll, ways: WAYS, say });
}

const canAny = () => can() || (page.dataset.practice === "true" && "indexedDB" in window && navigator.storage?.getDirectory);

async function adopt(handle, name) {
  await api("PUT", `/desks/${encodeURIComponent(name)}`);
  await memory.keep(me, name, handle);
  localStorage.setItem("mint.desk", name);
  await open(name);
}

async function choose() {
  let handle;
  try {
    handle = await window.showDirectoryPicker({ id: "mint-desk", mode: "readwrite" });
  } catch (error) {
    if (error.name === "AbortError") return;
    problem(error);
    return;
  }
  try {
    for (const known of await desksHere(me)) {
      if (await known.folder.handle.isSameEntry(handle)) { await open(known.name); return; }
    }
    const taken = (await desksHere(me)).map((d) => d.name);
    let name = handle.name || "desk";
    for (let i = 2; taken.includes(name); i++) name = `${handle.name} ${i}`;
    await adopt(handle, name);
  } catch (error) {
    problem(error);
  }
}

page.addEventListener("click", async (event) => {
  const button = event.target.closest("button");
  if (!button) return;
  if (button.matches("[data-choose-folder]")) choose();
  if (button.matches("[data-practice-folder]")) {
    try {
      await adopt(await (await navigator.storage.getDirectory()).getDirectoryHandle("practice desk", { create: true }), "practice desk");
    } catch (error) { problem(error); }
  }
  if (button.matches("[data-read]")) refresh();
  if (button.matches("[data-update]")) act(() => bringAll(standings.filter((s) => s.act === "bring").map(toBring)));
  if (button.matches("[data-allow]")) {
    try {
      if (await desk.folder.askLeave() === "granted") { here("leave").hidden = true; await open(desk.name); }
      else here("leave-why").textContent = "The browser was told not to. Change it at the sign left of the address, or choose the folder again.";
    } catch (error) { problem(error); }
  }
  if (button.matches("[data-forget]")) {
    await memory.forget(me, desk.name);
    location.href = "/desk";
  }
});
channel.onmessage = () => { if (desk && !page.classList.contains("at-work")) refresh(); };
document.addEventListener("visibilitychange", () => { if (!document.hidden && desk && here("leave").hidden && !page.classList.contains("at-work")) refresh(); });
open(new URLSearchParams(location.search).get("desk")).catch(problem);
