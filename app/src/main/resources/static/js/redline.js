// Remarks: the list beside what is marked, their threads, the strip of tools. What the server says no to leaves the draft as it is.
// What is marked, a sheet or a model, shows the marks itself: see redline-sheet.js and model/redline.js.
import { el, letters, plural, typed, inBase64 } from "./dom.js";
import { token } from "./http.js";

const STAMPS = ["Seen", "Ask me", "Not for production", "As agreed"];
const CLOSED = new Set(["done", "declined", "withdrawn"]);

/**
 * @param surface what is marked: its draft, fresh(part, rows) when the list was read, show(id, visible), current(id), look(row),
 *   fields() of a finished draft, under(event) as an id, measuring(), marking(on), inked(on), focus()
 */
export function redlines(page, surface) {
  const side = page.querySelector("[data-remarks]");
  const part = side.querySelector("[data-remarks-part]");
  const tools = page.querySelector("[data-tools]");
  const bar = side.querySelector("[data-remarks-open]");
  const { document: id, version, layout = "" } = side.dataset;
  const address = `/documents/${id}/versions/${version}/remarks`;
  const hiddenSets = new Set();
  let states = new Set();
  let all = false; // whether the list is whole: of very many it begins with the first
  let picked = Number(side.dataset.wanted) || null;
  let look = { colour: "brick", letters: "3.5" };
  const hint = page.querySelector("[data-hint]");
  const say = (text) => { if (hint) hint.textContent = text; };
  const { draft } = surface;

  const rows = () => [...part.querySelectorAll("[data-row]")];
  const box = () => part.querySelector("[data-draft]");

  async function read() {
    const answer = await fetch(`${address}?layout=${encodeURIComponent(layout)}&all=${all}`, { headers: { "HX-Request": "true" } }).catch(() => null);
    if (!answer?.ok || answer.redirected) { part.replaceChildren(el("p", { class: "hint p-3", role: "alert" }, "The remarks could not be read. ", el("button", { type: "button", class: "btn btn-line btn-sm", onclick: read }, "Try again"))); return; }
    const before = box()?.hidden === false ? box() : null;
    const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector("#remarks");
    part.replaceChildren(fresh);
    if (before) box().replaceWith(before);
    surface.fresh(part, rows());
    readLooks();
    show();
    if (picked) pick(picked, { silent: true });
  }

  /** Which marks and rows are shown: by set, by state; what was closed on an earlier version lies in the list alone. */
  function show() {
    for (const row of rows()) {
      const { state, set } = row.dataset;
      const wanted = !hiddenSets.has(set) && (!states.size || states.has(state));
      row.hidden = !wanted;
      const past = CLOSED.has(state) && row.dataset.old === "true" && !states.has(state) && Number(row.dataset.row) !== picked;
      surface.show(row.dataset.row, wanted && !past);
    }
    part.querySelectorAll("[data-hide-set]").forEach((button) => {
      const hidden = hiddenSets.has(button.closest("[data-set]").dataset.set);
      button.textContent = hidden ? "Show" : "Hide";
      button.setAttribute("aria-pressed", hidden);
      button.closest("li").classList.toggle("put-away", hidden);
    });
    part.querySelectorAll("[data-state].btn").forEach((button) => button.setAttribute("aria-pressed", states.has(button.dataset.state)));
    const chosen = rows().filter((row) => !row.hidden);
    const many = part.querySelector("[data-many]");
    many.hidden = !(states.size || hiddenSets.size) || chosen.length === 0 || !tools;
    many.querySelector("[data-many-says]").textContent = `${chosen.length === 1 ? "This one" : `These ${chosen.length}`}:`;
    // What is given out is what is shown; of all of it the address says nothing, however many there are.
    part.querySelectorAll("[data-give] a").forEach((link) => {
      const whole = chosen.length === rows().length;
      const address = new URL(link.href);
      address.searchParams.delete("ids");
      if (!whole) address.searchParams.set("ids", chosen.map((row) => row.dataset.row).join(","));
      link.href = address.href;
    });
    many.elements.ids.value = chosen.map((row) => row.dataset.row).join(",");
    const open = rows().filter((row) => !CLOSED.has(row.dataset.state)).length;
    inked();
    bar.textContent = `${plural(Number(part.querySelector("[data-total]").dataset.total), "remark")}${open ? `, ${open} open` : ""}`;
  }

  /** Where something is marked the sheet is in one ink, so that marks are its only colour. */
  const inked = () => surface.inked(Boolean(draft.tool()) || rows().some((row) => !row.hidden));

  async function pick(wanted, { silent = false } = {}) {
    picked = wanted;
    const row = part.querySelector(`[data-row="${wanted}"]`);
    rows().forEach((other) => {
      const on = other === row;
      other.toggleAttribute("data-current", on);
      other.querySelector("[data-pick-remark]").setAttribute("aria-expanded", on);
      if (!on) other.querySelector("[data-thread]").hidden = true;
    });
    surface.current(wanted);
    if (!row) {
      // A mark whose row is not listed yet: the whole list is read, once.
      if (wanted && !all) { all = true; await read(); }
      return;
    }
    show();
    row.hidden = false;
    if (!silent || side.dataset.wanted) {
      surface.look(row);
      delete side.dataset.wanted;
    }
    row.scrollIntoView({ block: "nearest" });
    const thread = row.querySelector("[data-thread]");
    thread.hidden = false;
    const answer = await fetch(`/documents/${id}/remarks/${wanted}/thread`, { headers: { "HX-Request": "true" } }).catch(() => null);
    if (answer?.ok && !answer.redirected) {
      const fresh = new DOMParser().parseFromString(await answer.text(), "text/html");
      thread.replaceChildren(...fresh.body.children);
    } else thread.replaceChildren(el("p", { class: "hint", role: "alert" }, "The thread could not be read. Pick it again."));
  }

  const refused = (text) => {
    const line = part.querySelector("[data-refused]");
    line.textContent = text;
    line.hidden = !text;
  };

  const wordsOf = (html) => new DOMParser().parseFromString(html, "text/html").body.textContent.replace(/\s+/g, " ").trim() || "That did not work. Nothing was changed.";

  /** Sends a form; true when it was taken. What is refused is said in words, and nothing on the page is lost. */
  async function send(action, fields) {
    refused("");
    const body = new URLSearchParams(fields);
    const answer = await fetch(action, { method: "POST", body, redirect: "manual", headers: { "X-CSRF-TOKEN": token, "HX-Request": "true" } }).catch(() => null);
    if (answer && (answer.ok || answer.type === "opaqueredirect")) return true;
    if (!answer) refused("The shelf cannot be reached. What you wrote is still here; try again.");
    else if (answer.status === 401) refused("Your session has ended. Sign in again in another tab; what you wrote is still here.");
    else refused(wordsOf(await answer.text()));
    return false;
  }

  part.addEventListener("submit", async (event) => {
    const form = event.target.closest("form");
    event.preventDefault();
    if (form.closest("[data-draft]")) { finish(); return; }
    const fields = new FormData(form, event.submitter);
    const why = form.querySelector("[name=why]");
    if (event.submitter?.dataset.asks && why.hidden) { why.hidden = false; why.focus(); return; }
    if (await send(form.getAttribute("action"), fields)) {
      if (form.matches("[data-many]")) { states = new Set(); hiddenSets.clear(); }
      read();
    }
  });
  part.addEventListener("click", (event) => {
    const button = event.target.closest("button");
    if (!button) return;
    if (button.matches("[data-pick-remark]")) {
      const wanted = Number(button.closest("[data-row]").dataset.row);
      if (wanted === picked && button.getAttribute("aria-expanded") === "true") { pick(null); show(); } else pick(wanted);
    }
    if (button.matches("[data-hide-set]")) {
      const { set } = button.closest("[data-set]").dataset;
      if (!hiddenSets.delete(set)) hiddenSets.add(set);
      show();
    }
    if (button.matches(".remark-states [data-state]")) {
      if (!states.delete(button.dataset.state)) states.add(button.dataset.state);
      show();
    }
    if (button.matches("[data-list-all]")) { all = true; read(); }
    if (button.matches("[data-drop-draft]")) drop();
  });
  part.addEventListener("change", async (event) => {
    const chooser = event.target.closest("[data-take-in]");
    const [file] = chooser?.files || [];
    if (!file) return;
    refused("");
    const pdf = file.name.toLowerCase().endsWith(".pdf");
    const most = pdf ? 5 : 2;
    if (file.size > most << 20) { refused(`The file has more than ${most} MB. Give fewer remarks at once; nothing was taken in.`); return; }
    const body = new URLSearchParams({ actKey: crypto.randomUUID(), annotations: pdf ? "data:application/pdf;base64," + await inBase64(file) : await file.text() });
    const answer = await fetch(chooser.dataset.to, { method: "POST", body, redirect: "manual", headers: { "X-CSRF-TOKEN": token, "HX-Request": "true" } }).catch(() => null);
    if (!answer?.ok) { refused(answer ? wordsOf(await answer.text()) : "The shelf cannot be reached. Nothing was taken in."); return; }
    const { says } = await answer.json();
    await read();
    part.querySelector("[data-taken]").textContent = `You ${says}.`;
  });
  bar.addEventListener("click", () => bar.setAttribute("aria-expanded", side.classList.toggle("open")));

  // The look of marks: this one, all of mine here, from now on.
  function readLooks() {
    const template = part.querySelector("[data-looks]");
    const holder = tools?.querySelector("[data-look-box]");
    if (!template || !holder || holder.childElementCount) return;
    const colours = [...template.content.querySelectorAll("[data-colour]")];
    const sizes = [...template.content.querySelectorAll("[data-letters]")];
    look = { colour: colours.find((c) => c.dataset.now === "true").dataset.colour, letters: sizes.find((l) => l.dataset.now === "true").dataset.letters };
    const choose = (name, value) => { look[name] = value; paint(); };
    holder.append(
      el("div", { class: "swatches", role: "radiogroup", "aria-label": "Colour" }, ...colours.map((c) => el("button", { type: "button", role: "radio", class: `swatch ink-${c.dataset.colour}`, "aria-label": c.dataset.colour, "data-ink": c.dataset.colour, onclick: () => choose("colour", c.dataset.colour) }))),
      el("label", {}, "Letters, mm ", el("select", { class: "form-select form-select-sm", onchange: (event) => choose("letters", event.target.value) }, ...sizes.map((l) => el("option", { value: l.dataset.letters, selected: l.dataset.letters === look.letters ? "" : null }, l.dataset.letters)))),
      el("div", { class: "look-for" },
        el("button", { type: "button", class: "btn btn-line btn-sm", onclick: () => restyle([picked].filter(Boolean), false) }, "The picked one"),
        el("button", { type: "button", class: "btn btn-line btn-sm", onclick: () => restyle(rows().filter((row) => row.dataset.mine === "true" && !row.hidden).map((row) => row.dataset.row), false) }, "All of mine"),
        el("button", { type: "button", class: "btn btn-line btn-sm", onclick: () => restyle([], true) }, "From now on")));
    paint();
  }
  function paint() {
    const swatch = tools.querySelector("[data-swatch]");
    swatch.className = `swatch ink-${look.colour}`;
    draft.ink(getComputedStyle(swatch).backgroundColor);
    tools.querySelectorAll("[data-ink]").forEach((b) => b.setAttribute("aria-checked", b.dataset.ink === look.colour));
  }
  async function restyle(ids, from) {
    if (!ids.length && !from) { say("Pick one of your remarks first."); return; }
    const done = await send(`/documents/${id}/remarks/look`, { actKey: crypto.randomUUID(), ids: ids.join(","), from, ...look });
    if (!done) return;
    say(from ? "You draw in this look from now on." : "Your marks have this look now; others' stay as they are.");
    if (ids.length) read();
  }

  // Drawing.
  function choose(tool) {
    if (draft.busy()) drop();
    draft.choose(tool);
    surface.marking(Boolean(tool));
    tools.querySelectorAll("[data-tool]").forEach((b) => b.setAttribute("aria-pressed", b.dataset.tool === tool));
    say(draft.how());
    steps();
    inked();
  }
  const steps = () => {
    const [back, forth] = draft.steps();
    tools.querySelector("[data-undo]").disabled = !back;
    tools.querySelector("[data-redo]").disabled = !forth;
  };
  function changed() {
    steps();
    if (draft.complete()) ask();
    else if (!draft.busy()) closeForm();
    const measured = box()?.querySelector("[data-measured-says]");
    if (measured) measured.textContent = draft.measured() && `${draft.measured()} measured`;
  }
  function ask() {
    const holder = box();
    if (!holder || !holder.hidden) return;
    const tool = draft.tool();
    const name = tools.querySelector(`[data-tool="${tool}"] span`).textContent;
    const kinds = ["change", "question", "note"].map((kind, i) => el("label", {}, el("input", { type: "radio", name: "kind", value: kind, checked: i === (tool === "stamp" ? 2 : 0) ? "" : null }), el("span", {}, kind[0].toUpperCase() + kind.slice(1))));
    const form = el("form", { method: "post", action: address, "data-key": crypto.randomUUID() },
      el("p", { class: "mb-2" }, el("b", {}, `${name}, a draft`), " ", el("span", { class: "quiet", "data-measured-says": "" }, "")),
      el("div", { class: "kinds", role: "radiogroup", "aria-label": "Kind" }, ...kinds),
      tool === "size" ? el("label", { class: "d-block mt-2" }, "Wanted", el("input", { class: "form-control", name: "text", maxlength: 24, inputmode: "decimal" })) : null,
      tool === "stamp" ? el("label", { class: "d-block mt-2" }, "Word", el("input", { class: "form-control", name: "text", maxlength: 24, list: "stamp-words", value: STAMPS[0] }), el("datalist", { id: "stamp-words" }, ...STAMPS.map((word) => el("option", { value: word })))) : null,
      el("label", { class: "d-block mt-2" }, surface.place, el("input", { class: "form-control", name: "line", maxlength: 90, autocomplete: "off" })),
      el("details", { class: "mt-2" }, el("summary", { class: "quiet" }, "More words"), el("textarea", { class: "form-control mt-1", name: "description", rows: 3, maxlength: 2000, "aria-label": "More words" })),
      el("div", { class: "draft-buttons" }, el("button", { type: "button", class: "btn btn-line", "data-drop-draft": "" }, "Drop"), el("button", { class: "btn btn-mint" }, "Finish")));
    holder.replaceChildren(form);
    holder.hidden = false;
    side.classList.add("drafting");
    if (draft.measured()) form.querySelector("[data-measured-says]").textContent = `${draft.measured()} measured`;
    const first = form.elements.text || form.elements.line;
    if (tool !== "ink") { first.focus(); first.select?.(); }
  }
  function closeForm() {
    const holder = box();
    if (holder && !holder.hidden) { holder.hidden = true; holder.replaceChildren(); }
    side.classList.remove("drafting");
  }
  function drop() {
    draft.clear();
    closeForm();
    refused("");
    steps();
    say(draft.how());
    surface.focus();
  }
  let sending = false;
  async function finish() {
    const form = box().querySelector("form");
    if (sending || !form || !draft.complete()) return;
    sending = true;
    const fields = new FormData(form);
    Object.entries({ actKey: form.dataset.key, layout, tool: draft.tool(), ...look, ...surface.fields() }).forEach(([name, value]) => fields.set(name, value));
    const button = form.querySelector(".btn-mint");
    button.disabled = true;
    const kept = await send(address, fields);
    sending = false;
    button.disabled = false;
    if (!kept) return;
    draft.clear();
    closeForm();
    steps();
    await read();
    const mine = rows().filter((row) => row.dataset.mine === "true").map((row) => Number(row.dataset.row));
    if (mine.length) pick(Math.max(...mine), { silent: true });
    say(draft.how());
    surface.focus();
  }

  if (tools) {
    tools.querySelectorAll("[data-tool]").forEach((b) => b.addEventListener("click", () => choose(draft.tool() === b.dataset.tool ? null : b.dataset.tool)));
    tools.querySelector("[data-undo]").addEventListener("click", () => draft.undo());
    tools.querySelector("[data-redo]").addEventListener("click", () => draft.redo());
    surface.element.addEventListener("pointerdown", () => tools.querySelectorAll("details[open]").forEach((menu) => { menu.open = false; }));
    surface.element.addEventListener("pointermove", (event) => { if (!event.buttons) draft.hover(event); });
    document.addEventListener("keydown", (event) => {
      if (event.key === "Escape" && (draft.busy() || draft.tool())) {
        if (draft.busy()) drop(); else choose(null);
        event.stopPropagation();
      }
      if (event.key === "Enter" && draft.complete() && !event.target.closest("form, button, a, summary")) finish();
      if ((event.ctrlKey || event.metaKey) && event.key === "z" && draft.busy() && !event.target.closest("input, textarea")) { event.preventDefault(); if (event.shiftKey) draft.redo(); else draft.undo(); }
    });
  }
  document.addEventListener("keydown", (event) => {
    if (typed(event, "input:not([type=checkbox])") || !letters() || !["n", "p"].includes(event.key)) return;
    const shown = rows().filter((row) => !row.hidden);
    if (!shown.length) return;
    const now = shown.findIndex((row) => Number(row.dataset.row) === picked);
    const next = event.key === "n" ? now + 1 : now < 0 ? -1 : now - 1;
    pick(Number(shown[(next + shown.length) % shown.length].dataset.row));
  });

  draft.tell({ say, changed });
  read();
  return {
    tap(event) {
      // A click elsewhere finishes what has words; without any, the draft waits for them.
      if (draft.complete()) {
        if (box().querySelector("[name=line]")?.value.trim()) finish();
        return true;
      }
      if (draft.tap(event)) return true;
      if (surface.measuring()) return false;
      const mark = surface.under(event);
      if (mark) pick(mark, { silent: true });
      return Boolean(mark);
    },
  };
}
