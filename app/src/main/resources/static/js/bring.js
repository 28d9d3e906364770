// Bringing files: dropped or chosen, sent in slices that can be resumed, then handed to the filing sheet or the check-in.
const SLICE = 8 << 20;
const TRIES = 8;
const token = document.querySelector("meta[name=csrf]")?.content;
const headers = { "X-CSRF-TOKEN": token };
const pause = (ms) => new Promise((done) => setTimeout(done, ms));

class Problem extends Error {}

async function ask(method, url, body) {
  const answer = await fetch(url, { method, headers, body });
  if (answer.ok && !answer.redirected) return answer.json();
  if (answer.status === 409 || answer.status === 404) {
    const problem = await answer.json();
    throw new Problem([problem.detail, problem.remedy].filter(Boolean).join(" "));
  }
  if (answer.redirected || answer.status === 401 || answer.status === 403) {
    throw new Problem("Your session has ended. Sign in again; what was sent so far is kept for a day.");
  }
  throw new Error(`status ${answer.status}`);
}

/** Sends a file; a lost connection is picked up where the server stands. Gives the upload's token. */
async function send(file, onProgress) {
  let state = await ask("POST", `/uploads?name=${encodeURIComponent(file.name)}&size=${file.size}`);
  let failures = 0;
  while (!state.complete) {
    try {
      const slice = file.slice(state.received, Math.min(file.size, state.received + SLICE));
      const next = await ask("PUT", `/uploads/${state.token}?from=${state.received}`, slice);
      if (next.received > state.received || next.complete) failures = 0;
      state = next;
      onProgress(state.received);
    } catch (error) {
      if (error instanceof Problem || ++failures >= TRIES) throw error;
      await pause(500 * failures);
      state = await ask("GET", `/uploads/${state.token}`).catch((e) => { if (e instanceof Problem) throw e; return state; });
    }
  }
  onProgress(file.size);
  return state.token;
}

const size = (bytes) => (bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);
const words = (error) => (error instanceof Problem ? error.message : "The connection was lost. Drop the file again; what was filed before is untouched.");

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
  const bringTo = async (row, file) => {
    const says = row.querySelector("[data-says]");
    const field = document.querySelector(`[data-upload="${row.dataset.row}"]`);
    field.value = "";
    busy++;
    tell();
    try {
      field.value = await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; });
      says.textContent = `${file.name}, ${size(file.size)}`;
      row.classList.add("there");
      differences(row.dataset.row, field.value);
    } catch (error) {
      says.textContent = words(error);
      row.classList.remove("there");
    }
    busy--;
    tell();
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
}
