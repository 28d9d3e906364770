// Two versions picked on the strip are compared; walking along it shows each version's picture.
import { el } from "./dom.js";

export function begin(box) {
  const tools = box.querySelector(".pick-two");
  if (tools) picking(box, tools);
  walking(box);
}

function walking(box) {
  const picture = el("img", { width: 231, height: 165, alt: "" });
  const words = el("figcaption");
  const look = el("figure", { class: "strip-look card-ours", hidden: "" }, picture, words);
  box.append(look);
  let waiting = 0;
  const show = (stop) => {
    clearTimeout(waiting);
    waiting = setTimeout(() => {
      picture.src = `${box.dataset.pickTwo}${stop.dataset.version}/thumbnail`;
      words.textContent = stop.getAttribute("aria-label");
      look.hidden = false;
      const at = stop.getBoundingClientRect();
      const within = box.getBoundingClientRect();
      const left = at.left + at.width / 2 - within.left - 126;
      look.style.left = `${Math.max(8, Math.min(left, within.width - 262))}px`;
    }, 180);
  };
  const hide = () => { clearTimeout(waiting); look.hidden = true; };
  box.querySelectorAll(".strip a[data-version]").forEach((stop) => {
    stop.querySelector("title")?.remove(); // the picture says it
    stop.addEventListener("pointerenter", () => show(stop));
    stop.addEventListener("focus", () => show(stop));
    stop.addEventListener("pointerleave", hide);
    stop.addEventListener("blur", hide);
  });
  box.addEventListener("keydown", (event) => { if (event.key === "Escape") hide(); });
}

function picking(box, tools) {
  const button = tools.querySelector("[data-pick-two-on]");
  const says = tools.querySelector("[data-pick-two-says]");
  const go = tools.querySelector("[data-pick-two-go]");
  const stops = [...box.querySelectorAll(".strip a[data-version]")];
  let on = false;
  let picked = [];
  tools.hidden = false;

  const show = () => {
    stops.forEach((stop) => stop.classList.toggle("second", on && picked.includes(stop.dataset.version)));
    button.setAttribute("aria-pressed", on);
    const pair = [...picked].sort((a, b) => a - b);
    go.hidden = pair.length < 2;
    if (pair.length === 2) {
      go.href = `${box.dataset.pickTwo}${pair[1]}/compare?old=${pair[0]}`;
      go.textContent = `Compare ${pair[0]} and ${pair[1]}`;
    }
    says.textContent = !on ? "" : pair.length === 0 ? "Pick two versions on the strip." : pair.length === 1 ? `Version ${pair[0]}, and one more.` : "";
  };
  const pick = (version) => {
    picked = picked.includes(version) ? picked.filter((v) => v !== version) : [...picked, version].slice(-2);
    show();
  };
  button.addEventListener("click", () => { on = !on; picked = []; show(); if (on) stops[0]?.focus(); });
  stops.forEach((stop) => stop.addEventListener("click", (event) => {
    if (!on && !event.shiftKey) return;
    event.preventDefault();
    on = true;
    pick(stop.dataset.version);
  }));
  box.addEventListener("keydown", (event) => {
    if (event.key === "Escape" && on) { on = false; picked = []; show(); button.focus(); }
  });
}
