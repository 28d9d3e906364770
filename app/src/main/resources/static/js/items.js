// One spine an item: what has one number in one folder lies folded under the first of it, each with its tab. Folded it leads to the page of the item,
// opened each leads to its own.
import { el } from "./dom.js";

const under = new WeakMap();

/** The rows that lie folded under a row; none of one that is opened, or has none. */
export const foldedUnder = (row) => (row.hasAttribute("data-opened") ? [] : under.get(row) ?? []);

/** Opens or folds an item; false where the row is none. */
export function turn(row, open) {
  if (!under.get(row)?.length) return false;
  row.toggleAttribute("data-opened", open);
  under.get(row).forEach((one) => hide(one, !open));
  row.querySelector(".item-tabs")?.setAttribute("aria-expanded", String(open));
  lead(row, !open);
  return true;
}

/** Where a row leads: to the page of its item, or to its own. */
function lead(row, toItem) {
  const own = `/documents/${row.dataset.id}`;
  row.dataset.href = toItem ? `${own}/item` : own;
  row.querySelector(".num a")?.setAttribute("href", row.dataset.href);
}

function hide(row, hidden) {
  row.hidden = hidden;
  row.style.display = hidden ? "none" : "";
}

/** The kind and the tabs of each that lies under it, on a button that opens the item. */
function tabs(head, rows) {
  head.querySelector(".item-tabs")?.remove();
  const button = el("button", { type: "button", class: "item-tabs", tabindex: -1, "aria-expanded": String(head.hasAttribute("data-opened")) });
  rows.forEach((row) => {
    button.append(el("span", {}, `+ ${row.querySelector(".c-kind").textContent.trim()} `, ...[...row.querySelectorAll(".c-rev .tab")].map((tab) => tab.cloneNode(true)),
      ` ${row.querySelector(".c-ver").textContent.trim()}`));
  });
  button.addEventListener("click", (event) => { event.stopPropagation(); turn(head, !head.hasAttribute("data-opened")); });
  const title = head.querySelector(".c-title");
  title.insertBefore(button, title.querySelector(".flag"));
}

/** Folds the rows that are there, and those that come. */
export function items(list) {
  if (!list.hasAttribute("data-items")) return;
  const watch = new MutationObserver(() => fold());
  function fold() {
    watch.disconnect();
    let head = null;
    let rows = [];
    const close = () => {
      if (!head) return;
      under.set(head, rows);
      if (!rows.length) {
        if (head.querySelector(".item-tabs")) lead(head, false);
        head.querySelector(".item-tabs")?.remove();
        return;
      }
      tabs(head, rows);
      lead(head, !head.hasAttribute("data-opened"));
      const folder = headingOf(head);
      rows.forEach((row) => hide(row, !head.hasAttribute("data-opened") || folder?.hasAttribute("data-folded")));
    };
    for (const row of list.children) {
      if (row.matches(".folder-head")) { close(); head = null; rows = []; }
      if (!row.matches(".spine")) continue;
      if (head && row.dataset.number === head.dataset.number) { rows.push(row); continue; }
      close();
      head = row;
      rows = [];
    }
    close();
    watch.observe(list, { childList: true, subtree: true });
  }
  const headingOf = (row) => {
    let at = row.previousElementSibling;
    while (at && !at.matches(".folder-head")) at = at.previousElementSibling;
    return at;
  };
  fold();
}
