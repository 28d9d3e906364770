// Files dropped on a shelf, or chosen: sent a few beside each other, then handed to the filing sheet.
import { el } from "./dom.js";
import { post } from "./http.js";
import { sendAll, size, words } from "./upload.js";
import { veil } from "./veil.js";
import { dropped, walk } from "./walk-files.js";

const MOST = 1000;

export function begin(shelf) {
  if (shelf.dataset.mayFile !== "true") return;
  const box = document.getElementById("progress-box");
  /** @param paths the folders of the files, by their places; none where they came without */
  const bring = async (files, paths = []) => {
    const total = files.reduce((sum, file) => sum + file.size, 0);
    const sent = new Map();
    box.hidden = false;
    box.replaceChildren();
    const line = el("div");
    const bar = el("progress", { max: Math.max(1, total), "aria-label": "Bytes sent" });
    box.append(line, bar);
    const show = () => {
      const done = [...sent.values()].reduce((a, b) => a + b, 0);
      const whole = files.filter((file, i) => sent.get(i) === file.size).length;
      bar.value = done;
      line.textContent = `${whole} of ${files.length} files, ${size(done)} of ${size(total)}`;
    };
    show();
    const results = await sendAll(files, (i, n) => { sent.set(i, n); show(); });
    const tokens = results.filter((one) => one.token).map((one) => one.token);
    const folders = paths.filter((path, i) => results[i].token);
    const refused = results.filter((one) => one.error).map((one) => words(one.error));
    box.append(...refused.map((refusal) => el("div", { class: "brick mt-1" }, refusal)));
    if (!tokens.length) return;
    const open = () => post(`/shelves/${shelf.dataset.shelf}/filings`, { ...(shelf.dataset.folder ? { folder: shelf.dataset.folder } : {}), uploads: tokens, ...(folders.some(Boolean) ? { paths: folders } : {}) });
    if (!refused.length) { open(); return; }
    box.append(el("button", { class: "btn btn-mint btn-sm mt-2", onclick: open }, `File the other ${tokens.length}`));
  };
  veil(async (files, event) => {
    const entries = dropped(event);
    if (!entries.some((entry) => entry.isDirectory)) { bring(files); return; }
    const found = await walk(entries, false);
    // A sheet shows each with all its fields: more are for who takes a folder in.
    if (!found.length || found.length > MOST) {
      box.hidden = false;
      box.replaceChildren(el("div", { class: "brick" }, found.length
        ? `${found.length} files are in it; a filing sheet takes ${MOST}. Drop a folder further down, or take it in, if you keep the shelf.` : "No file is in it."));
      return;
    }
    bring(await Promise.all(found.map((one) => one.given())), found.map((one) => one.path.split("/").slice(0, -1).join("/")));
  });
  const input = document.querySelector("[data-file-input]");
  input.addEventListener("change", () => { if (input.files.length) bring([...input.files]); input.value = ""; });
  document.querySelector("[data-file-button]").addEventListener("keydown", (event) => {
    if (event.key === "Enter" || event.key === " ") { event.preventDefault(); input.click(); }
  });
}
