// The rows of a filing sheet: one thing set for all that are ticked, a field filled down, another kind with its facts at once.
// The table itself is replaced as it is looked at anew; what listens stays around it.
export function begin(around) {
  const table = () => around.querySelector("table");
  const rows = () => [...table().querySelectorAll("tbody tr")];
  const ticked = (row) => row.querySelector("[name$='.included']").checked;
  const field = (row, name) => row.querySelector(`[name$='.${name}']`);
  // What the server asks of another kind comes with what was typed kept.
  const look = () => table().dispatchEvent(new Event("look"));

  around.addEventListener("change", ({ target }) => {
    if (target.dataset.set) {
      if (target.value === "") return;
      // What is in preparation is what nothing is said of.
      const value = target.value === "preparing" ? "" : target.value;
      rows().filter(ticked).forEach((row) => { field(row, target.dataset.set).value = value; });
      if (target.dataset.set === "kind") look();
      target.value = "";
    } else if (target.matches("[data-kind], [data-apart]")) {
      look();
    } else if (target.matches("[data-uses]")) {
      // The one that is here is used in its place: nothing is filed of this row.
      const box = field(target.closest("tr"), "included");
      box.checked = !target.checked;
      box.dispatchEvent(new Event("change", { bubbles: true }));
    }
  });

  around.addEventListener("keydown", (event) => {
    if (event.key !== "ArrowDown" || !event.ctrlKey || !event.target.name) return;
    event.preventDefault();
    const name = event.target.name.replace(/^row\d+\./, "");
    const all = rows();
    let filled = 0;
    all.slice(all.indexOf(event.target.closest("tr")) + 1).filter(ticked).forEach((row) => {
      const below = row.querySelector(`[name$='.${CSS.escape(name)}']`);
      if (below) { below.value = event.target.value; filled++; }
    });
    if (filled && name === "kind") look();
    document.getElementById("live").textContent = `${filled} filled`;
  });
}
