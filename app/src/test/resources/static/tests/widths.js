import { read, tracks, widened, write } from "/static/js/widths.js";
import { same } from "./check.js";

const USUAL = ["6px", "164px", "minmax(200px, 1fr)", "84px"];
const NAMES = ["", "number", "title", "c-rev"];
const wide = (text, room) => widened(USUAL, NAMES, read(text), room, 10);

export default {
  "a list of tracks is taken apart where its brackets end": () => {
    same(tracks(" 6px minmax(200px, 1fr)  84px"), ["6px", "minmax(200px, 1fr)", "84px"]);
    same(tracks(""), []);
  },
  "widths are written as they are read": () => {
    same(write(read("number:140 c-rev:90")), "number:140 c-rev:90");
    same(write(read("")), "");
  },
  "a column is as wide as somebody wants it, the titles at least": () => {
    same(wide("number:100 title:150", 900), ["6px", "100px", "minmax(150px, 1fr)", "84px"]);
    same(wide("c-held:300", 900), USUAL);
    same(wide("", 900), USUAL);
  },
  "what leaves the titles no room is as usual": () => {
    same(wide("number:500", 700), USUAL);
    same(wide("title:600", 700), USUAL);
    same(wide("number:500", 750), ["6px", "500px", "minmax(120px, 1fr)", "84px"]);
  },
};
