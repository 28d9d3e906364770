// How wide the columns of a list are: the edge of a heading is drawn, moved by the arrow keys (up and down go to the next), set back by a double click.
import { el } from "./dom.js";
import { sendBytes } from "./http.js";

const LEAST = 36;
const MOST = 600;
/** What is left for the titles, whatever the others take. */
const TITLES = 120;
const WIDE = window.matchMedia("(min-width: 901px)");

/** The tracks of a grid as a style sheet lists them: "6px minmax(200px, 1fr) 84px". */
export const tracks = (cols) => cols.trim().match(/[^\s(]+(?:\([^)]*\))?/g) ?? [];

/** "num:140 c-stage:90" as widths by column, and back. */
export const read = (text) => new Map(text.split(" ").filter(Boolean).map((one) => one.split(":")).map(([name, px]) => [name, Number(px)]));
export const write = (widths) => [...widths].map(([name, px]) => `${name}:${px}`).join(" ");

/** The tracks with the widths that somebody gave; the usual ones where they leave no room for the titles. */
export function widened(usual, names, widths, room, gap) {
  if (!names.some((name) => widths.has(name))) return usual;
  const fr = (track) => track.includes("fr");
  const least = (track) => parseInt(track.match(/\d+px/) ?? "0", 10);
  const own = usual.map((track, i) => {
    const px = widths.get(names[i]);
    if (fr(track)) return `minmax(${px ?? Math.min(TITLES, least(track))}px, 1fr)`;
    return px ? `${px}px` : track;
  });
  const fixed = own.reduce((sum, track) => sum + least(track), 0);
  return fixed + gap * (own.length - 1) <= room ? own : usual;
}

const nameOf = (head) => head.dataset.column ?? [...head.classList].find((c) => c.startsWith("c-")) ?? head.textContent.trim().toLowerCase().replace(/[^a-z]/g, "");

export function begin(list) {
  const head = list.querySelector(".row-head");
  const frame = list.closest(".with-peek");
  const widths = read(list.dataset.widths ?? "");
  const heads = [...head.querySelectorAll("[role=columnheader]")];
  const names = new Map(heads.map((one) => [one, nameOf(one)]));
  let sent = 0;

  function apply() {
    list.style.removeProperty("--cols");
    if (!WIDE.matches || !widths.size || frame?.classList.contains("open")) return;
    const shown = [...head.children].filter((cell) => getComputedStyle(cell).display !== "none");
    const usual = tracks(getComputedStyle(list).getPropertyValue("--cols"));
    if (usual.length < shown.length) return;
    const of = usual.map((track, i) => names.get(shown[i]) ?? "");
    const gap = parseInt(getComputedStyle(head).columnGap, 10) || 0;
    list.style.setProperty("--cols", widened(usual, of, widths, list.clientWidth, gap).join(" "));
  }

  function keep() {
    clearTimeout(sent);
    sent = setTimeout(() => sendBytes("/me/widths", "application/x-www-form-urlencoded",
      new URLSearchParams({ list: list.dataset.list, widths: write(widths) })).catch(() => {}), 300);
  }

  function set(cell, px) {
    const before = widths.get(names.get(cell));
    widths.set(names.get(cell), Math.round(Math.min(MOST, Math.max(LEAST, px))));
    apply();
    // What leaves the titles no room is not taken.
    if (!list.style.getPropertyValue("--cols") && !before) widths.delete(names.get(cell));
    edge(cell).setAttribute("aria-valuenow", Math.round(cell.getBoundingClientRect().width));
  }
  const edge = (cell) => cell.querySelector(".col-edge");
  const shownHeads = () => heads.filter((one) => getComputedStyle(one).display !== "none");

  heads.forEach((cell) => {
    const grip = el("span", { class: "col-edge", role: "separator", tabindex: cell === heads[0] ? 0 : -1, "aria-orientation": "vertical",
      "aria-label": `Width of ${cell.textContent.trim()}`, "aria-valuemin": LEAST, "aria-valuemax": MOST,
      "aria-valuenow": Math.round(cell.getBoundingClientRect().width), title: "Draw to widen; a double click sets it back" });
    cell.append(grip);
    grip.addEventListener("pointerdown", (event) => {
      event.preventDefault();
      event.stopPropagation();
      const from = event.clientX;
      const width = cell.getBoundingClientRect().width;
      grip.setPointerCapture(event.pointerId);
      const move = (moved) => set(cell, width + moved.clientX - from);
      grip.addEventListener("pointermove", move);
      grip.addEventListener("lostpointercapture", () => { grip.removeEventListener("pointermove", move); keep(); }, { once: true });
    });
    grip.addEventListener("dblclick", () => { widths.delete(names.get(cell)); apply(); keep(); });
    grip.addEventListener("keydown", (event) => {
      // One stop of the tab key for all of them: up and down go along.
      const to = { ArrowUp: -1, ArrowDown: 1 }[event.key];
      const other = to && shownHeads()[shownHeads().indexOf(cell) + to];
      if (other) {
        event.preventDefault();
        event.stopPropagation();
        grip.tabIndex = -1;
        edge(other).tabIndex = 0;
        edge(other).focus();
        return;
      }
      const by = { ArrowLeft: -10, ArrowRight: 10 }[event.key];
      if (!by) return;
      event.preventDefault();
      event.stopPropagation();
      set(cell, cell.getBoundingClientRect().width + by);
      keep();
    });
  });
  apply();
  WIDE.addEventListener("change", apply);
  new ResizeObserver(apply).observe(list.parentElement);
  if (frame) new MutationObserver(apply).observe(frame, { attributes: true, attributeFilter: ["class"] });
}
