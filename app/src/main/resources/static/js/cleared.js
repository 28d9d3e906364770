// What was checked in may leave the desk; a stray stays there.
import { plural } from "./dom.js";
import { clearNow } from "./desk/here.js";

export async function begin(says) {
  const done = [...document.querySelectorAll("[data-done]")].filter((row) => row.dataset.became !== "stray");
  const n = await clearNow(done.map((row) => Number(row.dataset.done)));
  if (n) says.textContent = `${plural(n, "file was", "files were")} cleared off your desk.`;
}
