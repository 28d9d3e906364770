// The compare page: four ways to look, a list that steps through the sheet, ticks that stay.
import { el, letters, svg, typed } from "./dom.js";
import { stage } from "./stage.js";

export function begin(page) {
  if (!page.querySelector("[data-stage] > svg")) return;
  const panes = page.querySelector(".panes");
  const first = page.querySelector("[data-stage]");
  const scale = page.querySelector("[data-scale]");
  const view = stage(first, { onMove: () => { scale.textContent = `${view.percent()} %`; place(); } });
  const items = [...page.querySelectorAll("[data-number]")];
  const part = (root, name) => root.querySelector(`svg > g.${name}`);
  const calm = matchMedia("(prefers-reduced-motion: reduce)").matches;
  let mode = "over";
  let timer = 0;
  let at = 0.5;

  const second = el("div", { class: "stage", "data-stage": "" });
  const handle = el("div", { class: "swipe-handle", "data-handle": "", tabindex: 0, role: "slider", "aria-label": "Old to the left, new to the right" });

  const hide = (root, name, hidden) => { part(root, name).style.visibility = hidden ? "hidden" : ""; };
  const plain = () => {
    clearInterval(timer);
    second.remove();
    handle.remove();
    ["old", "now"].forEach((name) => { hide(first, name, false); part(first, name).style.clipPath = ""; });
  };
  /** Cuts the old sheet at the right of the handle and the new one at its left. */
  function place() {
    if (mode !== "swipe") return;
    const box = first.getBoundingClientRect();
    handle.style.left = `${at * 100}%`;
    handle.setAttribute("aria-valuenow", Math.round(at * 100));
    const x = view.at(box.left + at * box.width, box.top).x;
    const far = view.fit.w * 20;
    cut(part(first, "old"), x - far, x);
    cut(part(first, "now"), x, x + far);
  }
  function cut(group, from, to) {
    const id = `cut-${group.getAttribute("class")}`;
    let clip = first.querySelector(`#${id}`);
    if (!clip) {
      clip = svg("clipPath", { id }, svg("rect"));
      first.querySelector("svg").prepend(clip);
    }
    const rect = clip.firstChild;
    rect.setAttribute("x", from);
    rect.setAttribute("width", to - from);
    rect.setAttribute("y", view.fit.y - view.fit.h * 20);
    rect.setAttribute("height", view.fit.h * 41);
    group.style.clipPath = `url(#${id})`;
  }
  const turn = (wanted) => {
    plain();
    mode = wanted;
    panes.dataset.mode = mode;
    page.querySelectorAll("[data-mode-button]").forEach((b) => b.setAttribute("aria-pressed", b.dataset.modeButton === mode));
    if (mode === "beside") {
      second.replaceChildren(first.querySelector("svg").cloneNode(true));
      panes.append(second);
      hide(first, "now", true);
      hide(second, "old", true);
    }
    if (mode === "swipe") { first.append(handle); place(); }
    if (mode === "blink") {
      let now = false;
      const flip = () => { now = !now; hide(first, "old", now); hide(first, "now", !now); };
      flip();
      timer = setInterval(flip, calm ? 2500 : 700);
    }
  };
  page.querySelectorAll("[data-mode-button]").forEach((b) => b.addEventListener("click", () => turn(b.dataset.modeButton)));
  handle.addEventListener("pointerdown", (event) => handle.setPointerCapture(event.pointerId));
  handle.addEventListener("pointermove", (event) => {
    if (!handle.hasPointerCapture(event.pointerId)) return;
    const box = first.getBoundingClientRect();
    at = Math.min(1, Math.max(0, (event.clientX - box.left) / box.width));
    place();
  });
  handle.addEventListener("keydown", (event) => {
    const step = { ArrowLeft: -0.02, ArrowRight: 0.02 }[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    at = Math.min(1, Math.max(0, at + step));
    place();
  });

  let current = -1;
  const go = (index) => {
    current = (index + items.length) % items.length;
    items.forEach((item, i) => item.toggleAttribute("data-current", i === current));
    const item = items[current];
    item.scrollIntoView({ block: "nearest" });
    const [x1, y1, x2, y2] = item.dataset.box.split(" ").map(Number);
    view.lookAt({ x: x1, y: -y2, w: x2 - x1, h: y2 - y1 });
    page.querySelectorAll("[data-difference]").forEach((ring) => ring.toggleAttribute("data-current", ring.dataset.difference === item.dataset.number));
  };
  items.forEach((item, i) => item.querySelector("button").addEventListener("click", () => go(i)));
  page.querySelectorAll("[data-step]").forEach((b) => b.addEventListener("click", () => go(current < 0 && b.dataset.step === "-1" ? -1 : current + Number(b.dataset.step))));
  document.addEventListener("keydown", (event) => {
    if (typed(event, "input:not([type=checkbox])") || !letters()) return;
    if (event.key === "n") go(current + 1);
    if (event.key === "p") go(current < 0 ? -1 : current - 1);
    if (event.key === "x" && current >= 0) items[current].querySelector("[data-tick]").click();
  });

  // Ticks are this person's own, kept in the browser by pair and sentence.
  const key = `ticks ${page.dataset.pair}`;
  const words = (item) => `${item.dataset.box} ${item.querySelector(".words").textContent}`;
  let ticked = new Set();
  try { ticked = new Set(JSON.parse(localStorage.getItem(key) || "[]")); } catch { /* unreadable: start anew */ }
  const left = page.querySelector("[data-left]");
  const tell = () => {
    const n = items.filter((item) => !item.querySelector("[data-tick]").checked).length;
    left.textContent = n ? `${n} of ${items.length} to look at` : "All looked at";
  };
  items.forEach((item) => {
    const box = item.querySelector("[data-tick]");
    box.checked = ticked.has(words(item));
    item.toggleAttribute("data-ticked", box.checked);
    box.addEventListener("change", () => {
      if (box.checked) ticked.add(words(item)); else ticked.delete(words(item));
      item.toggleAttribute("data-ticked", box.checked);
      localStorage.setItem(key, JSON.stringify([...ticked]));
      tell();
    });
  });
  tell();
}
