// Measuring on the sheet, between the places that snap.js finds.
import { el, letters, svg } from "./dom.js";
import { angleBetween, build, nearest, number, offLine } from "./snap.js";

const REACH = 14;

export function measure(element, view) {
  const bar = document.querySelector("[data-measure]");
  if (!bar) return null;
  const button = bar.querySelector("[data-measure-on]");
  const list = document.querySelector("[data-measured]");
  const ruler = svg("svg", { class: "ruler", "aria-hidden": "true" });
  const only = () => new Set([...bar.querySelectorAll("[data-pick]:checked")].map((box) => box.dataset.pick));
  let on = false;
  let index = null;
  let scale = 1;
  let picked = null;
  let chain = [];
  const found = [];

  const load = async () => {
    const answer = await fetch(bar.dataset.measure);
    if (!answer.ok) throw new Error(String(answer.status));
    const geometry = await answer.json();
    scale = geometry.scale;
    index = build(geometry, view.fit);
  };
  const turn = async (wanted) => {
    on = wanted;
    button.setAttribute("aria-pressed", on);
    element.classList.toggle("measuring", on);
    bar.querySelector("details").hidden = !on;
    if (!on) { picked = null; chain = []; draw(); return; }
    element.append(ruler);
    if (!index) {
      button.textContent = "Reading the lines";
      try { await load(); } catch { button.textContent = "Measure"; say("The lines could not be read. Try again."); on = false; return; }
      button.textContent = "Measure";
    }
    if (!found.length) say("Pick two places, or two lines for their angle. A tap on a circle takes its centre. Escape begins anew.");
  };
  const say = (text) => {
    list.hidden = false;
    list.replaceChildren(el("li", {}, text));
  };

  button.addEventListener("click", () => turn(!on));
  element.addEventListener("keydown", (event) => {
    if (event.key === "d" && !event.ctrlKey && !event.metaKey && letters()) turn(!on);
    if (!on) return;
    if (event.key === "Escape") { if (chain.length) chain = []; else turn(false); draw(); }
    if (event.key === "Enter") { chain = []; draw(); }
  });
  element.addEventListener("pointermove", (event) => {
    if (!on || !index || event.buttons) return;
    picked = pick(event);
    draw();
  });
  element.addEventListener("pointerleave", () => { picked = null; draw(); });

  const pick = (event) => {
    const p = view.at(event.clientX, event.clientY);
    return nearest(index, p.x, -p.y, REACH * p.k, only());
  };
  const tap = (event) => {
    if (!on || !index) return;
    const place = pick(event);
    if (!place) {
      tell([...found.slice(-7), "Nothing to measure there: point at an end, a middle, a centre or a line."]);
      return;
    }
    if (chain.length && place.x === chain[chain.length - 1].x && place.y === chain[chain.length - 1].y) return;
    chain.push(place);
    if (place.r) found.push({ text: `⌀ ${number((2 * place.r) / scale)}, R ${number(place.r / scale)}`, at: (2 * place.r) / scale });
    if (chain.length > 1) {
      const [a, b] = chain.slice(-2);
      const apart = a.line || b.line ? null : Math.hypot(b.x - a.x, b.y - a.y) / scale;
      found.push({ text: between(a, b), at: apart });
      if (chain.length > 2 && !chain.some((place) => place.line)) found.push(`chain of ${chain.length - 1}: ${number(total() / scale)}`);
    }
    tell(found.slice(-8));
    draw();
  };
  const tell = (texts) => {
    list.hidden = texts.length === 0;
    // What was measured last may be a size that the library has.
    list.replaceChildren(...texts.map((one, i) => el("li", {}, one.text ?? one,
      one.at && i === texts.length - 1 ? el("a", { class: "ms-2", href: `/sizes?at=${one.at.toFixed(3)}` }, "Sizes in the library") : "")));
  };
  const lines = (a, b) => {
    const angle = angleBetween(a, b);
    if (angle < 1e-4) return `parallel, ${number(offLine(a, b.x1, b.y1) / scale)} apart`;
    return `${number(angle)}° between the lines, ${number(180 - angle)}° on the other side`;
  };
  const total = () => chain.slice(1).reduce((sum, b, i) => sum + Math.hypot(b.x - chain[i].x, b.y - chain[i].y), 0);
  const between = (a, b) => {
    if (a.line && b.line) return lines(a.line, b.line);
    if (a.line || b.line) {
      const [line, place] = a.line ? [a.line, b] : [b.line, a];
      return `${number(offLine(line, place.x, place.y) / scale)} from the line, square to it`;
    }
    const dx = (b.x - a.x) / scale;
    const dy = (b.y - a.y) / scale;
    const angle = (Math.atan2(dy, dx) * 180) / Math.PI;
    return `${number(Math.hypot(dx, dy))} · across ${number(Math.abs(dx))} · up ${number(Math.abs(dy))} · ${number(angle)}°${a.r && b.r ? " between centres" : ""}`;
  };

  function draw() {
    const parts = [];
    const mark = (place, word) => {
      const p = view.from(place.x, -place.y);
      parts.push(["circle", { cx: p.x, cy: p.y, r: 7 }], ["circle", { cx: p.x, cy: p.y, r: 1.5, class: "dot" }]);
      if (word) parts.push(["text", { x: p.x + 11, y: p.y - 9 }, word]);
      return p;
    };
    const points = chain.map((place) => mark(place));
    if (on && picked) {
      const p = mark(picked, picked.kind);
      if (points.length) points.push(p);
    }
    for (let i = 1; i < points.length; i++) parts.push(["line", { x1: points[i - 1].x, y1: points[i - 1].y, x2: points[i].x, y2: points[i].y }]);
    ruler.replaceChildren(...parts.map(([name, attributes, text]) => svg(name, attributes, text)));
  }
  return { tap, draw, off: () => { if (on) turn(false); } };
}
