import { bringSays, checkOutSays, relative, standOf, versionSays } from "/static/js/plan.js";
import { same } from "./check.js";

const row = { document: 7, version: "3", path: "berth/cone.dxf" };
const stand = (standing) => standOf(row, standing ? [{ document: 7, path: "berth/cone.dxf", sha256: "ab", gets: "3", had: "3", ...standing }] : []);

export default {
  "the way from a parent to its component goes up only as far as it must": () => {
    same(relative("TG40/well.stp", "TG40/cone.stp"), "cone.stp");
    same(relative("TG40/3000/well.stp", "TG40/cone.stp"), "../cone.stp");
    same(relative("TG40/3000/well.stp", "TG41/3000/cone.stp"), "../../TG41/3000/cone.stp");
    same(relative("well.stp", "TG40/cone.stp"), "TG40/cone.stp");
    same(relative("a/b/c.stp", "a/b"), "../b");
  },
  "what is even in its place at its version is there": () => {
    same(stand({ word: "even" }).there, true);
    same(stand({ word: "set", had: "3", gets: "5" }).there, true);
    same(stand({ word: "set", had: "2", gets: "3" }).there, false);
    same(stand({ word: "even", path: "elsewhere/cone.dxf" }).there, false);
    same(stand({ word: "behind", had: "2" }).there, false);
    same(stand({ word: "even", had: null }).there, true, "its bytes tell");
    same(stand(null).there, false);
  },
  "what is even on another line is not there": () => {
    same(stand({ word: "even", line: "t1" }).there, false, "the same bytes, and the desk works on a trial");
    same(standOf({ ...row, line: "t1" }, [{ ...row, line: "t1", sha256: "ab", word: "even", gets: "3", had: "3" }]).there, true);
  },
  "a version is read by its line": () => {
    same(versionSays("7"), "v7");
    same(versionSays("t12-3"), "t12/3");
  },
  "work that is in no version would be lost": () => {
    for (const word of ["ahead", "strayed", "new"]) same(stand({ word }).loses, true, word);
    for (const word of ["even", "behind", "set", "absent"]) same(stand({ word }).loses, false, word);
  },
  "a line without bytes stands in nobody's way": () => same(stand({ word: "absent", sha256: null }).standing, undefined),
  "another file at the place counts where the document lies nowhere": () => {
    const other = { document: 9, path: row.path, sha256: "cd", word: "even", version: 1 };
    same(standOf(row, [other]).standing.document, 9);
    same(standOf(row, [other, { ...row, path: "x.dxf", sha256: "ef", word: "even" }]).standing.path, "x.dxf");
  },
  "a bring is said in one sentence, with one and with many": () => {
    same(bringSays(1, 0, []), "1 comes.");
    same(bringSays(3, 1, []), "3 come, 1 stays as it is.");
    same(bringSays(0, 2, ["a", "b", "c", "d"]), "0 come, 2 stay as they are, 4 not to be had: a, b, c.");
  },
  "a check-out is said anew as rows are chosen": () => {
    same(checkOutSays(["HOLD", "HOLD", "COPY", "STAY"]),
      { heading: "Check out 2 of 4", button: "Check out 2 documents", sentence: "2 documents will be held by you, 1 comes as a copy, 1 stays." });
    same(checkOutSays(["HOLD"]).sentence, "1 document will be held by you.");
    same(checkOutSays(["STAY", "STAY"]).sentence, "0 documents will be held by you, 2 stay.");
  },
};
