// What a company has on its way to the shelf: a folder with all below it, or an archive. What came is not sent again.
import { chosenByKey, el, plural } from "./dom.js";
import { send, sendAll, size, words } from "./upload.js";
import { dropped, walk } from "./walk-files.js";

export function begin(box) {
  const at = `/take-ins/${box.dataset.takeIn}`;
  const told = box.querySelector("[data-progress]");
  const bar = el("progress", { class: "w-100", "aria-label": "Files sent" });
  const line = el("p", { class: "mb-1" });
  let busy = false;

  const ended = (refused) => {
    busy = false;
    if (!refused.length) { window.location.reload(); return; }
    told.append(...refused.slice(0, 20).map((one) => el("div", { class: "brick" }, one)));
    if (refused.length > 20) told.append(el("div", { class: "brick" }, `and ${refused.length - 20} more`));
    told.append(el("a", { class: "btn btn-line btn-sm mt-2", href: at }, "Go on with what came"));
  };
  const begun = (most) => {
    busy = true;
    told.hidden = false;
    bar.max = Math.max(1, most);
    bar.value = 0;
    told.replaceChildren(line, bar);
  };

  async function folder(found) {
    begun(found.length);
    if (!found.length) { ended(["No file is in it."]); return; }
    let done = 0;
    const whole = new Set();
    const results = await sendAll(found.map((one) => one.given), () => {}, (i, file) => {
      if (!whole.has(i)) { whole.add(i); done = whole.size; }
      bar.value = done;
      line.textContent = `${done} of ${plural(found.length, "file")}, ${found[i].path}`;
      return `/uploads${at}/files?path=${encodeURIComponent(found[i].path)}&size=${file.size}`;
    });
    ended(results.flatMap((one, i) => (one.error ? [`${found[i].path}: ${words(one.error)}`] : [])));
  }

  async function archive(file) {
    begun(file.size);
    const show = (n) => { bar.value = n; line.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; };
    show(0);
    await send(file, show, file.name, `/uploads${at}/archive?name=${encodeURIComponent(file.name)}&size=${file.size}`)
      .then(() => ended([]), (error) => ended([words(error)]));
  }

  box.querySelector("[data-folder-input]").addEventListener("change", ({ target }) => {
    folder([...target.files].map((file) => ({ path: file.webkitRelativePath.split("/").slice(1).join("/") || file.name, given: file })));
    target.value = "";
  });
  box.querySelector("[data-archive-input]").addEventListener("change", ({ target }) => {
    if (target.files.length) archive(target.files[0]);
    target.value = "";
  });
  chosenByKey(box);
  window.addEventListener("dragover", (event) => { event.preventDefault(); box.classList.add("over"); });
  window.addEventListener("dragleave", () => box.classList.remove("over"));
  window.addEventListener("drop", async (event) => {
    event.preventDefault();
    box.classList.remove("over");
    if (busy) return;
    // Before anything is waited for: what was dropped is forgotten then.
    const entries = dropped(event);
    if (!entries.length) return;
    const one = entries[0];
    if (entries.length === 1 && one.isFile && one.name.toLowerCase().endsWith(".zip")) one.file(archive);
    else folder(await walk(entries, entries.length === 1));
  });
  window.addEventListener("beforeunload", (event) => { if (busy) event.preventDefault(); });
}
