// The number of ticked rows stands in the button.
import { plural } from "./dom.js";

export function begin(button) {
  const say = () => {
    // Asked anew each time: rows may be replaced.
    const boxes = [...button.form.querySelectorAll(".sheet-table input[type=checkbox]:not([data-uses]), .fill-row input[type=checkbox]")];
    // Those of other pages count, too.
    const n = boxes.filter((box) => box.checked).length + Number(button.dataset.countMore ?? 0);
    button.textContent = `${button.dataset.countTicked} ${plural(n, "document")}`;
    button.disabled = n === 0;
  };
  button.form.addEventListener("change", say);
  button.form.addEventListener("htmx:afterSwap", say);
  say();
}
