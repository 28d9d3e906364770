import { angleBetween, build, crossings, nearest, number, offLine } from "/static/js/snap.js";
import { near, numbers, same } from "./check.js";

const FIT = { w: 420, h: 297 };
const plate = { scale: 1, lines: [0, 0, 100, 0, 100, 0, 100, 60, 0, 20, 100, 20], arcs: [50, 40, 10, 0, 360, 0, 0, 30, 0, 90] };
const index = build(plate, FIT);
const at = (x, y, reach = 3, only = new Set()) => nearest(index, x, y, reach, only);

export default {
  "an end, a middle and a centre are picked exactly, whatever the hand does": () => {
    for (const [x, y, px, py, kind] of [[99.2, 0.8, 100, 0, "end"], [50.9, -1, 50, 0, "middle"], [51, 39, 50, 40, "centre"], [59.5, 40.5, 60, 40, "quadrant"]]) {
      const p = at(x, y);
      same([p.x, p.y, p.kind], [px, py, kind]);
    }
  },
  "a crossing is computed from the lines, not from pixels": () => {
    const p = at(100.7, 20.6, 3, new Set(["crossing"]));
    near(p.x, 100);
    near(p.y, 20);
    same(p.kind, "crossing");
  },
  "what is not asked for is not picked": () => {
    same(at(100, 0, 3, new Set(["centre"])), null);
    same(at(100, 0, 3, new Set(["end"])).kind, "end");
  },
  "out of reach nothing is picked": () => same(at(30, 50, 2), null),
  "on the line of a circle its centre is meant, with its radius": () => {
    const p = at(57.2, 47.1, 2, new Set(["centre"]));
    same([p.x, p.y, p.r, p.kind], [50, 40, 10, "centre of the circle"]);
  },
  "an arc is met only where it is drawn": () => {
    const arc = { x: 0, y: 0, r: 30, from: 0, sweep: 90 };
    const line = (y) => ({ x1: -40, y1: y, x2: 40, y2: y });
    same(crossings(line(10), arc).length, 1);
    same(crossings(line(-10), arc).length, 0);
  },
  "crossings lie on both, whatever comes first": () => {
    const random = numbers(1);
    const some = () => (random() - 0.5) * 200;
    for (let i = 0; i < 500; i++) {
      const line = { x1: some(), y1: some(), x2: some(), y2: some() };
      const other = { x1: some(), y1: some(), x2: some(), y2: some() };
      const circle = { x: some(), y: some(), r: 5 + random() * 80, from: 0, sweep: 360 };
      const second = { x: some(), y: some(), r: 5 + random() * 80, from: 0, sweep: 360 };
      for (const [x, y] of crossings(line, other)) { near(offLine(line, x, y), 0, 1e-6); near(offLine(other, x, y), 0, 1e-6); }
      for (const [x, y] of crossings(line, circle)) { near(offLine(line, x, y), 0, 1e-6); near(Math.hypot(x - circle.x, y - circle.y), circle.r, 1e-6); }
      for (const [x, y] of crossings(circle, second)) { near(Math.hypot(x - second.x, y - second.y), second.r, 1e-6); near(Math.hypot(x - circle.x, y - circle.y), circle.r, 1e-6); }
      same(crossings(line, circle).length, crossings(circle, line).length);
      same(crossings(circle, second).length, crossings(second, circle).length);
    }
  },
  "parallel lines and circles in one place do not cross": () => {
    same(crossings({ x1: 0, y1: 0, x2: 9, y2: 0 }, { x1: 0, y1: 1, x2: 9, y2: 1 }), []);
    same(crossings({ x: 0, y: 0, r: 5, from: 0, sweep: 360 }, { x: 0, y: 0, r: 7, from: 0, sweep: 360 }), []);
  },
  "the angle between two lines does not ask which way they were drawn": () => {
    const a = { x1: 0, y1: 0, x2: 10, y2: 0 };
    const b = { x1: 0, y1: 0, x2: 10, y2: 10 };
    near(angleBetween(a, b), 45);
    near(angleBetween(a, { x1: 10, y1: 10, x2: 0, y2: 0 }), 45);
    near(angleBetween(a, { x1: 5, y1: 0, x2: -5, y2: 0 }), 0);
  },
  "a place is found wherever the grid cuts the sheet": () => {
    const random = numbers(2);
    for (let i = 0; i < 300; i++) {
      const [x, y] = [random() * 420, random() * 297];
      const one = build({ scale: 1, lines: [x, y, x + 30, y + 17], arcs: [] }, FIT);
      const p = nearest(one, x + 0.5, y - 0.4, 2, new Set(["end"]));
      near(p.x, x);
      near(p.y, y);
    }
  },
  "lengths are written without zeros behind and without a minus nought": () => {
    same([number(12), number(12.5), number(12.3456), number(-0.00001), number(0.1 + 0.2)], ["12", "12.5", "12.346", "0", "0.3"]);
  },
};
