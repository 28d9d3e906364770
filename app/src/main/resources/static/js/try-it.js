// Holds a file against the house rules: its first megabytes go up, an answer comes back, nothing is kept.
import { sendBytes } from "./http.js";

/** What is sent at most: enough for a title block, less than a page's limit. */
const MOST = 7 * 1024 * 1024;

export function begin(form) {
  const says = form.querySelector("[data-says]");
  const field = form.querySelector("[data-file]");
  const answer = document.querySelector("#answer");
  let dropped = null;

  const tried = async () => {
    form.name.value = dropped.name;
    says.textContent = `Looking at ${dropped.name} …`;
    const asked = new URLSearchParams({ name: dropped.name, person: form.person.value, folder: form.folder.value });
    try {
      const said = await sendBytes(`/house/try?${asked}`, "application/octet-stream", dropped.slice(0, MOST));
      if (!said.ok) throw new Error(`status ${said.status}`);
      const page = new DOMParser().parseFromString(await said.text(), "text/html");
      answer.replaceChildren(...page.body.childNodes);
      says.textContent = dropped.size > MOST
        ? `${dropped.name} is large: only its beginning was looked at. Nothing was stored.`
        : `This is what the rules make of ${dropped.name}. Nothing was stored.`;
    } catch {
      says.textContent = "The shelf did not answer. Nothing was stored; try it again.";
    }
  };
  const take = (file) => {
    if (!file) return;
    dropped = file;
    tried();
  };

  form.querySelector("[data-choose]").addEventListener("click", () => field.click());
  field.addEventListener("change", () => take(field.files[0]));
  document.addEventListener("dragover", (event) => event.preventDefault());
  document.addEventListener("drop", (event) => {
    event.preventDefault();
    take(event.dataTransfer.files[0]);
  });
  // Another name is another file; another person or folder asks about the same one again.
  form.name.addEventListener("input", () => { dropped = null; });
  form.addEventListener("submit", (event) => {
    if (!dropped) return;
    event.preventDefault();
    tried();
  });
}
