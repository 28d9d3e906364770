// Many rounds walked one after the other: the rail has them all, the sheet beside it is the one that is looked at.
import { letters, typed } from "./dom.js";

export function begin(form) {
  const rows = [...form.querySelectorAll(".many-row")];
  const sign = form.querySelector("[data-many-sign]");
  let at = 0;

  function count() {
    const chosen = rows.filter((row) => row.querySelector("input").checked).length;
    sign.textContent = chosen === rows.length ? `Sign all ${chosen}` : `Sign ${chosen} of ${rows.length}`;
    form.querySelectorAll(".foot-bar button").forEach((button) => { button.disabled = chosen === 0; });
  }

  function go(to) {
    at = (to + rows.length) % rows.length;
    rows.forEach((row, i) => row.toggleAttribute("data-current", i === at));
    rows[at].scrollIntoView({ block: "nearest" });
  }

  rows.forEach((row, i) => {
    row.querySelector("input").addEventListener("change", count);
    row.querySelector("[data-look]").addEventListener("click", () => go(i));
  });
  document.addEventListener("keydown", (event) => {
    if (typed(event, "input:not([type=checkbox]), textarea") || !letters() || event.ctrlKey || event.metaKey) return;
    if (event.key === "n" || event.key === "p") {
      const to = (at + (event.key === "n" ? 1 : -1) + rows.length) % rows.length;
      rows[to].querySelector("[data-look]").click();
    }
    if (event.key === "x") rows[at].querySelector("input").click();
  });
  count();
}
