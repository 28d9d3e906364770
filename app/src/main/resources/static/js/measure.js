// Measuring on the sheet: picks ends, middles, centres, quadrants and crossings, exact to the file's own numbers.
const REACH = 14;
const KINDS = ["end", "middle", "centre", "quadrant", "crossing", "line"];

export function measure(element, view) {
  const bar = document.querySelector("[data-measure]");
  if (!bar) return null;
  const button = bar.querySelector("[data-measure-on]");
  const list = document.querySelector("[data-measured]");
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.classList.add("ruler");
  svg.setAttribute("aria-hidden", "true");
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
    element.append(svg);
    if (!index) {
      button.textContent = "Reading the lines";
      try { await load(); } catch { button.textContent = "Measure"; say("The lines could not be read. Try again."); on = false; return; }
      button.textContent = "Measure";
    }
    if (!found.length) say("Pick two places, or two lines for their angle. A tap on a circle takes its centre. Escape begins anew.");
  };
  const say = (text) => {
    list.hidden = false;
    const item = document.createElement("li");
    item.textContent = text;
    list.replaceChildren(item);
  };

  button.addEventListener("click", () => turn(!on));
  element.addEventListener("keydown", (event) => {
    if (event.key === "d" && !event.ctrlKey && !event.metaKey && document.documentElement.dataset.keys !== "off") turn(!on);
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
    if (place.r) found.push(`⌀ ${number((2 * place.r) / scale)}, R ${number(place.r / scale)}`);
    if (chain.length > 1) {
      const [a, b] = chain.slice(-2);
      found.push(between(a, b));
      if (chain.length > 2 && !chain.some((place) => place.line)) found.push(`chain of ${chain.length - 1}: ${number(total() / scale)}`);
    }
    tell(found.slice(-8));
    draw();
  };
  const tell = (texts) => {
    list.hidden = texts.length === 0;
    list.replaceChildren(...texts.map((text) => { const item = document.createElement("li"); item.textContent = text; return item; }));
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
    svg.replaceChildren(...parts.map(([name, attributes, text]) => {
      const node = document.createElementNS("http://www.w3.org/2000/svg", name);
      Object.entries(attributes).forEach(([key, value]) => node.setAttribute(key, value));
      if (text) node.textContent = text;
      return node;
    }));
  }
  return { tap, draw };
}

const number = (value) => (Math.round(value * 1000) / 1000).toFixed(3).replace(/\.?0+$/, "").replace(/^-0$/, "0");

/** Points and lines by the cells that they lie in. Y upwards, as in the file. */
export function build(geometry, fit) {
  const cell = Math.max(fit.w, fit.h) / 256;
  const points = new Map();
  const lines = new Map();
  const key = (x, y) => x * 100003 + y;
  const c = (v) => Math.floor(v / cell);
  const point = (x, y, kind, r) => {
    const k = key(c(x), c(y));
    if (!points.has(k)) points.set(k, []);
    points.get(k).push({ x, y, kind, r });
  };
  const put = (item, x1, y1, x2, y2) => {
    for (let x = c(Math.min(x1, x2)); x <= c(Math.max(x1, x2)); x++) {
      for (let y = c(Math.min(y1, y2)); y <= c(Math.max(y1, y2)); y++) {
        const k = key(x, y);
        if (!lines.has(k)) lines.set(k, []);
        lines.get(k).push(item);
      }
    }
  };
  const l = geometry.lines;
  for (let i = 0; i + 3 < l.length; i += 4) {
    const [x1, y1, x2, y2] = [l[i], l[i + 1], l[i + 2], l[i + 3]];
    point(x1, y1, "end");
    point(x2, y2, "end");
    point((x1 + x2) / 2, (y1 + y2) / 2, "middle");
    // A long slanting line goes into the cells that it crosses, not into its whole box.
    const parts = Math.min(256, Math.max(1, Math.ceil(Math.hypot(x2 - x1, y2 - y1) / cell / 4)));
    const item = { x1, y1, x2, y2 };
    for (let p = 0; p < parts; p++) put(item, x1 + ((x2 - x1) * p) / parts, y1 + ((y2 - y1) * p) / parts, x1 + ((x2 - x1) * (p + 1)) / parts, y1 + ((y2 - y1) * (p + 1)) / parts);
  }
  const a = geometry.arcs;
  for (let i = 0; i + 4 < a.length; i += 5) {
    const [x, y, r, from, sweep] = [a[i], a[i + 1], a[i + 2], a[i + 3], a[i + 4]];
    const whole = sweep >= 360;
    const on = (deg) => [x + r * Math.cos((deg * Math.PI) / 180), y + r * Math.sin((deg * Math.PI) / 180)];
    point(x, y, "centre", r);
    if (!whole) { point(...on(from), "end"); point(...on(from + sweep), "end"); point(...on(from + sweep / 2), "middle"); }
    for (let q = Math.ceil(from / 90) * 90; q <= from + sweep && q < from + 360; q += 90) point(...on(q), "quadrant");
    const item = { x, y, r, from, sweep };
    const parts = Math.max(8, Math.min(128, Math.ceil((r * sweep * Math.PI) / 180 / cell)));
    for (let p = 0; p < parts; p++) put(item, ...on(from + (sweep * p) / parts), ...on(from + (sweep * (p + 1)) / parts));
  }
  return { cell, points, lines, key, c };
}

