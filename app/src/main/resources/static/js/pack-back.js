// What came back of a pack: the archive is sent before the form can be.
import { chosenByKey } from "./dom.js";
import { send, size, words } from "./upload.js";
import { veil } from "./veil.js";

export function begin(form) {
  const button = form.querySelector("button.btn-mint");
  const says = form.querySelector("[data-says]");
  const input = form.querySelector("input[type=file]");
  const bring = async (file) => {
    button.disabled = true;
    try {
      form.elements.upload.value = await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; });
      says.textContent = `${file.name}, ${size(file.size)}`;
      button.disabled = false;
    } catch (error) {
      says.textContent = words(error);
    }
  };
  input.addEventListener("change", () => { if (input.files[0]) bring(input.files[0]); });
  chosenByKey(form);
  veil((files) => { if (files[0]) bring(files[0]); });
}
