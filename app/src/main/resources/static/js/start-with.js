// A revision that begins with what lies on the desk: its bytes come before the form can be sent.
import { deskFor } from "./desk/here.js";
import { send, size, words } from "./upload.js";

export function begin(startWith) {
  const form = startWith.closest("form");
  const button = form.querySelector("button.btn-mint");
  const says = startWith.querySelector("[data-says]");
  button.disabled = true;
  deskFor().then(async (desk) => {
    const one = desk && (await desk.status()).find((s) => String(s.document) === startWith.dataset.startWith && !s.line);
    const file = one && await desk.folder.file(one.path);
    if (!file) { says.textContent = "The file is not on this browser's desk any more. Nothing was started."; return; }
    form.elements.upload.value = await send(file, (n) => { says.textContent = `${file.name}, ${size(n)} of ${size(file.size)}`; });
    form.elements.desk.value = desk.name;
    says.textContent = `It begins with ${file.name} from your desk, and is held by you.`;
    button.disabled = false;
  }).catch((error) => { says.textContent = words(error); });
}
