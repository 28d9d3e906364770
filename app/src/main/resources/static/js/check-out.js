// A check-out plan: what it comes to is said anew as rows are chosen.
import { checkOutSays } from "./plan.js";

export function begin(form) {
  const says = form.querySelector("[data-plan-says]");
  const say = () => {
    const fates = [...form.querySelectorAll(".plan-row")].map((row) => row.querySelector("select")?.value ?? row.dataset.fate);
    const said = checkOutSays(fates);
    form.querySelector("[data-plan-button]").textContent = said.button;
    document.querySelector("[data-heading]").textContent = said.heading;
    says.textContent = said.sentence;
  };
  if (says) form.addEventListener("change", say);
  // A plan that its person lets pass unseen is sent at once; what was done is shown, with the way back.
  if (form.matches("[data-unseen]")) form.requestSubmit();
}
