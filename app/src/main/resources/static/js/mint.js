// What every page does: keys, forms that are sent once, ways back, menus that close.
import { letters, typed } from "./dom.js";
import "./marks.js";

const here = (part) => part.querySelectorAll("[data-here]").forEach((field) => { field.value = location.pathname + location.search; });
here(document);
document.addEventListener("htmx:load", (event) => here(event.detail.elt)); // what comes later goes back here too
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
  // Remarks that are cited are words, too.
  if (field && !field.value.trim() && !needs.form.querySelector("[name=cite]:checked")) {
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
  if (typed(event) || !letters()) return;
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
  if (["n", "p"].includes(event.key)) document.querySelector(`.walk-on [data-key="${event.key}"]`)?.click();
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

// A file whose text goes into a field, where it can be read before it is sent.
for (const file of document.querySelectorAll("[data-read-into]")) {
  file.addEventListener("change", async () => {
    const chosen = file.files[0];
    if (chosen) document.getElementById(file.dataset.readInto).value = await chosen.text();
  });
}

// All boxes of a list at once, or none of them.
for (const button of document.querySelectorAll("[data-check-all]")) {
  button.addEventListener("click", () => {
    const boxes = [...document.querySelectorAll(`input[type=checkbox][name="${button.dataset.checkAll}"]`)];
    const all = boxes.every((box) => box.checked);
    boxes.forEach((box) => { box.checked = !all; });
  });
}

// A choice that shows its result at once.
for (const choice of document.querySelectorAll("[data-choose]")) {
  choice.addEventListener("change", () => choice.form.submit());
}
