// Files dropped on a shelf, or chosen: sent a few beside each other, then handed to the filing sheet.
import { el } from "./dom.js";
import { post } from "./http.js";
import { sendAll, size, words } from "./upload.js";
import { veil } from "./veil.js";

export function begin(shelf) {
  if (shelf.dataset.mayFile !== "true") return;
  const box = document.getElementById("progress-box");
  const bring = async (files) => {
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
    const refused = results.filter((one) => one.error).map((one) => words(one.error));
    box.append(...refused.map((refusal) => el("div", { class: "brick mt-1" }, refusal)));
    if (!tokens.length) return;
    const open = () => post(`/shelves/${shelf.dataset.shelf}/filings`, { ...(shelf.dataset.folder ? { folder: shelf.dataset.folder } : {}), uploads: tokens });
    if (!refused.length) { open(); return; }
    box.append(el("button", { class: "btn btn-mint btn-sm mt-2", onclick: open }, `File the other ${tokens.length}`));
  };
  veil(bring);
  const input = document.querySelector("[data-file-input]");
  input.addEventListener("change", () => { if (input.files.length) bring([...input.files]); input.value = ""; });
  document.querySelector("[data-file-button]").addEventListener("keydown", (event) => {
    if (event.key === "Enter" || event.key === " ") { event.preventDefault(); input.click(); }
  });
}
