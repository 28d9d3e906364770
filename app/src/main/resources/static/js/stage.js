// A drawing that can be moved and zoomed: a CSS transform while it moves, drawn sharp when it rests.
// With a pen (wants, down, move, up, cancel) one finger draws where the pen wants it; two always move the sheet.
export function stage(element, { onMove = () => {}, onTap = () => {}, pen = null } = {}) {
  // By children alone: a question to the whole tree would pass a hundred thousand lines at each frame.
  const moved = () => [...element.parentElement.children].filter((pane) => "stage" in pane.dataset)
    .flatMap((pane) => [...pane.children].filter((child) => child.matches("svg.drawing, .moves")));
  const whole = element.querySelector("svg").viewBox.baseVal;
  const fit = { x: whole.x, y: whole.y, w: whole.width, h: whole.height };
  let drawn = { ...fit };
  let view = { ...fit };
  let frame = 0;
  let rest = 0;
  let owed = false; // whether it is to be drawn sharp once the hand lets go
  const fingers = new Map();
  // A transform that is only set has the browser put its layers together anew at each frame, a sheet's ten thousand texts one by
  // one. Under an animation, one that stands still and adds nothing, it tells them their new place alone.
  const lifted = new Map();
  const lift = (one) => {
    if (lifted.has(one)) return;
    const still = one.animate({ transform: ["translate(0)", "translate(0)"] }, { duration: 1000, composite: "add" });
    still.pause();
    lifted.set(one, still);
  };
  const putDown = () => { lifted.forEach((still) => still.cancel()); lifted.clear(); };

  const scaleOf = (v) => {
    const box = element.getBoundingClientRect();
    return Math.min(box.width / v.w, box.height / v.h);
  };
  const sharp = () => {
    rest = 0;
    // Not under a hand that only paused: to draw a large sheet takes longer than the pause, and the hand would wait for it.
    if (fingers.size) { owed = true; return; }
    drawn = { ...view };
    putDown();
    for (const one of moved()) {
      one.style.transform = "";
      for (const svg of one.matches("svg") ? [one] : one.children) svg.setAttribute("viewBox", `${view.x} ${view.y} ${view.w} ${view.h}`);
    }
  };
  const show = () => {
    frame = 0;
    const before = scaleOf(drawn);
    const now = scaleOf(view);
    const dx = (drawn.x + drawn.w / 2 - view.x - view.w / 2) * now;
    const dy = (drawn.y + drawn.h / 2 - view.y - view.h / 2) * now;
    moved().forEach((one) => { lift(one); one.style.transform = `translate(${dx}px, ${dy}px) scale(${now / before})`; });
    clearTimeout(rest);
    rest = setTimeout(sharp, 140);
    onMove(view);
  };
  const soon = () => { if (!frame) frame = requestAnimationFrame(show); };

  /** Where a point of the window lies on the sheet; k is sheet units a pixel. */
  const at = (clientX, clientY) => {
    const box = element.getBoundingClientRect();
    const k = 1 / scaleOf(view);
    return { x: view.x + view.w / 2 + (clientX - box.left - box.width / 2) * k, y: view.y + view.h / 2 + (clientY - box.top - box.height / 2) * k, k };
  };
  /** Where a point of the sheet lies in the element. */
  const from = (x, y) => {
    const box = element.getBoundingClientRect();
    const k = scaleOf(view);
    return { x: box.width / 2 + (x - view.x - view.w / 2) * k, y: box.height / 2 + (y - view.y - view.h / 2) * k };
  };
  const zoom = (factor, clientX, clientY) => {
    const w = Math.min(fit.w * 4, Math.max(fit.w / 4000, view.w / factor));
    const real = view.w / w;
    const p = at(clientX, clientY);
    view = { x: p.x - (p.x - view.x) / real, y: p.y - (p.y - view.y) / real, w, h: view.h / real };
    soon();
  };
  const middle = () => {
    const box = element.getBoundingClientRect();
    return [box.left + box.width / 2, box.top + box.height / 2];
  };
  /** Shows a box of the sheet (y downwards) with some room around it. */
  const lookAt = (box) => {
    const w = Math.max(box.w * 3, fit.w / 6);
    const h = Math.max(box.h * 3, fit.h / 6);
    view = { x: box.x + box.w / 2 - w / 2, y: box.y + box.h / 2 - h / 2, w, h };
    soon();
  };

  element.addEventListener("wheel", (event) => {
    event.preventDefault();
    zoom(Math.exp(-event.deltaY * 0.0016), event.clientX, event.clientY);
  }, { passive: false });

  // A sheet whose texts were selected by a drag would be taken along by the next one, as a picture.
  element.addEventListener("dragstart", (event) => event.preventDefault());
  let travelled = 0;
  let drawing = null;
  const letGo = (id) => {
    fingers.delete(id);
    if (fingers.size || !owed) return;
    owed = false;
    clearTimeout(rest);
    rest = setTimeout(sharp, 140);
  };
  element.addEventListener("pointerdown", (event) => {
    if (event.target.closest("[data-handle]")) return;
    element.setPointerCapture(event.pointerId);
    if (drawing !== null) { pen.cancel(); drawing = null; } else if (fingers.size === 0 && event.button === 0 && pen?.wants()) { drawing = event.pointerId; pen.down(event); }
    fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
    if (fingers.size === 1) travelled = 0;
  });
  element.addEventListener("pointermove", (event) => {
    const before = fingers.get(event.pointerId);
    if (!before) return;
    const now = { x: event.clientX, y: event.clientY };
    travelled += Math.hypot(now.x - before.x, now.y - before.y);
    if (drawing === event.pointerId) {
      pen.move(event);
    } else if (fingers.size === 2) {
      const other = [...fingers.entries()].find(([id]) => id !== event.pointerId)[1];
      const grown = Math.hypot(now.x - other.x, now.y - other.y) / Math.max(1, Math.hypot(before.x - other.x, before.y - other.y));
      zoom(grown, (now.x + other.x) / 2, (now.y + other.y) / 2);
    } else {
      const { k } = at(0, 0);
      view.x -= (now.x - before.x) * k;
      view.y -= (now.y - before.y) * k;
      soon();
    }
    fingers.set(event.pointerId, now);
  });
  element.addEventListener("pointerup", (event) => {
    const tapped = fingers.size === 1 && travelled < 5;
    letGo(event.pointerId);
    if (drawing === event.pointerId) { drawing = null; pen.up(event, tapped); return; }
    if (tapped) onTap(event);
  });
  element.addEventListener("lostpointercapture", (event) => letGo(event.pointerId));
  element.addEventListener("pointercancel", (event) => {
    letGo(event.pointerId);
    if (drawing === event.pointerId) { drawing = null; pen.cancel(); }
  });

  const act = (what) => {
    if (what === "fit") { view = { ...fit }; soon(); } else zoom(what === "in" ? 1.4 : 1 / 1.4, ...middle());
  };
  document.querySelectorAll("[data-zoom]").forEach((button) => button.addEventListener("click", () => act(button.dataset.zoom)));
  element.addEventListener("keydown", (event) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (step) {
      event.preventDefault();
      view.x += step[0] * view.w * 0.1;
      view.y += step[1] * view.h * 0.1;
      soon();
    }
    if (event.key === "+" || event.key === "=") act("in");
    if (event.key === "-") act("out");
    if (event.key === "0") act("fit");
  });
  new ResizeObserver(() => soon()).observe(element);
  soon();
  /** Shows exactly a box that was seen before. */
  const restore = (box) => { view = { ...box }; soon(); };
  return { at, from, lookAt, fit, seen: () => ({ ...view }), restore, again: soon, percent: () => Math.round((fit.w / view.w) * 100) };
}
