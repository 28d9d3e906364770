// A look at a document beside where one is: four faces, one request each; the last one asked for is shown.
import { drawMarks } from "./marks.js";

export const FACES = ["look", "changed", "around", "facts"];

/** @param changed is told whether the peek is open */
export function peekIn(aside, changed = () => {}) {
  let face = FACES.find((each) => each === localStorage.getItem("mint.face")) ?? FACES[0];
  let shown = null;
  let asked = 0;

  const peek = {
    get open() { return !aside.hidden; },
    async show(id) {
      const mine = ++asked;
      shown = id;
      const answer = await fetch(`/documents/${id}/peek?face=${face}`, { headers: { "HX-Request": "true" } });
      if (mine !== asked) return;
      if (answer.status === 401) { location.href = "/sign-in"; return; }
      aside.innerHTML = await answer.text();
      aside.hidden = false;
      drawMarks(aside);
      changed(true);
    },
    turn(to) {
      face = to;
      localStorage.setItem("mint.face", to);
      if (shown) peek.show(shown);
    },
    close() {
      asked++;
      shown = null;
      aside.hidden = true;
      changed(false);
    },
  };
  aside.addEventListener("click", (event) => {
    const button = event.target.closest("[data-face]");
    if (button) peek.turn(button.dataset.face);
    if (event.target.closest("[data-close-peek]")) { peek.close(); aside.dispatchEvent(new CustomEvent("peek-closed")); }
  });
  return peek;
}
