// Marks on a model: notes, arrow notes and sizes at what was picked, each with the view that its author had.
import { THREE } from "../../vendor/three-viewer.js";
import { svg } from "../dom.js";
import { redlines } from "../redline.js";
import { number } from "../snap.js";
import { between, ends, rims, straight, surface as surfaceOf } from "./pick.js";

const NEAR_POINT = 9;
const NEAR_EDGE = 7;
const FINE = 60_000; // triangles
/** Letters of a height in millimetres of a sheet as pixels: 3.5 are those of the page. */
const pixels = (letters) => 7 + 2 * letters;
const WIDE = 0.62; // of a letter, by its height
const WANTED = { note: 1, "arrow-note": 2, size: 3 };
const PICKS = { note: 1, "arrow-note": 1, size: 2 };
const HOW = {
  note: "Note: pick a corner, an edge, a face or a hole.",
  "arrow-note": "Arrow note: pick what it points at, then where the words stand.",
  size: "Size: pick two things, then where the words stand. A hole is its axis.",
};
const ONLY = { points: "point", edges: "edge", holes: "axis", faces: "face" };

const array = (v) => [v.x, v.y, v.z];
const vector = (a) => new THREE.Vector3(...a);

/** @param scene3 what shows the model: camera, controls, stage, under(event), screen(point), draw(), size(), measuring(), stopMeasuring() */
export function modelRedlines(page, scene3) {
  const { camera, controls, stage } = scene3;
  const tools = page.querySelector("[data-tools]");
  const layer = svg("svg", { class: "model-marks", "aria-hidden": "true" });
  stage.append(layer);
  let marks = [];
  const kept = new Map(); // surfaces and edges by geometry: both are found once
  const known = (geometry) => {
    if (!kept.has(geometry)) {
      // Of very fine meshes the edges are not drawn either: to find them would take seconds.
      const triangles = (geometry.index?.count ?? geometry.getAttribute("position").count) / 3;
      const edges = triangles < FINE ? new THREE.EdgesGeometry(geometry, 28).getAttribute("position").array : [];
      kept.set(geometry, {
        surface: surfaceOf(geometry.getAttribute("position").array, geometry.index?.array ?? null, geometry.userData.faces ?? null),
        lines: straight(edges),
        circles: rims(edges),
      });
    }
    return kept.get(geometry);
  };
  const only = () => new Set([...(tools?.querySelectorAll("[data-mark-pick]:checked") || [])].map((box) => ONLY[box.dataset.markPick]));

  /** What lies under the pointer, in the space of the whole model; null beside it. */
  function pick(event) {
    const hit = scene3.under(event)[0];
    if (!hit) return null;
    const r = stage.getBoundingClientRect();
    const near = (point) => {
      const [x, y] = scene3.screen(vector(point));
      return Math.hypot(x - (event.clientX - r.left), y - (event.clientY - r.top));
    };
    const wanted = only();
    const takes = (of) => !wanted.size || wanted.has(of);
    const { surface, lines, circles } = known(hit.object.geometry);
    const out = (local) => array(vector(local).applyMatrix4(hit.object.matrixWorld));
    const way = (local) => array(vector(local).transformDirection(hit.object.matrixWorld));
    const shape = (of, at, along = [0, 0, 0], radius = 0) => ({ of, at: out(at), along: of === "point" ? along : way(along), radius });
    let best = null;
    for (const line of takes("point") ? lines : []) for (const p of [line.a, line.b]) {
      const off = near(out(p));
      if (off < NEAR_POINT && (!best || off < best.off)) best = { off, shape: shape("point", p) };
    }
    if (best) return best.shape;
    const inside = array(hit.point.clone().applyMatrix4(hit.object.matrixWorld.clone().invert()));
    const beside = (line, piece) => {
      const whole = vector(line.b).sub(vector(line.a));
      const along = vector(inside).sub(vector(line.a)).dot(whole) / whole.lengthSq();
      if (!piece && (along < 0 || along > 1)) return null;
      const t = Math.max(0, Math.min(1, along));
      const at = array(vector(line.a).addScaledVector(whole, t));
      const off = near(out(at));
      return off < NEAR_EDGE && (!best || off < best.off) ? { off, at } : null;
    };
    for (const line of takes("edge") ? lines : []) {
      const found = beside(line, false);
      if (found) best = { off: found.off, shape: shape("edge", found.at, line.along) };
    }
    // Who points at the rim of a hole means the hole.
    for (const circle of takes("axis") ? circles : []) {
      for (const piece of circle.pieces) {
        const found = beside(piece, true);
        if (found) best = { off: found.off, shape: shape("axis", circle.at, circle.along, circle.radius) };
      }
    }
    if (best) return best.shape;
    const found = surface.shape(hit.faceIndex, inside);
    if (!takes(found.of)) return null;
    return shape(found.of, found.at, found.along, found.radius);
  }

  /** The place under the pointer that is as far away as another: where words are put. */
  function beside(event, place) {
    const r = stage.getBoundingClientRect();
    const depth = vector(place).project(camera).z;
    return array(new THREE.Vector3(((event.clientX - r.left) / r.width) * 2 - 1, 1 - ((event.clientY - r.top) / r.height) * 2, depth).unproject(camera));
  }

  // The draft: what was picked, then where the words stand, with a way back for each step.
  const draft = (() => {
    let tool = null;
    let picks = [];
    let words = null;
    let colour = "#a93226";
    let hover = null;
    let looking = false;
    let back = [];
    let forth = [];
    let say = () => {};
    let changed = () => {};
    const state = () => ({ picks: [...picks], words });
    const set = (to) => { ({ picks, words } = to); scene3.draw(); changed(); };
    const step = () => { back.push(state()); forth = []; };
    const empty = () => { picks = []; words = null; back = []; forth = []; hover = null; scene3.draw(); };
    const complete = () => Boolean(tool) && picks.length + (words ? 1 : 0) >= WANTED[tool];
    return {
      tell: (to) => { ({ say, changed } = to); },
      tool: () => tool,
      busy: () => picks.length > 0,
      complete,
      how: () => (tool ? HOW[tool] : ""),
      steps: () => [back.length, forth.length],
      ink: (value) => { colour = value; scene3.draw(); },
      choose(wanted) { tool = wanted; empty(); },
      clear: empty,
      undo() { if (back.length) { forth.push(state()); set(back.pop()); } },
      redo() { if (forth.length) { back.push(state()); set(forth.pop()); } },
      measured() {
        if (tool !== "size" || picks.length < 2) return "";
        const { value, angle } = between(picks[0], picks[1]);
        return number(Math.round(value * 1000) / 1000) + (angle ? "°" : "");
      },
      hover(event) {
        if (!tool || complete() || picks.length >= PICKS[tool] || looking) return;
        // Once a frame: to find what lies under the pointer goes through all triangles.
        looking = true;
        requestAnimationFrame(() => {
          looking = false;
          if (!tool || complete() || picks.length >= PICKS[tool]) return;
          hover = pick(event);
          scene3.draw();
        });
      },
      tap(event) {
        if (!tool || complete()) return false;
        if (picks.length < PICKS[tool]) {
          const found = pick(event);
          if (!found) { say(only().size ? "Nothing of that kind is there: point at one." : "Point at the model."); return true; }
          step();
          picks = [...picks, found];
          hover = null;
        } else {
          step();
          words = beside(event, picks[0].at);
        }
        scene3.draw();
        changed();
        return true;
      },
      space() {
        const n = (v) => v.map((x) => +x.toFixed(6)).join(" ");
        const said = picks.map((p) => `${p.of} ${n(p.at)} ${n(p.along)} ${+p.radius.toFixed(6)}`).join(";");
        const height = (camera.top - camera.bottom) / camera.zoom;
        return `${said}|${n(words ?? picks[0].at)}|${n(array(camera.position))} ${n(array(controls.target))} ${n(array(camera.up))} ${+height.toFixed(6)}`;
      },
      shown() {
        if (!tool || !(picks.length || hover)) return null;
        const all = hover ? [...picks, hover] : picks;
        const last = all[all.length - 1];
        const kind = last.radius ? `${last.of}, Ø ${number(Math.round(last.radius * 2000) / 1000)}` : last.of;
        return { tool, picks: all, words, colour, text: "", kind: complete() ? "" : kind, id: null, draft: true };
      },
    };
  })();

  /** A mark as its row tells it. */
  function read(row) {
    const [picked, words, eye] = row.dataset.space.split("|");
    const picks = picked.split(";").map((text) => {
      const [of, ...rest] = text.split(" ");
      const v = rest.map(Number);
      return { of, at: v.slice(0, 3), along: v.slice(3, 6), radius: v[6] };
    });
    const tag = row.querySelector(".remark-tag");
    const number_ = tag.textContent.trim();
    return {
      id: Number(row.dataset.row), tool: row.dataset.drawn, picks, words: words.split(" ").map(Number), eye: eye.split(" ").map(Number),
      colour: getComputedStyle(tag).backgroundColor, text: `${number_} ${row.dataset.says}`.trim(), struck: row.dataset.state === "withdrawn", visible: true, height: pixels(Number(row.dataset.height)),
    };
  }

  const line = (a, b, mark, more = {}) => svg("line", { x1: a[0], y1: a[1], x2: b[0], y2: b[1], stroke: mark.colour, "stroke-width": mark.current ? 3.2 : 2, ...more });
  const arrow = (from, to, mark) => {
    const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
    const wing = (turn) => `${to[0] - 11 * Math.cos(angle + turn)} ${to[1] - 11 * Math.sin(angle + turn)}`;
    return svg("path", { d: `M${wing(0.35)}L${to[0]} ${to[1]}L${wing(-0.35)}`, fill: "none", stroke: mark.colour, "stroke-width": mark.current ? 3.2 : 2 });
  };
  const dot = (p, mark) => svg("rect", { x: p[0] - 5, y: p[1] - 5, width: 10, height: 10, fill: "none", stroke: mark.colour, "stroke-width": mark.current ? 3.2 : 2 });

  /** How a mark lies over the picture now. */
  function drawn(mark) {
    const group = svg("g", mark.id ? { "data-remark": mark.id } : { class: "draft" });
    const to = (p) => scene3.screen(vector(p));
    const at = mark.picks.map((p) => to(p.at));
    const words = mark.words ? to(mark.words) : null;
    if (mark.tool === "size" && mark.picks.length === 2) {
      const [a, b] = ends(mark.picks[0], mark.picks[1]).map(to);
      group.append(line(a, b, mark), arrow(b, a, mark), arrow(a, b, mark));
      if (words) group.append(line([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], words, mark, { "stroke-dasharray": "3 4" }));
      if (Math.hypot(b[0] - at[1][0], b[1] - at[1][1]) > 3) group.append(line(b, at[1], mark, { "stroke-dasharray": "3 4" }));
    } else if (mark.tool === "arrow-note" && words) group.append(line(words, at[0], mark), arrow(words, at[0], mark));
    if (mark.tool === "note" || mark.draft) at.forEach((p) => group.append(dot(p, mark)));
    if (mark.kind) { const [x, y] = at[at.length - 1]; group.append(svg("text", { x: x + 12, y: y - 10, fill: mark.colour }, mark.kind)); }
    if (mark.text) {
      const [x, y] = mark.tool === "note" ? [at[0][0] + 10, at[0][1] - 8] : words;
      // Words stay in the picture: to the left of their place where there is more room, shortened where there is none.
      const letter = mark.height * WIDE;
      const left = x > stage.clientWidth / 2 && stage.clientWidth - x < mark.text.length * letter;
      const most = Math.max(5, Math.min(48, Math.floor((left ? x : stage.clientWidth - x) / letter)));
      const text = mark.text.length > most ? `${mark.text.slice(0, most - 1)}…` : mark.text;
      const written = svg("text", { x, y, fill: mark.colour, "text-anchor": left ? "end" : null, "text-decoration": mark.struck ? "line-through" : null }, text);
      written.style.fontSize = `${mark.height}px`;
      group.append(written);
    }
    return group;
  }
  function place() {
    const unfinished = draft.shown();
    const shown = marks.filter((mark) => mark.visible);
    layer.replaceChildren(...shown.map(drawn), ...(unfinished ? [drawn(unfinished)] : []));
  }

  const surface = {
    draft,
    element: stage,
    place: "On the model",
    fresh(_, rows) {
      marks = rows.filter((row) => row.dataset.space).map(read);
      scene3.draw();
    },
    show(id, visible) {
      const mark = marks.find((each) => each.id === Number(id));
      if (mark) { mark.visible = visible; scene3.draw(); }
    },
    current(id) {
      marks.forEach((mark) => { mark.current = mark.id === id; });
      scene3.draw();
    },
    look(row) {
      const { eye } = read(row);
      camera.up.set(...eye.slice(6, 9));
      camera.position.set(...eye.slice(0, 3));
      controls.target.set(...eye.slice(3, 6));
      camera.zoom = 1;
      camera.top = eye[9] / 2;
      camera.bottom = -eye[9] / 2;
      scene3.size();
    },
    fields: () => ({ space: draft.space() }),
    under(event) {
      let best = null;
      layer.querySelectorAll("g[data-remark]").forEach((group) => {
        for (const each of group.children) {
          const r = each.getBoundingClientRect();
          if (event.clientX < r.left - 5 || event.clientX > r.right + 5 || event.clientY < r.top - 5 || event.clientY > r.bottom + 5) continue;
          const area = r.width * r.height;
          if (!best || area < best.area) best = { id: Number(group.dataset.remark), area };
        }
      });
      return best?.id;
    },
    measuring: () => scene3.measuring(),
    marking(on) {
      if (on) scene3.stopMeasuring();
      stage.classList.toggle("marking", on);
    },
    inked: () => {},
    focus: () => stage.focus({ preventScroll: true }),
  };
  const list = redlines(page, surface);
  return { place, tap: list.tap };
}
