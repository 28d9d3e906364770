// A file that is chosen is read into the field beside it, where it is seen before it is sent.
export function begin(chooser) {
  const field = document.getElementById(chooser.dataset.textFile);
  chooser.addEventListener("change", async () => {
    const [file] = chooser.files;
    if (!file) return;
    field.value = file.size <= Number(field.maxLength) ? await file.text() : "";
    field.placeholder = field.value ? field.placeholder : `${file.name} is too long to be read here.`;
    field.focus();
  });
}
