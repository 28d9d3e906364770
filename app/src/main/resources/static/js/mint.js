// What every page does: keys, forms that are sent once, ways back, menus that close.
const typing = (target) => target instanceof Element && target.closest("input, textarea, select, [contenteditable]") !== null;
const el = (tag, text) => Object.assign(document.createElement(tag), { textContent: text });
const letters = () => document.documentElement.dataset.keys !== "off";

document.querySelectorAll("[data-here]").forEach((field) => { field.value = location.pathname + location.search; });
document.querySelectorAll("[data-zone]").forEach((field) => {
  field.value = Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
});
document.querySelectorAll("[data-origin]").forEach((text) => { text.textContent = location.origin + text.textContent; });
document.querySelectorAll("[data-remember]").forEach((field) => {
  const name = "mint." + field.dataset.remember;
  if (!field.value) field.value = localStorage.getItem(name) || "";
  field.form.addEventListener("submit", () => localStorage.setItem(name, field.value));
});

// The server answers a form that is posted twice alike; this only spares the second wait.
document.addEventListener("submit", (event) => {
  const form = event.target;
  if (!form.matches("[data-once]")) return;
  if (form.dataset.sent) { event.preventDefault(); return; }
  form.dataset.sent = "yes";
  setTimeout(() => delete form.dataset.sent, 8000);
});
window.addEventListener("pageshow", () => document.querySelectorAll("[data-sent]").forEach((f) => delete f.dataset.sent));

document.addEventListener("click", (event) => {
  const needs = event.target.closest("[data-needs]");
  const field = needs?.form.elements[needs.dataset.needs];
  if (field && !field.value.trim()) {
    event.preventDefault();
    field.setCustomValidity(`“${needs.textContent.trim()}” needs a remark.`);
    field.reportValidity();
    field.addEventListener("input", () => field.setCustomValidity(""), { once: true });
    return;
  }
  const back = event.target.closest("[data-back]");
  if (back && history.length > 1) { event.preventDefault(); history.back(); return; }
  document.querySelectorAll("details[open].more, .band details[open]").forEach((menu) => {
    if (!menu.contains(event.target)) menu.open = false;
  });
  if (event.target.closest("[data-show-keys]")) document.getElementById("keys").showModal();
  if (event.target.closest("[data-close-dialog]")) event.target.closest("dialog").close();
  if (!event.target.closest(".find")) document.getElementById("find-hints")?.replaceChildren();
});

let after = "";
document.addEventListener("keydown", (event) => {
  if (event.key === "Escape") {
    document.querySelectorAll("details[open].more, .band details[open]").forEach((menu) => { menu.open = false; });
    const hints = document.getElementById("find-hints");
    if (hints?.childElementCount) { hints.replaceChildren(); event.stopImmediatePropagation(); }
    return;
  }
  if (event.target.id === "find" && (event.key === "ArrowDown" || event.key === "ArrowUp")) { walkHints(event); return; }
  if (event.target.id === "find" && event.key === "Enter") {
    const on = document.querySelector("#find-hints a.on");
    if (on) { event.preventDefault(); location.href = on.href; }
    return;
  }
  if (typing(event.target) || event.ctrlKey || event.metaKey || event.altKey || !letters()) return;
  if (document.querySelector("dialog[open]")) return;
  if (after === "g") {
    after = "";
    const to = { t: "/today", s: "/shelves", c: "/changes", d: "/desk", i: "/in-tray" }[event.key];
    if (to) { event.preventDefault(); location.href = to; }
    return;
  }
  if (event.key === "g") { after = "g"; setTimeout(() => { after = ""; }, 1200); return; }
  if (event.key === "/") { event.preventDefault(); document.getElementById("find")?.focus(); return; }
  if (event.key === "?") { document.getElementById("keys")?.showModal(); return; }
  if (["o", "i", "r"].includes(event.key)) document.querySelector(`.acts [data-key="${event.key}"]`)?.click();
  if (event.key === "m") { document.querySelector("[data-compare]")?.click(); return; }
  if (event.key === "[" || event.key === "]") {
    const stops = [...document.querySelectorAll(".strip a")];
    const at = stops.findIndex((stop) => stop.classList.contains("picked"));
    const next = stops[at + (event.key === "]" ? 1 : -1)];
    if (next) location.href = next.getAttribute("href");
  }
});

function walkHints(event) {
  event.preventDefault();
  const hints = [...document.querySelectorAll("#find-hints a")];
  if (!hints.length) return;
  const at = hints.findIndex((hint) => hint.classList.contains("on"));
  const next = (at + (event.key === "ArrowDown" ? 1 : -1) + hints.length) % hints.length;
  hints.forEach((hint, i) => hint.classList.toggle("on", i === next));
}

