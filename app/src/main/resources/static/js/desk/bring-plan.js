// "Bring to my desk": documents with what they consist of, each to its place, as a plan.
import { el, glyph, plural } from "../dom.js";
import { api } from "../http.js";
import { bringSays, relative, standOf, versionSays } from "../plan.js";

const VIEWS = [["as-saved", "as they were saved"], ["latest", "the latest"], ["latest-released", "the latest released"], ["none", "without components"]];

/**
 * @param version of an older one on purpose; the latest without
 * @param line of a trial, whose versions stand in the place of its documents; empty for the main lines
 */
async function rowsOf(ids, version, line, view, standings) {
  const rows = new Map();
  const missing = [];
  for (const id of ids) {
    const d = await api("GET", `/documents/${id}${line ? `?line=${line}` : ""}`);
    const wanted = version ?? d.gets;
    rows.set(d.id, { document: d.id, number: d.number, title: d.title, path: d.path, line: d.line, version: wanted, onPurpose: wanted !== d.gets, below: "" });
    if (view === "none") continue;
    const asked = line ? `&line=${line}` : version ? `&version=${version}` : "";
    const structure = await api("GET", `/documents/${id}/structure?view=${view}${asked}`);
    for (const c of structure.components) {
      if (!c.document || !c.version || !c.lies) { missing.push(c.path || "a component that is not for your eyes"); continue; }
      if (rows.has(c.document)) continue;
      rows.set(c.document, { document: c.document, number: c.number, title: c.title, path: c.lies, line: null, version: c.gets, onPurpose: view === "as-saved" && c.newer > 0, below: relative(d.path, c.lies) });
    }
  }
  for (const row of rows.values()) Object.assign(row, standOf(row, standings));
  return [[...rows.values()], missing];
}

/** Shows the plan when the address asks for one. */
export async function bringPlan(desk, standings, { page, act, bringAll, ways, say }) {
  const asked = new URLSearchParams(location.search);
  const ids = (asked.get("bring") ?? "").split(",").filter((id) => /^\d{1,18}$/.test(id)).slice(0, 500);
  const box = page.querySelector("[data-plan]");
  if (!ids.length) return;
  const version = /^\d{1,9}$/.test(asked.get("version") ?? "") ? asked.get("version") : null;
  const line = /^t\d{1,5}$/.test(asked.get("line") ?? "") ? asked.get("line") : "";
  const draw = async (view) => {
    box.hidden = false;
    box.replaceChildren("Looking what belongs to it");
    const [rows, missing] = await rowsOf(ids, version, line, view, standings());
    const choice = el("select", { class: "form-select form-select-sm w-auto", "aria-label": "Components", onchange: (e) => draw(e.target.value).catch((error) => say(error.message, "no")) },
      ...VIEWS.map(([code, words]) => el("option", { value: code, ...(code === view ? { selected: "" } : {}) }, words)));
    const ways3 = (row) => el("select", { class: "form-select form-select-sm w-auto", "data-way": row.document, "aria-label": `Your ${row.path}` },
      el("option", { value: "stay" }, "mine stays"), el("option", { value: "aside" }, "set mine aside"), ...(row.standing.document ? [el("option", { value: "replace" }, "mine becomes a stray")] : []));
    const lines = rows.map((row) => el("div", { class: "desk-row", "data-coming": row.document },
      el("span", { class: "desk-word" }, row.standing ? glyph(row.standing.word) : "", row.there ? "is here" : row.loses ? row.standing.word : row.standing ? "comes anew" : "comes"),
      el("span", { class: "desk-file" }, row.path, row.below ? el("small", { class: "quiet d-block mono" }, row.below) : null),
      el("span", { class: "desk-doc" }, el("span", { class: "mono" }, row.number, row.line ? ` ${row.line}` : ""), " ", el("span", { class: "quiet" }, row.title)),
      el("span", { class: "mono" }, versionSays(row.version)),
      el("span", { class: "desk-acts" }, row.loses ? ways3(row) : "")));
    const says = el("span", { class: "quiet" });
    const chosen = () => rows.filter((row) => !row.there && (!row.loses || box.querySelector(`[data-way="${row.document}"]`).value !== "stay"));
    const go = el("button", { type: "button", class: "btn btn-mint", onclick: () => {
      const coming = chosen();
      const way = Object.fromEntries([...box.querySelectorAll("[data-way]")].map((s) => [s.dataset.way, s.value]));
      act(async () => {
        for (const row of coming.filter((r) => r.loses)) {
          const now = standings().find((s) => s.path === row.standing.path);
          if (now?.sha256 !== row.standing.sha256) throw new TypeError(`${row.path} was changed meanwhile. Nothing was brought; look again.`);
          if (way[row.document] === "aside") { await desk.folder.aside(now.path); row.expect = null; } else { await ways.stray[1](now); row.expect = now.sha256; }
        }
        const came = await bringAll(coming.map((row) => ({ ...row, expect: row.loses ? row.expect : standings().find((s) => s.path === row.path)?.sha256 ?? null })));
        box.hidden = true;
        page.classList.remove("planning");
        history.replaceState(null, "", "/desk");
        say(`${plural(came.length, "file is", "files are")} on the desk now, each where its parents look for it.`);
      });
    } });
    const tell = () => {
      const n = chosen().length;
      go.textContent = n ? `Bring ${plural(n, "file")}` : "Nothing to bring";
      go.disabled = n === 0;
      says.textContent = bringSays(n, rows.length - n, missing);
    };
    box.replaceChildren(el("h2", { class: "h5" }, `Bring ${rows[0].number}${line ? ` ${line}` : ""} to my desk`, ids.length > 1 ? ` and ${ids.length - 1} more` : ""),
      el("div", { class: "d-flex gap-2 align-items-center mb-2" }, el("span", {}, "Components"), choice),
      el("div", { class: "card-ours mb-2" }, ...lines),
      el("div", { class: "foot-bar" }, go, says, el("a", { class: "btn btn-plain ms-auto", href: "/desk" }, "Not now")));
    page.classList.add("planning");
    box.addEventListener("change", tell);
    tell();
  };
  await draw("as-saved").catch((error) => { box.hidden = true; page.classList.remove("planning"); say(error.message, "no"); });
}
