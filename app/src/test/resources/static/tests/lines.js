import { eachLine } from "/static/js/sheet-rest.js";
import { same } from "./check.js";

const stream = (...pieces) => new ReadableStream({
  start(control) {
    const bytes = new TextEncoder();
    pieces.forEach((piece) => control.enqueue(typeof piece === "string" ? bytes.encode(piece) : piece));
    control.close();
  },
});
const lines = async (...pieces) => {
  const got = [];
  await eachLine(stream(...pieces), async (line) => got.push(line));
  return got;
};

export default {
  "lines are whole, however they arrive": async () => {
    same(await lines("one\ntwo\n"), ["one", "two"]);
    same(await lines("o", "n", "e\nt", "wo\nthree\n"), ["one", "two", "three"]);
    same(await lines(), []);
  },
  "a letter that is cut in two is one": async () => {
    const bytes = new TextEncoder().encode("⌀ 6\n");
    same(await lines(bytes.slice(0, 1), bytes.slice(1, 2), bytes.slice(2)), ["⌀ 6"]);
  },
  "a part that was cut off is told, those before it are kept": async () => {
    const got = [];
    let told = "";
    await eachLine(stream("one\ntw"), async (line) => got.push(line)).catch((e) => { told = e.message; });
    same([got, told], [["one"], "cut off"]);
  },
};
