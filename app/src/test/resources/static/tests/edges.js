import { held } from "/static/js/model/edges.js";
import { numbers, same } from "./check.js";

const edge = (...six) => Float32Array.from(six);

export default {
  "an edge that both have is in both, whichever end comes first": () => {
    const found = held([edge(0, 0, 0, 10, 0, 0)], [edge(10, 0, 0, 0, 0, 0)]);
    same([found.both.length, found.added.length, found.gone.length], [6, 0, 0]);
  },
  "less than a hundredth of a millimetre is no difference, more is": () => {
    same(held([edge(0, 0, 0, 10, 0, 0)], [edge(0, 0, 0, 10.004, 0, 0)]).added.length, 0);
    same(held([edge(0, 0, 0, 10, 0, 0)], [edge(0, 0, 0, 10.02, 0, 0)]).added.length, 6);
  },
  "both and added are the new one; both and gone the old one": () => {
    const random = numbers(3);
    const some = (n) => Float32Array.from({ length: n * 6 }, () => Math.floor(random() * 3));
    for (let i = 0; i < 50; i++) {
      const [old, now] = [[some(20), some(5)], [some(20)]];
      const found = held(old, now);
      same(found.both.length + found.added.length, 20 * 6);
      const back = held(now, old);
      same(found.gone, back.added);
      same(found.added, back.gone);
    }
  },
  "nothing beside nothing differs in nothing": () => same(held([], []), { both: [], added: [], gone: [] }),
};
