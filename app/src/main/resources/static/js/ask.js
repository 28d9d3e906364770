// Asking for a change: by a request or by an order; each has its own fields and its own address.
import { plural } from "./dom.js";

export function begin(form) {
  const send = form.querySelector("[data-ask]");
  const turn = () => {
    const how = form.elements.how?.value;
    if (!how) return;
    form.querySelectorAll("[data-how]").forEach((part) => { part.hidden = part.dataset.how !== how; });
    const ids = (how === "request" ? form.dataset.request : form.dataset.order) || "";
    form.elements.items.value = ids;
    const named = new Set(ids.split(","));
    form.querySelectorAll("[data-row]").forEach((row) => row.classList.toggle("stays-out", !named.has(row.dataset.row)));
    send.textContent = `Ask for a change of ${plural(ids ? named.size : 0, "document")}`;
    if (how === "request") send.setAttribute("formaction", "/requests");
    else send.removeAttribute("formaction");
  };
  form.querySelectorAll("[name=how]").forEach((choice) => choice.addEventListener("change", turn));
  turn();
  form.querySelector("[data-fill-down]")?.addEventListener("click", () => {
    const fields = [...form.querySelectorAll("input[name^='why.']")];
    fields.slice(1).filter((field) => !field.value).forEach((field) => { field.value = fields[0].value; });
  });
}
