// The practice seat: picks places on the sheet, asks for the change, keeps the ways back, saves to the desk's real file.
import { deskFor } from "./desk/here.js";
import { sendBytes } from "./http.js";

const page = document.querySelector("[data-page=practice]");
const here = (name) => page.querySelector(`[data-${name}]`);
const field = (id) => document.getElementById(id);
const sheet = here("sheet");
const HINTS = {
  resize: "Pick a circle on the sheet.",
  drill: "Pick the place of the new hole.",
  plug: "Pick the circle that is to go.",
  pull: "Draw a window over what is to be pulled: two corners, picked or dragged.",
  retext: "Write the new words, then pick the text.",
  point: "Choose a reference and write its new path.",
};
const REACH = 9;

let desk = null;
let opened = null;
const states = [];
let corner = null;

const now = () => states[states.length - 1];
const act = () => page.querySelector("input[name=act]:checked").value;
const say = (text, kind = "") => { here("says").textContent = text; here("says").className = `say ${kind}`; };

async function ask(address, bytes) {
  const answer = await sendBytes(address, "application/octet-stream", bytes);
  const said = await answer.json().catch(() => ({}));
  if (!answer.ok) throw new TypeError([said.detail, said.remedy].filter(Boolean).join(" ") || "It could not be done. Nothing was changed.");
  return said;
}

function draw() {
  const picture = new DOMParser().parseFromString(now().svg, "image/svg+xml").documentElement;
  sheet.replaceChildren(document.importNode(picture, true));
  const done = states.slice(1);
  here("log").replaceChildren(...done.map((s) => Object.assign(document.createElement("li"), { textContent: s.says })));
  here("clean").hidden = done.length > 0;
  here("save").disabled = done.length === 0;
  here("back-one").disabled = done.length === 0;
  const before = field("from").value;
  field("from").replaceChildren(...now().references.map((r) => new Option(r, r, false, r === before)));
  field("act-point").disabled = now().references.length === 0;
}

async function change(fields) {
  sheet.setAttribute("aria-busy", "true");
  try {
    const said = await ask(`/practice/change?${new URLSearchParams({ act: act(), ...fields })}`, now().data);
    const data = Uint8Array.from(atob(said.bytes), (c) => c.charCodeAt(0));
    states.push({ svg: said.svg, references: said.references, says: said.says, data });
    say(said.says);
    draw();
  } catch (error) {
    say(error instanceof TypeError ? error.message : "It could not be done. Nothing was changed.", "no");
  } finally {
    sheet.removeAttribute("aria-busy");
  }
}

/** Where an event lies on the sheet, in drawing units. */
function at(event) {
  const svg = sheet.querySelector("svg");
  const p = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
  return { x: p.x, y: -p.y, reach: REACH / svg.getScreenCTM().a };
}

function band(a, b) {
  let box = sheet.querySelector("[data-band]");
  if (!box) {
    box = document.createElementNS("http://www.w3.org/2000/svg", "rect");
    box.dataset.band = "";
    sheet.querySelector("svg").append(box);
  }
  const set = { x: Math.min(a.x, b.x), y: -Math.max(a.y, b.y), width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y), fill: "#74358f", "fill-opacity": 0.12, stroke: "#74358f", "vector-effect": "non-scaling-stroke" };
  Object.entries(set).forEach(([name, value]) => box.setAttribute(name, value));
}

sheet.addEventListener("pointerdown", (event) => {
  if (!states.length || act() !== "pull" || corner) return;
  corner = at(event);
  band(corner, corner);
});
sheet.addEventListener("pointermove", (event) => { if (corner) band(corner, at(event)); });
sheet.addEventListener("pointerup", (event) => {
  if (!states.length || act() === "point") return;
  const p = at(event);
  if (act() === "pull") {
    if (!corner || Math.hypot(p.x - corner.x, p.y - corner.y) < p.reach / 3) return; // the first of two corners
    const from = corner;
    corner = null;
    sheet.querySelector("[data-band]")?.remove();
    change({ x: from.x, y: from.y, x2: p.x, y2: p.y, dx: field("dx").value || 0, dy: field("dy").value || 0 });
    return;
  }
  change({ ...p, diameter: field("diameter").value || 0, text: field("words").value });
});
page.addEventListener("keydown", (event) => {
  if (event.key === "Escape" && corner) { corner = null; sheet.querySelector("[data-band]")?.remove(); }
  if (event.key === "z" && (event.ctrlKey || event.metaKey) && states.length > 1) { event.preventDefault(); takeBack(); }
});
page.querySelectorAll("input[name=act]").forEach((radio) => radio.addEventListener("change", () => {
  page.querySelectorAll("[data-for]").forEach((box) => { box.hidden = !box.dataset.for.split(" ").includes(act()); });
  here("hint").textContent = HINTS[act()];
  corner = null;
  sheet.querySelector("[data-band]")?.remove();
}));

function takeBack() {
  states.pop();
  say("Taken back.");
  draw();
}

async function save() {
  here("save").disabled = true;
  try {
    if (await desk.look(page.dataset.path) !== opened) throw new TypeError("The file on the desk was changed by something else since it was opened here. It stays as it is; open it again.");
    const out = await desk.folder.writable(page.dataset.path);
    await out.write(now().data);
    await out.close();
    opened = await desk.look(page.dataset.path);
    states.splice(0, states.length, now());
    draw();
    say("Saved to the desk. It is ahead of the shelf when you hold it, else it has strayed.");
  } catch (error) {
    say(error.message, "no");
    here("save").disabled = false;
  }
}

here("back-one").addEventListener("click", takeBack);
here("save").addEventListener("click", save);
here("point").addEventListener("click", () => change({ from: field("from").value, text: field("to").value.trim() }));
window.addEventListener("beforeunload", (event) => { if (states.length > 1) event.preventDefault(); });

(async () => {
  desk = await deskFor();
  if (!desk) { say("No desk of this browser is open. Open it on the page Desk first.", "no"); return; }
  const file = await desk.folder.file(page.dataset.path);
  if (!file) { say("The file is not on the desk any more.", "no"); return; }
  opened = await desk.look(page.dataset.path);
  const data = new Uint8Array(await file.arrayBuffer());
  const shown = await ask("/practice/show", data);
  states.push({ svg: shown.svg, references: shown.references, says: "", data });
  draw();
  say(`${file.name} as it lies on your desk ${desk.name}.`);
})().catch((error) => say(error.message, "no"));
