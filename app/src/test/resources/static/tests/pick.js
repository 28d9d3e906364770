import { between, circleThrough, ends, rims, straight, surface } from "/static/js/model/pick.js";
import { same } from "./check.js";

const near = (is, wanted) => { if (Math.abs(is - wanted) > 1e-3) throw new Error(`${is} instead of ${wanted}`); };
const quad = (a, b, c, d) => [...a, ...b, ...c, ...a, ...c, ...d];

/** A bar of 20 × 10 with a hole of r 4 along z, as plain triangles: first the top, then the wall of the hole. */
function bored(steps) {
  const top = quad([0, 0, 5], [20, 0, 5], [20, 10, 5], [0, 10, 5]);
  const wall = [];
  for (let i = 0; i < steps; i++) {
    const [p, q] = [i, i + 1].map((k) => [10 + 4 * Math.cos((2 * Math.PI * k) / steps), 5 + 4 * Math.sin((2 * Math.PI * k) / steps)]);
    wall.push(...quad([...p, 0], [...p, 5], [...q, 5], [...q, 0]));
  }
  return Float32Array.from([...top, ...wall]);
}
const point = (...at) => ({ of: "point", at, along: [0, 0, 0], radius: 0 });
const axis = (at, along) => ({ of: "axis", at, along, radius: 1 });
const edge = (at, along) => ({ of: "edge", at, along, radius: 0 });
const face = (at, along) => ({ of: "face", at, along, radius: 0 });

export default {
  "the wall of a hole is its axis, with its radius, next to where it was hit": () => {
    for (const faces of [null, Uint32Array.from([0, 1, 2, 65])]) {
      const shape = surface(bored(32), null, faces).shape(7, [14, 5, 2]);
      same(shape.of, "axis");
      near(shape.radius, 4);
      near(shape.at[0], 10);
      near(shape.at[1], 5);
      near(shape.at[2], 2);
      near(Math.abs(shape.along[2]), 1);
    }
  },
  "a flat is a face with its normal": () => {
    const shape = surface(bored(32), null, null).shape(0, [3, 3, 5]);
    same(shape.of, "face");
    near(shape.along[2], 1);
    same(shape.at, [3, 3, 5]);
  },
  "what is neither is the place that was hit": () => {
    const cone = [];
    for (let i = 0; i < 24; i++) {
      const [p, q] = [i, i + 1].map((k) => [Math.cos((2 * Math.PI * k) / 24), Math.sin((2 * Math.PI * k) / 24)]);
      cone.push(...p, 0, ...q, 0, 0, 0, 1);
    }
    same(surface(Float32Array.from(cone), null, Uint32Array.from([0, 23])).shape(3, [0.2, 0.2, 0.5]).of, "point");
  },
  "a circle goes through its points, none through a line": () => {
    const [x, y, r] = circleThrough([[7, 2], [5, 4], [3, 2], [5, 0]]);
    near(x, 5);
    near(y, 2);
    near(r, 2);
    same(circleThrough([[0, 0], [1, 1], [2, 2]]), null);
    same(circleThrough([[0, 0], [1, 1]]), null);
  },
  "a straight edge is one, pieces of a circle are none": () => {
    const ring = Array.from({ length: 24 }, (_, i) => [i, i + 1].flatMap((k) => [Math.cos((k * Math.PI) / 12), Math.sin((k * Math.PI) / 12), 0])).flat();
    same(straight([0, 0, 0, 9, 0, 0, 9, 0, 0, 9, 9, 0]).length, 2);
    same(straight(ring).length, 0);
    same(straight([1, 1, 1, 1, 1, 1]).length, 0);
  },
  "pieces of a circle are its rim, wherever it lies; those of none are none": () => {
    const ring = Array.from({ length: 24 }, (_, i) => [i, i + 1].flatMap((k) => [7, 3 + 2 * Math.cos((k * Math.PI) / 12), 4 + 2 * Math.sin((k * Math.PI) / 12)])).flat();
    const [rim, ...others] = rims([...ring, 0, 0, 0, 9, 0, 0]);
    same(others.length, 0);
    same(rim.pieces.length, 24);
    near(rim.radius, 2);
    [7, 3, 4].forEach((v, i) => near(rim.at[i], v));
    near(Math.abs(rim.along[0]), 1);
    const wave = Array.from({ length: 12 }, (_, i) => [i, i + 1].flatMap((k) => [k, 0.3 * Math.sin(k), 0])).flat();
    same(rims(wave).length, 0);
    same(rims([]).length, 0);
  },
  "distances and angles are those of the rule in core": () => {
    const table = [
      [point(0, 0, 0), point(3, 4, 0), 5, false],
      [point(0, 4, 7), edge([0, 0, 0], [0, 0, 1]), 4, false],
      [point(3, 4, 7), face([0, 0, 0], [0, 0, 1]), 7, false],
      [axis([0, 0, 12], [0, 0, 1]), axis([60, 0, -3], [0, 0, -1]), 60, false],
      [axis([0, 0, 0], [1, 0, 0]), edge([5, 5, 8], [0, 1, 0]), 8, false],
      [edge([0, 0, 0], [1, 0, 0]), edge([5, 5, 0], [0, 1, 0]), 90, true],
      [face([0, 0, 0], [0, 0, 1]), face([9, 9, 12], [0, 0, -1]), 12, false],
      [axis([15, 0, 0], [0, 0, 1]), face([0, 0, 0], [1, 0, 0]), 15, false],
      [axis([15, 0, 0], [1, 0, 0]), face([0, 0, 0], [1, 0, 0]), 90, true],
    ];
    for (const [a, b, value, angle] of table) for (const found of [between(a, b), between(b, a)]) {
      near(found.value, value);
      same(found.angle, angle);
    }
  },
  "the line of a size is as long as it says": () => {
    const all = [point(3, 4, 7), axis([60, 0, -3], [0, 0, 1]), axis([1, 2, 3], [0, 0, -1]), face([9, 9, 12], [0, 0, 1]), edge([5, 5, 8], [1, 0, 0])];
    for (const a of all) for (const b of all) {
      const { value, angle } = between(a, b);
      if (angle) continue;
      const [from, to] = ends(a, b);
      near(Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]), value);
    }
  },
};