/** The place to pick next to a point, within a reach; null where there is none. */
export function nearest(index, x, y, reach, only) {
  const kinds = only.size ? only : new Set(KINDS);
  const near = new Set();
  let best = null;
  // Of what lies in one place a centre tells most: it knows its radius.
  const offer = (place, distance) => {
    if (distance > reach) return;
    if (!best || distance < best.distance - 1e-9 || (place.r && !best.r && distance < best.distance + 1e-9)) best = { ...place, distance };
  };
  for (let cx = index.c(x - reach); cx <= index.c(x + reach); cx++) {
    for (let cy = index.c(y - reach); cy <= index.c(y + reach); cy++) {
      const k = index.key(cx, cy);
      for (const p of index.points.get(k) || []) if (kinds.has(p.kind)) offer(p, Math.hypot(p.x - x, p.y - y));
      if (near.size < 60) for (const item of index.lines.get(k) || []) near.add(item);
    }
  }
  const items = [...near].slice(0, 60);
  if (kinds.has("crossing")) {
    for (let i = 0; i < items.length; i++) {
      for (let j = i + 1; j < items.length; j++) for (const [px, py] of crossings(items[i], items[j])) {
        // An end or a centre that lies there too tells more.
        const distance = Math.hypot(px - x, py - y);
        if (!best || distance < best.distance - reach * 0.05) offer({ x: px, y: py, kind: "crossing" }, distance);
      }
    }
  }
  if (kinds.has("line") && (!best || only.has("line"))) {
    // Where no point is near, the line itself: two of them have an angle, or a distance.
    for (const item of items) {
      if (item.r !== undefined) continue;
      const foot = footOn(item, x, y);
      const off = Math.hypot(foot.x - x, foot.y - y);
      if (off <= reach * 0.6 && (!best || off < best.distance)) best = { ...foot, kind: "line", line: item, distance: off };
    }
  }
  if (kinds.has("centre") && (!best || best.distance > reach * 0.4)) {
    // On the line of a circle its centre is what is meant.
    for (const item of items) {
      if (item.r === undefined) continue;
      const off = Math.abs(Math.hypot(item.x - x, item.y - y) - item.r);
      if (off <= reach * 0.6 && covers(item, x, y) && (!best || off < best.distance)) best = { x: item.x, y: item.y, r: item.r, kind: item.sweep >= 360 ? "centre of the circle" : "centre of the arc", distance: off };
    }
  }
  return best;
}

const footOn = (line, x, y) => {
  const dx = line.x2 - line.x1, dy = line.y2 - line.y1;
  const t = Math.max(0, Math.min(1, ((x - line.x1) * dx + (y - line.y1) * dy) / (dx * dx + dy * dy || 1)));
  return { x: line.x1 + t * dx, y: line.y1 + t * dy };
};

/** How far a point is from a line without ends. */
export function offLine(line, x, y) {
  const dx = line.x2 - line.x1, dy = line.y2 - line.y1;
  return Math.abs((x - line.x1) * dy - (y - line.y1) * dx) / (Math.hypot(dx, dy) || 1);
}

/** The smaller angle between two lines, in degrees from 0 to 90. */
export function angleBetween(a, b) {
  const one = Math.atan2(a.y2 - a.y1, a.x2 - a.x1), other = Math.atan2(b.y2 - b.y1, b.x2 - b.x1);
  const angle = Math.abs(((one - other) * 180) / Math.PI) % 180;
  return Math.min(angle, 180 - angle);
}

const covers = (arc, x, y) => arc.sweep >= 360 || ((((Math.atan2(y - arc.y, x - arc.x) * 180) / Math.PI - arc.from) % 360) + 360) % 360 <= arc.sweep + 1e-9;

export function crossings(a, b) {
  if (a.r === undefined && b.r === undefined) {
    const dx = a.x2 - a.x1, dy = a.y2 - a.y1, ex = b.x2 - b.x1, ey = b.y2 - b.y1;
    const d = dx * ey - dy * ex;
    if (Math.abs(d) < 1e-12) return [];
    const t = ((b.x1 - a.x1) * ey - (b.y1 - a.y1) * ex) / d;
    const u = ((b.x1 - a.x1) * dy - (b.y1 - a.y1) * dx) / d;
    return t >= -1e-9 && t <= 1 + 1e-9 && u >= -1e-9 && u <= 1 + 1e-9 ? [[a.x1 + t * dx, a.y1 + t * dy]] : [];
  }
  if (a.r !== undefined && b.r !== undefined) {
    const d = Math.hypot(b.x - a.x, b.y - a.y);
    if (d < 1e-12 || d > a.r + b.r || d < Math.abs(a.r - b.r)) return [];
    const t = (a.r * a.r - b.r * b.r + d * d) / (2 * d);
    const h = Math.sqrt(Math.max(0, a.r * a.r - t * t));
    const ux = (b.x - a.x) / d, uy = (b.y - a.y) / d;
    return [[a.x + ux * t - uy * h, a.y + uy * t + ux * h], [a.x + ux * t + uy * h, a.y + uy * t - ux * h]].filter(([x, y]) => covers(a, x, y) && covers(b, x, y));
  }
  const [line, arc] = a.r === undefined ? [a, b] : [b, a];
  const dx = line.x2 - line.x1, dy = line.y2 - line.y1;
  const fx = line.x1 - arc.x, fy = line.y1 - arc.y;
  const A = dx * dx + dy * dy, B = 2 * (fx * dx + fy * dy), C = fx * fx + fy * fy - arc.r * arc.r;
  const D = B * B - 4 * A * C;
  if (A < 1e-18 || D < 0) return [];
  return [(-B - Math.sqrt(D)) / (2 * A), (-B + Math.sqrt(D)) / (2 * A)]
    .filter((t) => t >= -1e-9 && t <= 1 + 1e-9)
    .map((t) => [line.x1 + t * dx, line.y1 + t * dy])
    .filter(([x, y]) => covers(arc, x, y));
}
