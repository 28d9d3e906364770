// Bringing files: dropped or chosen, sent in slices that can be resumed, then handed to the filing sheet or the check-in.
import { send, size, token, words } from "./upload.js";
import { clearLater, clearNow, deskFor } from "./desk/here.js";

function veil(onDrop) {
  const cover = document.getElementById("drop-veil");
  if (!cover) return;
  let depth = 0;
  const files = (event) => [...(event.dataTransfer?.types || [])].includes("Files");
  window.addEventListener("dragenter", (event) => { if (files(event)) { depth++; cover.hidden = false; event.preventDefault(); } });
  window.addEventListener("dragover", (event) => { if (files(event)) event.preventDefault(); });
  window.addEventListener("dragleave", () => { if (--depth <= 0) { depth = 0; cover.hidden = true; } });
  window.addEventListener("drop", (event) => {
    depth = 0;
    cover.hidden = true;
    if (!files(event)) return;
    event.preventDefault();
    const given = [...event.dataTransfer.files];
    if (given.length) onDrop(given, event);
  });
}

const shelf = document.querySelector("[data-page=shelf]");
if (shelf && shelf.dataset.mayFile === "true") {
  const box = document.getElementById("progress-box");
  const bring = async (files) => {
    const total = files.reduce((sum, file) => sum + file.size, 0);
    const sent = new Map();
    box.hidden = false;
    box.replaceChildren();
    const line = document.createElement("div");
    const bar = document.createElement("progress");
    bar.max = Math.max(1, total);
    bar.setAttribute("aria-label", "Bytes sent");
    box.append(line, bar);
    const tokens = [];
    const refused = [];
    const show = () => {
      const done = [...sent.values()].reduce((a, b) => a + b, 0);
      bar.value = done;
      line.textContent = `${tokens.length} of ${files.length} files, ${size(done)} of ${size(total)}`;
    };
    for (const file of files) {
      try {
        show();
        tokens.push(await send(file, (n) => { sent.set(file, n); show(); }));
      } catch (error) {
        refused.push(words(error));
      }
    }
    for (const refusal of refused) {
      const no = document.createElement("div");
      no.className = "brick mt-1";
      no.textContent = refusal;
      box.append(no);
    }
    if (!tokens.length) return;
    const open = () => {
      const form = document.createElement("form");
      form.method = "post";
      form.action = `/shelves/${shelf.dataset.shelf}/filings`;
      const add = (name, value) => {
        const field = document.createElement("input");
        field.type = "hidden"; field.name = name; field.value = value;
        form.append(field);
      };
      add("_csrf", token);
      if (shelf.dataset.folder) add("folder", shelf.dataset.folder);
      tokens.forEach((each) => add("uploads", each));
      document.body.append(form);
      form.submit();
    };
    if (!refused.length) { open(); return; }
    const go = document.createElement("button");
    go.className = "btn btn-mint btn-sm mt-2";
    go.textContent = `File the other ${tokens.length}`;
    go.addEventListener("click", open);
    box.append(go);
  };
  veil(bring);
  const input = document.querySelector("[data-file-input]");
  input.addEventListener("change", () => { if (input.files.length) bring([...input.files]); input.value = ""; });
  document.querySelector("[data-file-button]").addEventListener("keydown", (event) => {
    if (event.key === "Enter" || event.key === " ") { event.preventDefault(); input.click(); }
  });
}

const checkIn = document.querySelector("[data-page=check-in]");
if (checkIn && document.getElementById("check-in-form")) {
  const button = document.querySelector("[data-check-in]");
  const why = document.querySelector("[data-why]");
  let busy = 0;
  const tell = () => {
    const n = [...document.querySelectorAll("[data-upload]")].filter((field) => field.value
      || field.closest(".tline").querySelector("[data-takes-up]")?.checked).length;
    button.disabled = n === 0 || busy > 0;
    button.textContent = n ? `Check in ${n} ${n === 1 ? "document" : "documents"}` : "Check in";
    why.textContent = busy ? "Bytes are on their way." : n ? "" : "Bring at least one file.";
  };
  /** What the file changes on the sheet, as soon as it is there; checking in does not wait for it. */
  const differences = async (row, upload) => {
    const box = document.querySelector(`[data-brought="${row}"]`);
    box.hidden = false;
    box.textContent = "Comparing the sheets";
    const answer = await fetch(`/check-in/differences?document=${row}&upload=${encodeURIComponent(upload)}`).catch(() => null);
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
  /** What lies on this browser's desk need not be chosen. A file that is as the shelf has it stays where it is. */
  const fromDesk = async () => {
    const desk = await deskFor();
    if (!desk) return;
    form.elements.desk.value = desk.name;
    const standings = await desk.status().catch(() => null);
    if (!standings) return;
    const lying = [];
    for (const row of rows) {
      const one = standings.find((s) => String(s.document) === row.dataset.row);
      const file = one && !["even", "absent", "behind", "set"].includes(one.word) && await desk.folder.file(one.path);
      if (!file) continue;
      lying.push({ document: one.document, path: one.path, sha256: one.sha256 });
      await bringTo(row, file, true);
    }
    document.querySelector("[data-clears]").hidden = lying.length === 0;
    form.addEventListener("submit", () => clearLater(desk, document.getElementById("clear").checked ? lying : []));
  };
  document.querySelectorAll("[data-takes-up]").forEach((box) => box.addEventListener("change", tell));
  const rows = [...document.querySelectorAll("[data-row]")];
  const form = document.getElementById("check-in-form");
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
    for (const file of files) {
      if (over && files.length === 1) { bringTo(over, file); continue; }
      if (rows.length === 1 && files.length === 1) { bringTo(rows[0], file); continue; }
      const answer = await fetch(`/check-in/match?name=${encodeURIComponent(file.name)}`);
      const found = answer.ok ? (await answer.json()).documents : [];
      const row = found.length === 1 ? rows.find((each) => each.dataset.row === found[0]) : null;
      if (row) bringTo(row, file);
      else why.textContent = `“${file.name}” fits no row by its name. Drop it on the row that it belongs to.`;
    }
  });
  tell();
  fromDesk();
}

// What was checked in may leave the desk; a stray stays there.
const outcomes = [...document.querySelectorAll("[data-done]")];
if (outcomes.length) {
  clearNow(outcomes.filter((row) => row.dataset.became !== "stray").map((row) => Number(row.dataset.done)))
    .then((n) => { if (n) document.querySelector("[data-cleared]").textContent = n === 1 ? "1 file was cleared off your desk." : `${n} files were cleared off your desk.`; });
}

// A revision that begins with what lies on the desk: its bytes come before the form can be sent.
const startWith = document.querySelector("[data-start-with]");
if (startWith) {
  const form = startWith.closest("form");
  const button = form.querySelector("button.btn-mint");
  const says = startWith.querySelector("[data-says]");
  button.disabled = true;
  deskFor().then(async (desk) => {
    const one = desk && (await desk.status()).find((s) => String(s.document) === startWith.dataset.startWith);
    const file = one && await desk.folder.file(one.path);
    if (!file) { says.textContent = "The file is not on this browser's desk any more. Nothing was started."; return; }
    form.elements.upload.value = await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; });
    form.elements.desk.value = desk.name;
    says.textContent = `It begins with ${file.name} from your desk, and is held by you.`;
    button.disabled = false;
  }).catch((error) => { says.textContent = words(error); });
}
