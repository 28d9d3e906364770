// The check-in page: each file finds its row, from the desk by itself.
import { clearLater, deskFor } from "./desk/here.js";
import { chosenByKey, plural } from "./dom.js";
import { send, size, words } from "./upload.js";
import { veil } from "./veil.js";

export function begin(form) {
  const button = document.querySelector("[data-check-in]");
  const why = document.querySelector("[data-why]");
  let busy = 0;
  // What a trial brings back is held against its own line.
  const trial = form.dataset.trial ? `&trial=${form.dataset.trial}` : "";
  const tell = () => {
    const n = [...document.querySelectorAll("[data-upload]")].filter((field) => field.value
      || field.closest(".tline").querySelector("[data-takes-up]")?.checked
      || field.closest(".tline").querySelector("[data-copies] input[type=hidden]")?.value).length;
    button.disabled = n === 0 || busy > 0;
    button.textContent = n ? `Check in ${plural(n, "document")}` : "Check in";
    why.textContent = busy ? "Bytes are on their way." : n ? "" : "Bring at least one file.";
  };
  /** What the file changes on the sheet, as soon as it is there; checking in does not wait for it. */
  const differences = async (row, upload) => {
    const box = document.querySelector(`[data-brought="${row}"]`);
    box.hidden = false;
    box.textContent = "Comparing the sheets";
    const answer = await fetch(`/check-in/differences?document=${row}&upload=${encodeURIComponent(upload)}${trial}`).catch(() => null);
    const html = answer?.ok ? (await answer.text()).trim() : "";
    const inside = html ? new DOMParser().parseFromString(html, "text/html").body : null;
    box.replaceChildren(...(inside ? inside.childNodes : []));
    box.hidden = !box.textContent.trim();
  };
  const bringTo = async (row, file, lies = false) => {
    const says = row.querySelector("[data-says]");
    const field = document.querySelector(`[data-upload="${row.dataset.row}"]`);
    field.value = "";
    document.querySelector(`[data-lies="${row.dataset.row}"]`).value = lies ? "true" : "";
    busy++;
    tell();
    try {
      field.value = await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; });
      says.textContent = `${file.name}, ${size(file.size)}${lies ? ", from your desk" : ""}`;
      row.classList.add("there");
      differences(row.dataset.row, field.value);
    } catch (error) {
      says.textContent = words(error);
      row.classList.remove("there");
    }
    busy--;
    tell();
  };
  /** What lies beside a file that only its own program reads. */
  const layBeside = async (box, files) => {
    const says = box.querySelector("[data-says]");
    const field = box.querySelector("input[type=hidden]");
    busy++;
    tell();
    try {
      const tokens = [];
      for (const file of files) tokens.push(await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; }));
      field.value = tokens.join(",");
      says.textContent = files.map((file) => file.name).join(", ");
      box.classList.add("there");
    } catch (error) {
      says.textContent = words(error);
      field.value = "";
    }
    busy--;
    tell();
  };
  const besides = [...document.querySelectorAll("[data-copies]")];
  besides.forEach((box) => {
    const input = box.querySelector("input[type=file]");
    input.addEventListener("change", () => { if (input.files.length) layBeside(box, [...input.files]); });
    chosenByKey(box);
  });
  /** Copies on the desk lie beside the file, under its name. */
  const copiesOnDesk = async (desk, standings, one, endings) => {
    const stem = one.path.replace(/\.[^./]*$/, "");
    const found = [];
    for (const ending of endings) {
      const path = `${stem}.${ending}`;
      if (path === one.path || standings.some((s) => s.path === path && s.document)) continue;
      const file = await desk.folder.file(path).catch(() => null);
      if (file) found.push(file);
    }
    return found;
  };
  /** What lies on this browser's desk need not be chosen. A file that is as the shelf has it stays where it is. */
  const fromDesk = async () => {
    const desk = await deskFor();
    if (!desk) return;
    form.elements.desk.value = desk.name;
    const standings = await desk.status().catch(() => null);
    if (!standings) return;
    const lying = [];
    for (const row of rows) {
      // Only what the desk has of the same line: bytes of a trial are none of the document's, nor the other way round.
      const one = standings.find((s) => String(s.document) === row.dataset.row && String(s.trial ?? "") === (form.dataset.trial ?? ""));
      const file = one && !["even", "absent", "behind", "set"].includes(one.word) && await desk.folder.file(one.path);
      if (!file) continue;
      lying.push({ document: one.document, path: one.path, sha256: one.sha256 });
      await bringTo(row, file, true);
      const box = besides.find((b) => b.dataset.copies === row.dataset.row);
      const copies = box ? await copiesOnDesk(desk, standings, one, box.dataset.endings.split(",")) : [];
      if (copies.length) await layBeside(box, copies);
    }
    document.querySelector("[data-clears]").hidden = lying.length === 0;
    form.addEventListener("submit", () => clearLater(desk, document.getElementById("clear").checked ? lying : []));
  };
  document.querySelectorAll("[data-takes-up]").forEach((box) => box.addEventListener("change", tell));
  const rows = [...document.querySelectorAll("[data-row]")];
  rows.forEach((row) => {
    const input = row.querySelector("input[type=file]");
    input.addEventListener("change", () => { if (input.files[0]) bringTo(row, input.files[0]); });
    row.querySelector("label").addEventListener("keydown", (event) => {
      if (event.key === "Enter" || event.key === " ") { event.preventDefault(); input.click(); }
    });
    row.addEventListener("dragover", () => row.classList.add("over"));
    row.addEventListener("dragleave", () => row.classList.remove("over"));
  });
  veil(async (files, event) => {
    const over = event.target.closest?.("[data-row]");
    const onto = event.target.closest?.("[data-copies]");
    if (onto) { layBeside(onto, [...files]); return; }
    const copies = new Map();
    const asked = async (file) => {
      const answer = await fetch(`/check-in/match?name=${encodeURIComponent(file.name)}${trial}`);
      return answer.ok ? answer.json() : { documents: [], beside: [] };
    };
    const left = [];
    for (const file of files) {
      const box = besides.length && !over ? await asked(file).then(({ documents, beside }) => (
        documents.length === 0 && beside.length === 1 ? besides.find((b) => b.dataset.copies === beside[0]) : null)) : null;
      if (box) copies.set(box, [...(copies.get(box) ?? []), file]);
      else left.push(file);
    }
    copies.forEach((all, box) => layBeside(box, all));
    for (const file of left) {
      if (over && left.length === 1) { bringTo(over, file); continue; }
      if (rows.length === 1 && left.length === 1) { bringTo(rows[0], file); continue; }
      const found = (await asked(file)).documents;
      const row = found.length === 1 ? rows.find((each) => each.dataset.row === found[0]) : null;
      if (row) bringTo(row, file);
      else why.textContent = `“${file.name}” fits no row by its name. Drop it on the row that it belongs to.`;
    }
  });
  /** What the companion of a desk has sent before it opened this page. */
  const sent = rows.filter((row) => row.dataset.broughtSize);
  sent.forEach((row) => {
    row.querySelector("[data-says]").textContent = `${row.dataset.fileName}, ${size(Number(row.dataset.broughtSize))}, from your desk ${form.elements.desk.value}`;
    row.classList.add("there");
    differences(row.dataset.row, document.querySelector(`[data-upload="${row.dataset.row}"]`).value);
  });
  tell();
  if (!sent.length) fromDesk();
}
