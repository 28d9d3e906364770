// The number of ticked rows stands in the button.
import { plural } from "./dom.js";

export function begin(button) {
  const boxes = [...button.form.querySelectorAll(".sheet-table input[type=checkbox], .fill-row input[type=checkbox]")];
  const say = () => {
    const n = boxes.filter((box) => box.checked).length;
    button.textContent = `${button.dataset.countTicked} ${plural(n, "document")}`;
    button.disabled = n === 0;
  };
  boxes.forEach((box) => box.addEventListener("change", say));
  say();
}