// After a check-out the file comes by itself, once: to the desk of this browser, or else as a download.
const fetchNow = document.querySelector("[data-auto-fetch]");
const arrived = new URLSearchParams(location.search);
if (fetchNow && arrived.has("reinstated")) {
  history.replaceState(null, "", location.pathname);
  import("./desk/here.js").then(async ({ follow }) => {
    const { document: id, version, path } = fetchNow.dataset;
    const says = await follow(Number(id), Number(version), path).catch(() => null);
    if (says) fetchNow.parentElement.append(el("small", says));
  });
}
if (fetchNow && arrived.has("taken")) {
  history.replaceState(null, "", location.pathname);
  import("./desk/here.js").then(async ({ arrive }) => {
    const { document: id, version, path } = fetchNow.dataset;
    const name = await arrive(Number(id), Number(version), path).catch(() => null);
    if (name) {
      fetchNow.parentElement.append(el("small", `It lies on your desk ${name}: ${path}`));
      return;
    }
    const link = document.createElement("a");
    link.href = fetchNow.href;
    link.download = "";
    link.click();
  });
}

// How documents of this list stand on the desk of this browser, as it was last read.
const words = JSON.parse(localStorage.getItem("mint.words") ?? "null");
const whose = document.body.dataset.me;
if (words && words.me === whose) {
  // On the strip the desk's glyph stands at the version that lies there.
  const strip = document.querySelector("[data-pick-two]");
  const shownHere = strip?.dataset.pickTwo.split("/")[2];
  const lies = words.words[shownHere];
  const stop = lies && lies !== "absent" && strip.querySelector(`.strip a[data-version="${Number(words.versions?.[shownHere])}"] .stop`);
  if (stop) {
    const use = document.createElementNS("http://www.w3.org/2000/svg", "use");
    Object.entries({ href: `/static/glyphs.svg#desk-${/^[a-z]+$/.exec(lies)}`, class: "desk-glyph", x: Number(stop.getAttribute("x")) + 12, y: 43, width: 14, height: 14 })
      .forEach(([name, value]) => use.setAttribute(name, value));
    stop.after(use);
    stop.parentNode.setAttribute("aria-label", `${stop.parentNode.getAttribute("aria-label")}; on your desk ${words.desk}: ${lies}`);
  }
  document.querySelectorAll(".spines.structure .spine[data-id]").forEach((row) => {
    const word = words.words[row.dataset.id];
    if (!word || word === "absent") return;
    const text = el("span", word);
    text.className = "desk-word";
    text.title = `on the desk ${words.desk}`;
    text.insertAdjacentHTML("afterbegin", `<svg class="glyph desk-glyph" aria-hidden="true"><use href="/static/glyphs.svg#desk-${/^[a-z]+$/.exec(word)}"></use></svg>`);
    row.querySelector(".c-title")?.append(text);
  });
}

// The number of ticked rows stands in the button.
const ticked = document.querySelector("[data-count-ticked]");
if (ticked) {
  const boxes = [...document.querySelectorAll(".sheet-table input[type=checkbox]")];
  const say = () => {
    const n = boxes.filter((box) => box.checked).length;
    ticked.textContent = `${ticked.dataset.countTicked} ${n} ${n === 1 ? "document" : "documents"}`;
    ticked.disabled = n === 0;
  };
  boxes.forEach((box) => box.addEventListener("change", say));
  say();
}

// A choice that shows its result at once.
for (const choice of document.querySelectorAll("[data-choose]")) {
  choice.addEventListener("change", () => choice.form.submit());
}

// A check-out plan: what it comes to is said anew as rows are chosen.
const plan = document.querySelector("[data-page='check-out'] form");
if (plan?.querySelector("[data-plan-says]")) {
  const say = () => {
    const fates = [...plan.querySelectorAll(".plan-row")].map((row) => row.querySelector("select")?.value ?? row.dataset.fate);
    const count = (fate) => fates.filter((each) => each === fate).length;
    const [held, copies, stay] = [count("HOLD"), count("COPY"), count("STAY")];
    const documents = `${held} ${held === 1 ? "document" : "documents"}`;
    plan.querySelector("[data-plan-button]").textContent = `Check out ${documents}`;
    document.querySelector("[data-heading]").textContent = `Check out ${held} of ${fates.length}`;
    plan.querySelector("[data-plan-says]").textContent = `${documents} will be held by you`
      + (copies ? `, ${copies} ${copies === 1 ? "comes as a copy" : "come as copies"}` : "")
      + (stay ? `, ${stay} ${stay === 1 ? "stays" : "stay"}` : "") + ".";
  };
  plan.addEventListener("change", say);
}

// A plan that its person lets pass unseen is sent at once; what was done is shown, with the way back.
document.querySelector("form[data-unseen]")?.requestSubmit();
