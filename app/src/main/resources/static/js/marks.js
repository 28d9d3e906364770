// Marks over previews: a switch that is remembered, so that each preview draws them or none does.
const KEY = "mint.marks";

/** Around a picture there is no margin, as there is around what is drawn: a hundredth of its longer side. */
function trimmed(over) {
  const { x, y, width, height } = over.viewBox.baseVal;
  const margin = Math.max(width, height) / 102;
  over.setAttribute("viewBox", `${x + margin} ${y + margin} ${width - 2 * margin} ${height - 2 * margin}`);
}

async function draw(button) {
  const on = localStorage.getItem(KEY) === "on";
  const whole = button.parentElement.querySelector(".whole");
  button.setAttribute("aria-pressed", on);
  button.textContent = on ? "Hide marks" : "Show marks";
  whole?.querySelector(".over")?.remove();
  if (!on || !whole) return;
  const answer = await fetch(button.dataset.marksAt).catch(() => null);
  if (!answer?.ok || answer.redirected) { button.textContent = "The marks could not be read. Try again"; return; }
  const over = document.importNode(new DOMParser().parseFromString(await answer.text(), "image/svg+xml").documentElement, true);
  if (button.getAttribute("aria-pressed") !== "true" || whole.querySelector(".over")) return;
  over.classList.add("over");
  if (whole.querySelector("img")) trimmed(over);
  whole.append(over);
}

/** Draws marks over the previews below an element, where that is chosen. */
export const drawMarks = (root) => root.querySelectorAll("[data-marks-switch]").forEach(draw);

document.addEventListener("click", (event) => {
  if (!event.target.closest("[data-marks-switch]")) return;
  localStorage.setItem(KEY, localStorage.getItem(KEY) === "on" ? "off" : "on");
  drawMarks(document);
});
document.addEventListener("htmx:afterSettle", (event) => drawMarks(event.target.parentElement ?? document));
drawMarks(document);
