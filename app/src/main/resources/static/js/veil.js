// What covers the page while files are dragged over it.

/** @param onDrop is given the files and the drop */
export function veil(onDrop) {
  const cover = document.getElementById("drop-veil");
  if (!cover) return;
  let depth = 0;
  const files = (event) => [...(event.dataTransfer?.types || [])].includes("Files");
  window.addEventListener("dragenter", (event) => { if (files(event)) { depth++; cover.hidden = false; event.preventDefault(); } });
  window.addEventListener("dragover", (event) => { if (files(event)) event.preventDefault(); });
  window.addEventListener("dragleave", () => { if (--depth <= 0) { depth = 0; cover.hidden = true; } });
  window.addEventListener("drop", (event) => {
    depth = 0;
    cover.hidden = true;
    if (!files(event)) return;
    event.preventDefault();
    const given = [...event.dataTransfer.files];
    if (given.length) onDrop(given, event);
  });
}
