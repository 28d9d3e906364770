// Look and Work on it: the companion on this machine brings the file and opens it. Which desk that is, this browser knows.
import { api } from "../http.js";
import { opensOn } from "./opens.js";

const EVERY = 400; // ms between two questions
const SLOW = 6000; // after that nobody seems to answer there
const LONGEST = 300000; // one that began and does not end was switched off

export function begin(box) {
  const desk = opensOn.get(document.body.dataset.me);
  if (!desk) return;
  const says = document.querySelector("[data-open-says]");
  const work = box.querySelector("[data-open='work']");
  box.hidden = false;
  if (work) {
    // The one next step is to work on it here; the others stay beside it.
    document.querySelector(".acts [data-instead]")?.remove();
    document.querySelectorAll(".acts [data-second]").forEach((other) => { other.classList.replace("btn-mint", "btn-line"); other.removeAttribute("data-key"); });
  }
  const tell = (text, more = []) => { says.hidden = false; says.replaceChildren(text, ...more); };
  const link = (text, href, click) => {
    const a = Object.assign(document.createElement("a"), { textContent: text, href });
    if (click) a.addEventListener("click", (event) => { event.preventDefault(); click(); });
    return a;
  };
  const nobody = () => tell(`${desk} has not answered. Is the companion registered on this machine? `, [
    link("Fetch a copy instead", box.dataset.file), " · ",
    link("Do not ask it from this browser any more", "#", () => { opensOn.forget(document.body.dataset.me); location.reload(); })]);
  const follow = async (id) => {
    const from = Date.now();
    for (;;) {
      const how = await api("GET", `/desk-links/${id}`);
      if (how.state === "done" || how.state === "refused") return tell(how.says);
      if (how.state === "late" || Date.now() - from > LONGEST) return nobody();
      if (how.state === "waiting" && Date.now() - from > SLOW) nobody();
      if (how.state === "taken") tell(`${desk} is at it.`);
      await new Promise((go) => setTimeout(go, EVERY));
    }
  };
  box.querySelectorAll("[data-open]").forEach((button) => button.addEventListener("click", async () => {
    box.querySelectorAll("button").forEach((b) => { b.disabled = true; });
    tell(`Asking ${desk} …`);
    try {
      const made = await api("POST", "/desk-links", { document: Number(box.dataset.document), act: button.dataset.open, desk,
        ...(button.dataset.open === "look" ? { version: Number(box.dataset.version) } : {}) });
      location.href = made.link; // the page stays; the machine hands the link to the companion
      await follow(made.id);
    } catch (error) {
      tell(error.message);
    }
    box.querySelectorAll("button").forEach((b) => { b.disabled = false; });
  }));
}
