// How documents stand on the desk of this browser, as it was last read: on the strip, and beside the rows of a structure.
import { el, glyph, svg } from "./dom.js";

export function begin(place) {
  const words = JSON.parse(localStorage.getItem("mint.words") ?? "null");
  if (!words || words.me !== document.body.dataset.me) return;
  if (place.dataset.pickTwo) onStrip(place, words);
  else place.querySelectorAll(".spine[data-id]").forEach((row) => besideRow(row, words));
}

/** The glyph stands at the version that lies on the desk. */
function onStrip(strip, words) {
  const id = strip.dataset.pickTwo.split("/")[2];
  const lies = words.words[id];
  const stop = lies && lies !== "absent" && strip.querySelector(`.strip a[data-version="${Number(words.versions?.[id])}"] .stop`);
  if (!stop) return;
  stop.after(svg("use", {
    href: `/static/glyphs.svg#desk-${/^[a-z]+$/.exec(lies)}`, class: "desk-glyph", x: Number(stop.getAttribute("x")) + 12, y: 43, width: 14, height: 14,
  }));
  stop.parentNode.setAttribute("aria-label", `${stop.parentNode.getAttribute("aria-label")}; on your desk ${words.desk}: ${lies}`);
}

function besideRow(row, words) {
  const word = words.words[row.dataset.id];
  if (!word || word === "absent") return;
  row.querySelector(".c-title")?.append(el("span", { class: "desk-word", title: `on the desk ${words.desk}` }, glyph(word), word));
}
