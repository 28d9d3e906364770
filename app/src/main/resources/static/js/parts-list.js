// A parts list beside its sheet: picking a line rings its balloons and brings them into view.
import { svg } from "./dom.js";
import { stage } from "./stage.js";

const ROOM = 30;

export function begin(page) {
  const element = page.querySelector("[data-stage]");
  const drawing = element?.querySelector("svg");
  if (!drawing) return;
  const view = stage(element, {});
  const rings = svg("g", { class: "rings" });
  drawing.append(rings);
  const buttons = [...page.querySelectorAll("[data-ring]")];
  const boxes = (row) => row.dataset.boxes.split(";").map((text) => text.split(" ").map(Number));
  const show = (button) => {
    const on = button.getAttribute("aria-pressed") !== "true";
    buttons.forEach((each) => {
      each.setAttribute("aria-pressed", "false");
      each.closest("tr").classList.remove("ringed");
    });
    rings.replaceChildren();
    if (!on) return;
    button.setAttribute("aria-pressed", "true");
    button.closest("tr").classList.add("ringed");
    const all = boxes(button.closest("tr"));
    all.forEach(([x1, y1, x2, y2]) => {
      const r = Math.max(x2 - x1, y2 - y1) * 0.75;
      rings.append(svg("circle", { cx: (x1 + x2) / 2, cy: -(y1 + y2) / 2, r }));
    });
    const x = Math.min(...all.map((b) => b[0])) - ROOM;
    const y = Math.max(...all.map((b) => b[3])) + ROOM;
    view.lookAt({ x, y: -y, w: Math.max(...all.map((b) => b[2])) + ROOM - x, h: y - Math.min(...all.map((b) => b[1])) + ROOM });
  };
  buttons.forEach((button) => button.addEventListener("click", () => show(button)));
}
