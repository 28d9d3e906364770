// A large sheet comes in parts: the largest lines are there, the others are laid beside them as they come.
import { el } from "./dom.js";

/** Hands on whole lines of what streams in. */
export async function eachLine(stream, take) {
  const reader = stream.pipeThrough(new TextDecoderStream()).getReader();
  let open = [];
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    const parts = value.split("\n");
    open.push(parts[0]);
    for (let i = 1; i < parts.length; i++) {
      await take(open.join(""));
      open = [parts[i]];
    }
  }
  // A part that was cut off is none.
  if (open.join("") !== "") throw new Error("cut off");
}

const number = new Intl.NumberFormat("en-GB");

/**
 * @param says what tells how far it is, with the address of the rest
 * @param drawing that the rest belongs to
 * @param show makes a group shown or hidden, as its layer is
 */
export function sheetRest(says, drawing, show) {
  const all = Number(says.dataset.count);
  let last = [...drawing.querySelectorAll(":scope > g[data-layer]")].at(-1) ?? null;
  const begun = last;
  let there = 0;

  const lay = async (text) => {
    const part = new DOMParser().parseFromString(text, "image/svg+xml").documentElement;
    // The page stays at hand between two parts.
    await new Promise((resume) => { requestAnimationFrame(() => setTimeout(resume)); });
    const groups = [...part.children].map((group) => document.importNode(group, true));
    groups.forEach(show);
    if (last) last.after(...groups); else drawing.prepend(...groups);
    last = groups.at(-1) ?? last;
    there += Number(part.dataset.count);
    if (there < all) says.textContent = `${number.format(all - there)} more lines and texts come`;
  };

  async function bring() {
    there = 0;
    // A second time all of it comes anew: what was there goes first.
    while (begun && begun !== last && begun.nextElementSibling?.matches("g[data-layer]")) begun.nextElementSibling.remove();
    last = begun;
    try {
      const answer = await fetch(says.dataset.from);
      if (!answer.ok) throw new Error(`status ${answer.status}`);
      await eachLine(answer.body, lay);
      if (there < all) throw new Error("not all of it");
      says.remove();
    } catch {
      const again = el("button", { type: "button", class: "btn btn-line btn-sm" }, "Once more");
      again.addEventListener("click", () => { says.textContent = "It comes"; bring(); });
      says.replaceChildren(`${number.format(all - there)} lines and texts of this sheet did not come: what you see is not all of it. `, again);
    }
  }
  bring();
}
