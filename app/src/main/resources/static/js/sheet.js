// The sheet viewer: pan, zoom, layers, measuring, remarks.
import { svg } from "./dom.js";
import { stage } from "./stage.js";
import { measure } from "./measure.js";
import { sheetRedlines } from "./redline-sheet.js";
import { sheetRest } from "./sheet-rest.js";

export function begin(page) {
  const element = page.querySelector("[data-stage]");
  const drawing = element?.querySelector("svg");
  if (!drawing) return;
  const scale = document.querySelector("[data-scale]");
  let ruler = null;
  let marks = null;
  const view = stage(element, {
    onMove: () => {
      // Written only when it is another one: a text that is written anew makes the browser paint at each frame.
      const says = `${view.percent()} %`;
      if (scale.textContent !== says) scale.textContent = says;
      ruler?.draw();
    },
    onTap: (event) => { if (!marks?.tap(event)) ruler?.tap(event); },
    pen: { wants: () => marks?.wants(), down: (e) => marks.down(e), move: (e) => marks.move(e), up: (e, tapped) => marks.up(e, tapped), cancel: () => marks.cancel() },
  });
  const box = page.dataset.look;
  if (box) {
    const [x1, y1, x2, y2] = box.split(" ").map(Number);
    view.lookAt({ x: x1, y: -y2, w: x2 - x1, h: y2 - y1 });
  }
  const found = page.dataset.found;
  if (found) {
    // What was looked for stands out, with enough of the page around it to be read.
    const [x1, y1, x2, y2] = found.split(" ").map(Number);
    drawing.append(svg("rect", { class: "found", x: x1 - 1, y: -y2 - 1, width: x2 - x1 + 2, height: y2 - y1 + 2 }));
    view.lookAt({ x: x1 - 40, y: -y2 - 40, w: x2 - x1 + 80, h: y2 - y1 + 80 });
  }
  const toggles = [...document.querySelectorAll("[data-toggle-layer]")];
  const show = (group) => {
    const toggle = toggles.find((one) => one.dataset.toggleLayer === group.dataset.layer);
    if (!toggle) return;
    if (toggle.checked) group.removeAttribute("visibility"); else group.setAttribute("visibility", "hidden");
  };
  toggles.forEach((toggle) => toggle.addEventListener("change", () => {
    drawing.querySelectorAll("g[data-layer]").forEach((group) => { if (group.dataset.layer === toggle.dataset.toggleLayer) show(group); });
  }));
  const rest = element.querySelector("[data-rest]");
  if (rest) sheetRest(rest, drawing, show);
  ruler = measure(element, view);
  if (page.querySelector("[data-remarks]")) marks = sheetRedlines(page, element, view, () => ruler?.off());
  element.focus();
}
