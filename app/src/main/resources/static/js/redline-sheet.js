// Marks over a sheet: a drawing, a page of a PDF, a picture.
import { el } from "./dom.js";
import { drafts } from "./redline-draft.js";
import { redlines } from "./redline.js";

export function sheetRedlines(page, element, view, toolChosen) {
  const tools = page.querySelector("[data-tools]");
  const only = () => new Set([...(tools?.querySelectorAll("[data-mark-pick]:checked") || [])].map((box) => box.dataset.markPick));
  const lines = page.querySelector("[data-measure]");
  // A page or a picture has no lines to snap to; sizes on a page are those of its paper.
  const geometry = async () => {
    if (!lines) return { scale: 1, lines: [], arcs: [], texts: [], dimensions: [] };
    const answer = await fetch(lines.dataset.measure);
    if (!answer.ok) throw new Error(String(answer.status));
    return answer.json();
  };
  const draft = drafts(view, geometry, only);
  // The sheet and its marks move as one surface: two of them cost twice the frame where no graphics card puts them together.
  // What is being drawn keeps a surface of its own, or each of its steps would paint the sheet anew.
  const moves = el("div", { class: "moves" });
  const sheet = element.querySelector("svg.drawing");
  sheet.replaceWith(moves);
  moves.append(sheet);
  let over = null;
  let marks = new Map();

  const surface = {
    draft,
    element,
    place: "On the sheet",
    fresh(part) {
      over?.remove();
      over = part.querySelector("[data-marks]").content.querySelector("svg");
      over.classList.add("over");
      marks = new Map([...over.querySelectorAll("[data-remark]")].map((mark) => [Number(mark.dataset.remark), mark]));
      moves.append(over);
      element.append(draft.layer);
      view.again();
    },
    show(id, visible) {
      const mark = marks.get(Number(id));
      if (mark) mark.style.display = visible ? "" : "none";
    },
    current: (id) => marks.forEach((mark, own) => mark.toggleAttribute("data-current", own === id)),
    look(row) {
      const seen = row.dataset.view ? row.dataset.view.split(" ").map(Number) : null;
      const [x1, y1, x2, y2] = row.dataset.box.split(" ").map(Number);
      const inside = seen && x1 >= seen[0] && x2 <= seen[2] && y1 >= seen[1] && y2 <= seen[3];
      if (inside) view.restore({ x: seen[0], y: -seen[3], w: seen[2] - seen[0], h: seen[3] - seen[1] });
      else {
        // Around the mark, with what lies about it: a small one alone says nothing.
        const w = Math.max(x2 - x1, view.fit.w / 6);
        const h = Math.max(y2 - y1, view.fit.h / 6);
        view.lookAt({ x: (x1 + x2 - w) / 2, y: -(y1 + y2 + h) / 2, w, h });
      }
    },
    fields() {
      const seen = view.seen();
      return { points: draft.points(), view: `${seen.x} ${-(seen.y + seen.h)} ${seen.x + seen.w} ${-seen.y}` };
    },
    /** The mark under a tap: of several the smallest. */
    under(event) {
      let best = null;
      marks.forEach((mark, id) => {
        if (mark.style.display === "none") return;
        const r = mark.getBoundingClientRect();
        if (event.clientX < r.left - 4 || event.clientX > r.right + 4 || event.clientY < r.top - 4 || event.clientY > r.bottom + 4) return;
        const area = r.width * r.height;
        if (!best || area < best.area) best = { id, area };
      });
      return best?.id;
    },
    measuring: () => element.classList.contains("measuring"),
    marking(on) {
      if (on) toolChosen();
      element.classList.toggle("marking", on);
    },
    inked: (on) => element.classList.toggle("inked", on),
    focus: () => element.focus(),
  };
  const list = redlines(page, surface);
  return {
    tap: list.tap,
    wants: () => draft.wants(),
    down: (event) => draft.down(event),
    move: (event) => draft.move(event),
    up: (event, tapped) => draft.up(event, tapped),
    cancel: () => draft.cancel(),
  };
}
