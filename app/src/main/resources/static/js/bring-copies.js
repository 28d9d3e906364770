// Neutral copies of a version: chosen or dropped on their own line, sent, and laid beside its file.
import { chosenByKey, plural } from "./dom.js";
import { sendAll, words } from "./upload.js";

export function begin(form) {
  const says = form.querySelector("[data-says]");
  const input = form.querySelector("input[type=file]");
  const bring = async (files) => {
    if (!files.length) return;
    input.disabled = true;
    says.textContent = `${plural(files.length, "file")} on the way`;
    const sent = await sendAll(files, () => {});
    const failed = sent.findIndex((one) => one.error);
    if (failed >= 0) {
      says.textContent = `${files[failed].name}: ${words(sent[failed].error)} Nothing was laid beside the file.`;
      input.disabled = false;
      input.value = "";
      return;
    }
    sent.forEach(({ token }) => {
      const field = document.createElement("input");
      Object.assign(field, { type: "hidden", name: "uploads", value: token });
      form.append(field);
    });
    form.submit();
  };
  input.addEventListener("change", () => bring([...input.files]));
  chosenByKey(form);
  form.addEventListener("dragover", (event) => { event.preventDefault(); form.classList.add("over"); });
  form.addEventListener("dragleave", () => form.classList.remove("over"));
  form.addEventListener("drop", (event) => {
    event.preventDefault();
    form.classList.remove("over");
    bring([...event.dataTransfer.files]);
  });
}
