// What came back of a pack, an archive or a folder: it is sent before the form can be.
import { chosenByKey, el, plural } from "./dom.js";
import { send, sendAll, size, words } from "./upload.js";
import { veil } from "./veil.js";
import { dropped, walk } from "./walk-files.js";

const MOST = 2000;

export function begin(form) {
  const button = form.querySelector("button.btn-mint");
  const says = form.querySelector("[data-says]");
  const refused = form.querySelector("[data-refused]");
  const inputs = form.querySelectorAll("input[type=file]");
  let busy = false;
  let next = null;
  let fields = [];

  const carry = (name, value) => { fields.push(el("input", { type: "hidden", name, value })); };
  /** Sends while nothing else is sent; what was brought before is not part of the form any more. What is chosen meanwhile comes next, the last of it alone. */
  const bring = async (sent) => {
    if (busy) {
      next = sent;
      return;
    }
    busy = true;
    button.disabled = true;
    fields.forEach((field) => field.remove());
    fields = [];
    refused.replaceChildren();
    try {
      button.disabled = !(await sent());
      form.append(...fields);
    } catch (error) {
      says.textContent = words(error);
    }
    busy = false;
    const chosen = next;
    next = null;
    if (chosen) bring(chosen);
  };

  const archive = (file) => bring(async () => {
    carry("upload", await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; }));
    says.textContent = `${file.name}, ${size(file.size)}`;
    return true;
  });

  const folder = (found) => bring(async () => {
    if (!found.length || found.length > MOST) {
      says.textContent = found.length ? `${plural(found.length, "file")} are in it, and ${MOST} come back at once: bring what is of this pack alone.` : "No file is in it.";
      return false;
    }
    const begun = new Set();
    let bytes = 0;
    const results = await sendAll(found.map((one) => one.given), () => {}, (i, file) => {
      begun.add(i);
      bytes += file.size;
      says.textContent = `${begun.size} of ${plural(found.length, "file")}, ${found[i].path}`;
      return `/uploads?name=${encodeURIComponent(file.name)}&size=${file.size}`;
    });
    const missing = results.flatMap((one, i) => (one.error ? [`${found[i].path.includes("/") ? `${found[i].path}: ` : ""}${words(one.error)}`] : []));
    says.textContent = `${plural(found.length - missing.length, "file")}, ${size(bytes)}`;
    refused.replaceChildren(...missing.slice(0, 20).map((one) => el("div", { class: "brick wraps" }, one)),
      ...(missing.length > 20 ? [el("div", { class: "brick" }, `and ${missing.length - 20} more`)] : []));
    results.forEach((one, i) => { carry("path", found[i].path); carry("upload", one.token || ""); });
    return missing.length < found.length;
  });

  const isArchive = (files) => files.length === 1 && files[0].name.toLowerCase().endsWith(".zip");
  const files = (given) => (isArchive(given) ? archive(given[0]) : folder(given.map((file) => ({ path: file.name, given: file }))));
  inputs.forEach((input) => input.addEventListener("change", () => {
    const given = [...input.files];
    if (!given.length) return;
    // The name of the folder itself is theirs.
    if (input.matches("[data-folder]")) folder(given.map((file) => ({ path: file.webkitRelativePath.split("/").slice(1).join("/") || file.name, given: file })));
    else files(given);
    input.value = "";
  }));
  chosenByKey(form);
  veil(async (given, event) => {
    // Before anything is waited for: what was dropped is forgotten then.
    const entries = dropped(event);
    if (entries.some((entry) => entry.isDirectory)) folder(await walk(entries, entries.length === 1));
    else files(given);
  });
  window.addEventListener("beforeunload", (event) => { if (busy) event.preventDefault(); });
}
