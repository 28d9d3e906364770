// A file that is chosen is read into the field beside it, where it is seen before it is sent; one that is no text goes as Base64.
import { inBase64 } from "./dom.js";

export function begin(chooser) {
  const field = document.getElementById(chooser.dataset.textFile);
  chooser.addEventListener("change", async () => {
    const [file] = chooser.files;
    if (!file) return;
    const binary = chooser.dataset.binary && file.name.toLowerCase().endsWith("." + chooser.dataset.binary);
    const fits = (binary ? Math.ceil(file.size / 3) * 4 + 7 : file.size) <= Number(field.maxLength);
    field.value = fits ? (binary ? "base64:" + await inBase64(file) : await file.text()) : "";
    field.placeholder = field.value ? field.placeholder : `${file.name} is too long to be read here.`;
    field.focus();
  });
}
