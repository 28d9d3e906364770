// Places on a drawing to pick: ends, middles, centres, quadrants and crossings, exact to the file's own numbers. Knows no page.
const KINDS = ["end", "middle", "centre", "quadrant", "crossing", "line"];

/** A length as people write it: three places at the most, no zeros behind, no minus nought. */
export const number = (value) => (Math.round(value * 1000) / 1000).toFixed(3).replace(/\.?0+$/, "").replace(/^-0$/, "0");

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
