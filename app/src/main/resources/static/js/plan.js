// What plans come to, in words. Knows no page.
import { plural } from "./dom.js";

/** The way from one place on a desk to another, as a parent writes it. */
export function relative(from, to) {
  const a = from.split("/").slice(0, -1);
  const b = to.split("/");
  let same = 0;
  while (same < a.length && same < b.length - 1 && a[same] === b[same]) same++;
  return "../".repeat(a.length - same) + b.slice(same).join("/");
}

/** A version as it is read, by its name in addresses: "v7", "t1/2". */
export const versionSays = (name) => (/^t/.test(name) ? name.replace("-", "/") : `v${name}`);

/**
 * How a version that is to come finds the desk: what stands in its way or is the same document, whether it is there already, and
 * whether work would be lost.
 *
 * @param row document, version as addresses name it, path, line of a trial or nothing
 * @param standings of the desk; only those with bytes count
 */
export function standOf(row, standings) {
  const lying = standings.filter((s) => s.sha256);
  const standing = lying.find((s) => s.document === row.document) ?? lying.find((s) => s.path === row.path);
  const word = standing?.word;
  return {
    standing,
    there: Boolean(standing) && standing.path === row.path && ["even", "set"].includes(word)
      && (standing.line ?? null) === (row.line ?? null) && (standing.had ?? standing.gets) === row.version,
    loses: ["ahead", "strayed", "new"].includes(word),
  };
}

/** What a bring comes to. */
export const bringSays = (come, stay, missing) => `${come} ${come === 1 ? "comes" : "come"}`
  + (stay ? `, ${stay} ${stay === 1 ? "stays as it is" : "stay as they are"}` : "")
  + (missing.length ? `, ${missing.length} not to be had: ${missing.slice(0, 3).join(", ")}` : "") + ".";

/** What a check-out comes to, by the fates of its rows: heading, button, sentence. */
export function checkOutSays(fates) {
  const count = (fate) => fates.filter((each) => each === fate).length;
  const [held, copies, stay] = [count("HOLD"), count("COPY"), count("STAY")];
  const documents = plural(held, "document");
  return {
    heading: `Check out ${held} of ${fates.length}`,
    button: `Check out ${documents}`,
    sentence: `${documents} will be held by you`
      + (copies ? `, ${copies} ${copies === 1 ? "comes as a copy" : "come as copies"}` : "")
      + (stay ? `, ${stay} ${stay === 1 ? "stays" : "stay"}` : "") + ".",
  };
}
