// The table of a taking-in: sent as it is chosen; what is wrong with it stands beside it.
import { chosenByKey } from "./dom.js";
import { ask } from "./http.js";
import { words } from "./upload.js";

export function begin(section) {
  chosenByKey(section);
  const refused = section.querySelector("[data-refused]");
  section.querySelector("[data-table-input]").addEventListener("change", async ({ target }) => {
    const [file] = target.files;
    if (!file) return;
    refused.hidden = true;
    target.value = "";
    try {
      await ask("PUT", `/api/v1/take-ins/${section.dataset.takeIn}/table?name=${encodeURIComponent(file.name)}`, file);
      window.location.reload();
    } catch (error) {
      refused.textContent = ` ${words(error)}`;
      refused.hidden = false;
    }
  });
}
