// What somebody means who points at a surface: a corner, an edge, a face, the axis of a hole or a round. Knows no picture.

const minus = (a, b) => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const plus = (a, b, k = 1) => [a[0] + b[0] * k, a[1] + b[1] * k, a[2] + b[2] * k];
const dot = (a, b) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a, b) => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const size = (a) => Math.hypot(a[0], a[1], a[2]);
const unit = (a) => { const n = size(a); return n > 0 ? [a[0] / n, a[1] / n, a[2] / n] : a; };
/** The foot of a point on a line. */
const foot = (p, line) => plus(line.at, line.along, dot(minus(p, line.at), line.along));

/** Facets of one round differ by less, as the cosine of the angle between them. */
const ROUND = Math.cos((24 * Math.PI) / 180);
const FLAT = Math.cos((0.5 * Math.PI) / 180);

/**
 * A surface of triangles.
 *
 * @param position coordinates, three a corner
 * @param index corners, three a triangle; null where they follow each other
 * @param faces first and last triangle of each face, where the file knows its faces
 */
export function surface(position, index, faces) {
  const count = (index ? index.length : position.length / 3) / 3;
  const corner = (t, k) => { const i = 3 * (index ? index[3 * t + k] : 3 * t + k); return [position[i], position[i + 1], position[i + 2]]; };
  const normal = (t) => { const a = corner(t, 0); return unit(cross(minus(corner(t, 1), a), minus(corner(t, 2), a))); };
  let beside = null;
  /** Triangles by the edges that they share, found when first asked for. */
  const neighbours = (t) => {
    const key = (p) => p.map((v) => Math.round(v * 1e4)).join();
    const keyOf = (a, b) => (a < b ? `${a}|${b}` : `${b}|${a}`);
    const keys = (n) => { const k = [0, 1, 2].map((c) => key(corner(n, c))); return [keyOf(k[0], k[1]), keyOf(k[1], k[2]), keyOf(k[2], k[0])]; };
    if (!beside) {
      beside = new Map();
      for (let n = 0; n < count; n++) for (const k of keys(n)) { if (!beside.has(k)) beside.set(k, []); beside.get(k).push(n); }
    }
    return keys(t).flatMap((k) => beside.get(k)).filter((n) => n !== t);
  };
  /** Triangles from one on, as long as each is as like its neighbour as said. */
  const grown = (t, like) => {
    const all = new Set([t]);
    const due = [t];
    while (due.length && all.size < 20000) {
      const from = due.pop();
      const n = normal(from);
      for (const next of neighbours(from)) if (!all.has(next) && dot(n, normal(next)) > like) { all.add(next); due.push(next); }
    }
    return [...all];
  };
  const ofFace = (t) => {
    for (let i = 0; i + 1 < faces.length; i += 2) if (t >= faces[i] && t <= faces[i + 1]) return Array.from({ length: faces[i + 1] - faces[i] + 1 }, (_, k) => faces[i] + k);
    return [t];
  };

  /** The plane of triangles that lie in one, else null. */
  const plane = (triangles, t) => {
    const along = normal(t);
    return triangles.every((n) => dot(along, normal(n)) > FLAT) ? { of: "face", along } : null;
  };
  /** The axis of triangles round one, else null: normals square to it, corners equally far from it. */
  const round = (triangles, t) => {
    const first = normal(t);
    let most = 0;
    let along = null;
    for (const n of triangles) { const c = cross(first, normal(n)); if (size(c) > most) { most = size(c); along = unit(c); } }
    if (most < 0.1 || triangles.some((n) => Math.abs(dot(along, normal(n))) > 0.03)) return null;
    const across = unit(Math.abs(along[0]) < 0.9 ? cross(along, [1, 0, 0]) : cross(along, [0, 1, 0]));
    const up = cross(along, across);
    const points = triangles.flatMap((n) => [0, 1, 2].map((k) => { const p = corner(n, k); return [dot(p, across), dot(p, up)]; }));
    const circle = circleThrough(points);
    if (!circle) return null;
    const [x, y, r] = circle;
    if (points.some(([px, py]) => Math.abs(Math.hypot(px - x, py - y) - r) > Math.max(0.01 * r, 0.005))) return null;
    return { of: "axis", at: plus(plus([0, 0, 0], across, x), up, y), along, radius: r };
  };

  return {
    /** What the surface is there: {of: "face" | "axis" | "point", at, along, radius}. */
    shape(t, hit) {
      const whole = faces ? ofFace(t) : grown(t, ROUND);
      const flat = plane(whole, t);
      if (flat) return { ...flat, at: hit, radius: 0 };
      const axis = round(whole, t);
      if (axis) return { ...axis, at: foot(hit, axis) };
      // A flat that goes over into rounds of a mesh is still a flat where it is hit.
      if (!faces && grown(t, FLAT).length > 1) return { of: "face", at: hit, along: normal(t), radius: 0 };
      return { of: "point", at: hit, along: [0, 0, 0], radius: 0 };
    },
  };
}

/** The circle that points lie on best (least squares): middle and radius; null where they lie on none. */
export function circleThrough(points) {
  const n = points.length;
  if (n < 3) return null;
  const mx = points.reduce((s, p) => s + p[0], 0) / n;
  const my = points.reduce((s, p) => s + p[1], 0) / n;
  let uu = 0, vv = 0, uv = 0, u3 = 0, v3 = 0;
  for (const [x, y] of points) {
    const u = x - mx, v = y - my;
    uu += u * u; vv += v * v; uv += u * v; u3 += u * (u * u + v * v); v3 += v * (u * u + v * v);
  }
  const d = uu * vv - uv * uv;
  if (d <= 1e-9 * (uu + vv) ** 2) return null;
  const a = (u3 * vv - v3 * uv) / d / 2;
  const b = (v3 * uu - u3 * uv) / d / 2;
  return [a + mx, b + my, Math.sqrt(a * a + b * b + (uu + vv) / n)];
}

