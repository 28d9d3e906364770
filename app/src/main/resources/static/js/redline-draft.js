// A mark while it is drawn: points on the sheet (y upwards, as in the file), step by step, with a way back for every step.
import { svg } from "./dom.js";
import { build, nearest, number } from "./snap.js";

const REACH = 14;
const HOW = {
  cloud: "Cloud: draw a box round it, or tap a hole, an edge or a text.",
  "arrow-note": "Arrow note: pick what it points at, then where the words stand.",
  note: "Note: tap where it stands.",
  size: "Size: pick two places, then where the words stand.",
  ink: "Ink: draw; lift and draw on. Finish when it is done.",
  highlight: "Highlight: draw a box over it, or tap a text.",
  stamp: "Stamp: tap where it stands.",
};
const NEEDS = { cloud: 2, highlight: 2, "arrow-note": 2, note: 1, size: 3, stamp: 1, ink: 2 };
const BOXED = new Set(["cloud", "highlight"]);

export function drafts(view, geometry, only) {
  const layer = svg("svg", { class: "drawing over draft", "aria-hidden": "true", viewBox: "0 0 1 1" });
  let say = () => {};
  let changed = () => {};
  let tool = null;
  let strokes = [];
  let colour = "#a93226";
  let index = null;
  let lines = null;
  let under = null;
  let back = [];
  let forth = [];
  let down = null;

  const load = async () => {
    if (index) return;
    try {
      lines = await geometry();
      index = build(lines, view.fit);
    } catch { say("The lines could not be read: what you draw does not snap to them."); }
  };
  const copy = () => strokes.map((stroke) => stroke.map((p) => ({ ...p })));
  const step = () => { back.push(copy()); forth = []; };
  const points = () => strokes[0] || [];
  const complete = () => (tool === "ink" ? strokes.some((s) => s.length >= 2) : points().length >= (NEEDS[tool] || 99));
  const at = (event) => { const p = view.at(event.clientX, event.clientY); return { x: p.x, y: -p.y, k: p.k }; };

  /** What is to be picked there: a place of the drawing, a text, a dimension; the bare place where nothing is near. */
  function pick(event) {
    const p = at(event);
    if (!index) return p;
    const wanted = only();
    const boxed = (list) => {
      let best = null;
      for (let i = 0; i + 3 < list.length; i += 4) {
        const [x1, y1, x2, y2] = list.slice(i, i + 4);
        const grown = 4 * p.k;
        if (p.x < x1 - grown || p.x > x2 + grown || p.y < y1 - grown || p.y > y2 + grown) continue;
        const area = (x2 - x1) * (y2 - y1);
        if (!best || area < best.area) best = { x: (x1 + x2) / 2, y: (y1 + y2) / 2, box: [x1, y1, x2, y2], area, kind: "text" };
      }
      return best;
    };
    if (wanted.size === 0 || wanted.has("texts")) { const text = boxed(lines.texts); if (text && (wanted.size || BOXED.has(tool))) return text; }
    if (wanted.has("dimensions")) { const size = boxed(lines.dimensions); if (size) return { ...size, kind: "dimension" }; }
    const kinds = new Set();
    if (wanted.has("holes")) kinds.add("centre");
    if (wanted.has("edges")) ["end", "middle", "line", "quadrant"].forEach((k) => kinds.add(k));
    if (wanted.size && !kinds.size) return null;
    const found = nearest(index, p.x, p.y, REACH * p.k, kinds);
    if (found) return found;
    return wanted.size ? null : p;
  }

  const boxOf = (thing) => {
    const room = Math.max(view.fit.w, view.fit.h) / 150;
    if (thing.box) return [thing.box[0] - room / 3, thing.box[1] - room / 3, thing.box[2] + room / 3, thing.box[3] + room / 3];
    const r = (thing.r || room) + room;
    return [thing.x - r, thing.y - r, thing.x + r, thing.y + r];
  };

  function draw() {
    const path = (d, extra = {}) => svg("path", { d, fill: "none", stroke: colour, "stroke-width": 2, "vector-effect": "non-scaling-stroke", ...extra });
    const parts = [];
    const p = points().concat(under && !down && points().length < (NEEDS[tool] || 0) && tool !== "ink" && !BOXED.has(tool) ? [under] : []);
    const k = view.at(0, 0).k;
    if (BOXED.has(tool) && p.length > 1) {
      const [a, b] = p;
      parts.push(svg("rect", { x: Math.min(a.x, b.x), y: -Math.max(a.y, b.y), width: Math.abs(a.x - b.x), height: Math.abs(a.y - b.y), fill: tool === "highlight" ? colour : "none", "fill-opacity": 0.15, stroke: colour, "stroke-width": 2, "stroke-dasharray": "5 4", "vector-effect": "non-scaling-stroke" }));
    }
    if (tool === "ink") strokes.forEach((s) => parts.push(path(`M${s.map((q) => `${q.x} ${-q.y}`).join("L")}`)));
    if (tool === "arrow-note" && p.length > 1) parts.push(path(`M${p[1].x} ${-p[1].y}L${p[0].x} ${-p[0].y}`));
    if (tool === "size" && p.length > 1) parts.push(path(`M${p[0].x} ${-p[0].y}L${p[1].x} ${-p[1].y}`));
    if (tool !== "ink" && !BOXED.has(tool)) p.forEach((q) => parts.push(svg("circle", { cx: q.x, cy: -q.y, r: 6 * k, fill: "none", stroke: colour, "stroke-width": 2, "vector-effect": "non-scaling-stroke" })));
    layer.replaceChildren(...parts);
  }

  const done = () => { draw(); changed(); };
  const add = (place) => {
    step();
    strokes = [[...points(), { x: place.x, y: place.y }]];
    done();
  };

  return {
    layer,
    tell: (to) => { ({ say, changed } = to); },
    draw,
    complete,
    tool: () => tool,
    busy: () => strokes.length > 0,
    points: () => strokes.map((s) => s.map((p) => `${+p.x.toFixed(4)},${+p.y.toFixed(4)}`).join(" ")).join(";"),
    how: () => (tool ? HOW[tool] : ""),
    measured: () => (tool === "size" && points().length > 1 && lines ? number(Math.hypot(points()[1].x - points()[0].x, points()[1].y - points()[0].y) / lines.scale) : ""),
    ink: (value) => { colour = value; draw(); },
    choose(wanted) {
      tool = wanted;
      strokes = []; back = []; forth = []; under = null; down = null;
      draw();
      if (tool) load();
    },
    clear() { strokes = []; back = []; forth = []; under = null; draw(); },
    undo() { if (!back.length) return; forth.push(copy()); strokes = back.pop(); done(); },
    redo() { if (!forth.length) return; back.push(copy()); strokes = forth.pop(); done(); },
    steps: () => [back.length, forth.length],
    wants: () => Boolean(tool) && (tool === "ink" || (BOXED.has(tool) && !complete())),
    down(event) {
      const p = at(event);
      down = { x: p.x, y: p.y };
      if (tool === "ink") { step(); strokes.push([down]); }
    },
    move(event) {
      if (!down) return;
      const p = at(event);
      if (tool === "ink") {
        const stroke = strokes[strokes.length - 1];
        const last = stroke[stroke.length - 1];
        if (Math.hypot(p.x - last.x, p.y - last.y) < 2 * p.k || strokes.reduce((n, s) => n + s.length, 0) > 3900) return;
        stroke.push({ x: p.x, y: p.y });
      } else strokes = [[down, { x: p.x, y: p.y }]];
      draw();
    },
    up(event, tapped) {
      if (!down) return;
      if (tool === "ink") {
        if (strokes[strokes.length - 1].length < 2) { strokes.pop(); back.pop(); }
      } else if (tapped) {
        const thing = pick(event);
        const box = thing && (thing.box || thing.kind) ? boxOf(thing) : null;
        strokes = box ? [[{ x: box[0], y: box[1] }, { x: box[2], y: box[3] }]] : [];
        if (box) back.push([]); else say("Nothing to pick there: draw a box round it.");
      } else back.push([]);
      down = null;
      done();
    },
    cancel() {
      if (tool === "ink") { strokes.pop(); back.pop(); } else strokes = [];
      down = null;
      done();
    },
    hover(event) {
      if (!tool || down || complete() || BOXED.has(tool) || tool === "ink") return;
      under = pick(event);
      draw();
    },
    tap(event) {
      if (!tool || complete()) return false;
      const words = (tool === "size" && points().length === 2) || (tool === "arrow-note" && points().length === 1) || tool === "note" || tool === "stamp";
      const place = words && !(tool === "note" && only().size) ? at(event) : pick(event);
      if (!place) { say("Nothing of that kind is near: point at one."); return true; }
      const last = points()[points().length - 1];
      if (last && Math.hypot(last.x - place.x, last.y - place.y) < 1e-9) return true;
      add(place);
      return true;
    },
  };
}
