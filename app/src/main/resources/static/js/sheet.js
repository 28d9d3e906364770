// The sheet viewer: pan, zoom, layers. Moving changes the view box once a frame.
const stage = document.querySelector("[data-stage]");
const drawing = stage?.querySelector("svg");
if (drawing) begin();

function begin() {
  const whole = drawing.viewBox.baseVal;
  const fit = { x: whole.x, y: whole.y, w: whole.width, h: whole.height };
  let view = { ...fit };
  let frame = 0;
  const scale = document.querySelector("[data-scale]");

  const show = () => {
    frame = 0;
    drawing.setAttribute("viewBox", `${view.x} ${view.y} ${view.w} ${view.h}`);
    scale.textContent = `${Math.round((fit.w / view.w) * 100)} %`;
  };
  const soon = () => { if (!frame) frame = requestAnimationFrame(show); };
  /** Where a point of the window lies on the sheet. */
  const at = (clientX, clientY) => {
    const box = stage.getBoundingClientRect();
    const k = Math.max(view.w / box.width, view.h / box.height);
    return {
      x: view.x + view.w / 2 + (clientX - box.left - box.width / 2) * k,
      y: view.y + view.h / 2 + (clientY - box.top - box.height / 2) * k,
      k,
    };
  };
  const zoom = (factor, clientX, clientY) => {
    const w = Math.min(fit.w * 4, Math.max(fit.w / 2000, view.w / factor));
    const real = view.w / w;
    const p = at(clientX, clientY);
    view = { x: p.x - (p.x - view.x) / real, y: p.y - (p.y - view.y) / real, w, h: view.h / real };
    soon();
  };
  const middle = () => {
    const box = stage.getBoundingClientRect();
    return [box.left + box.width / 2, box.top + box.height / 2];
  };

  stage.addEventListener("wheel", (event) => {
    event.preventDefault();
    zoom(Math.exp(-event.deltaY * 0.0016), event.clientX, event.clientY);
  }, { passive: false });

  const fingers = new Map();
  stage.addEventListener("pointerdown", (event) => {
    stage.setPointerCapture(event.pointerId);
    fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
  });
  stage.addEventListener("pointermove", (event) => {
    const before = fingers.get(event.pointerId);
    if (!before) return;
    const now = { x: event.clientX, y: event.clientY };
    if (fingers.size === 2) {
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
  for (const end of ["pointerup", "pointercancel"]) stage.addEventListener(end, (event) => fingers.delete(event.pointerId));

  const act = (what) => {
    if (what === "fit") { view = { ...fit }; soon(); } else zoom(what === "in" ? 1.4 : 1 / 1.4, ...middle());
  };
  document.querySelectorAll("[data-zoom]").forEach((button) => button.addEventListener("click", () => act(button.dataset.zoom)));
  stage.addEventListener("keydown", (event) => {
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
  document.querySelectorAll("[data-toggle-layer]").forEach((box) => box.addEventListener("change", () => {
    drawing.querySelectorAll("g[data-layer]").forEach((group) => {
      if (group.dataset.layer !== box.dataset.toggleLayer) return;
      if (box.checked) group.removeAttribute("visibility"); else group.setAttribute("visibility", "hidden");
    });
  }));
  show();
  stage.focus();
}