const keyOf = (p) => p.map((v) => Math.round(v * 1e3)).join();

/** Segments (six coordinates each) with those that meet them at their ends. */
function joined(segments) {
  const ends = new Map();
  const all = [];
  for (let i = 0; i + 5 < segments.length; i += 6) {
    const [a, b] = [[segments[i], segments[i + 1], segments[i + 2]], [segments[i + 3], segments[i + 4], segments[i + 5]]];
    if (size(minus(b, a)) < 1e-6) continue;
    const line = { a, b, along: unit(minus(b, a)) };
    all.push(line);
    for (const p of [a, b]) { const k = keyOf(p); if (!ends.has(k)) ends.set(k, []); ends.get(k).push(line); }
  }
  // A piece whose neighbour turns a little goes on as a curve: no edge of its own.
  const bends = (one, other) => { const turn = Math.abs(dot(one.along, other.along)); return other !== one && turn < 0.9999 && turn > 0.75; };
  const next = (line) => [line.a, line.b].flatMap((p) => ends.get(keyOf(p)).filter((other) => bends(line, other)));
  return { all, next };
}

/** Edges as segments: those that are straight beyond their ends, with their whole length. */
export function straight(segments) {
  const { all, next } = joined(segments);
  return all.filter((line) => !next(line).length);
}

/** Circles that pieces of edges make: the axis of each, its radius, its pieces. */
export function rims(segments) {
  const { all, next } = joined(segments);
  const seen = new Set();
  const found = [];
  for (const first of all) {
    if (seen.has(first)) continue;
    const chain = [first];
    seen.add(first);
    for (let i = 0; i < chain.length; i++) for (const other of next(chain[i])) if (!seen.has(other)) { seen.add(other); chain.push(other); }
    const axis = chain.length > 2 ? axisOf(chain) : null;
    if (axis) found.push({ ...axis, pieces: chain });
  }
  return found;
}

function axisOf(chain) {
  const bend = chain.map((line) => cross(chain[0].along, line.along)).reduce((best, c) => (size(c) > size(best) ? c : best), [0, 0, 0]);
  if (size(bend) < 0.1) return null;
  const along = unit(bend);
  const across = chain[0].along;
  const up = cross(along, across);
  const origin = chain[0].a;
  const points = chain.flatMap((line) => [line.a, line.b]).map((p) => minus(p, origin));
  const circle = circleThrough(points.map((p) => [dot(p, across), dot(p, up)]));
  if (!circle) return null;
  const [x, y, radius] = circle;
  const off = (p) => Math.max(Math.abs(dot(p, along)), Math.abs(Math.hypot(dot(p, across) - x, dot(p, up) - y) - radius));
  if (points.some((p) => off(p) > Math.max(0.01 * radius, 0.005))) return null;
  return { at: plus(plus(origin, across, x), up, y), along, radius };
}

const side = (a, b) => size(cross(a, b)) < 1e-3;
const degrees = (a, b) => (Math.atan2(size(cross(a, b)), Math.abs(dot(a, b))) * 180) / Math.PI;

/** How far two picked things are from each other, or under which angle they stand: as the rule in core says it, for the draft. */
export function between(a, b) {
  const from = minus(b.at, a.at);
  const [line, point] = [(p) => p.of === "edge" || p.of === "axis", (p) => p.of === "point"];
  const distance = (value) => ({ value, angle: false });
  const angle = (value) => ({ value, angle: true });
  if (point(a) && point(b)) return distance(size(from));
  if (point(a) || point(b)) { const o = point(a) ? b : a; return distance(line(o) ? size(cross(from, o.along)) : Math.abs(dot(from, o.along))); }
  if (line(a) && line(b)) {
    if (side(a.along, b.along)) return distance(size(cross(from, a.along)));
    const apart = Math.abs(dot(from, unit(cross(a.along, b.along))));
    return apart > 1e-3 ? distance(apart) : angle(degrees(a.along, b.along));
  }
  if (!line(a) && !line(b)) return side(a.along, b.along) ? distance(Math.abs(dot(from, a.along))) : angle(degrees(a.along, b.along));
  const [face, other] = line(a) ? [b, a] : [a, b];
  return Math.abs(dot(other.along, face.along)) < 1e-3 ? distance(Math.abs(dot(from, face.along))) : angle(90 - degrees(other.along, face.along));
}

/** Where the line of a size begins and ends: at the first thing, and at the place of the second that is nearest to it. */
export function ends(a, b) {
  const flat = (p, to) => (to.of === "face" ? plus(p, to.along, dot(minus(to.at, p), to.along)) : to.of === "point" ? to.at : foot(p, to));
  if ((a.of === "face" && b.of !== "face") || (b.of === "point" && a.of !== "point")) { const [end, begin] = ends(b, a); return [begin, end]; }
  const skew = a.of !== "point" && a.of !== "face" && b.of !== "point" && b.of !== "face" && !side(a.along, b.along);
  if (skew) {
    // Where the two lines are nearest to each other.
    const n = cross(a.along, b.along), w = minus(b.at, a.at), nn = dot(n, n);
    return [plus(a.at, a.along, dot(cross(w, b.along), n) / nn), plus(b.at, b.along, dot(cross(w, a.along), n) / nn)];
  }
  return [a.at, flat(a.at, b)];
}
