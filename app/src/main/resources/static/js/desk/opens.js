// On which desk of its person this browser opens files: a choice of the browser, for it stands on the machine.
const key = (me) => `mint.opens-on.${me}`;

export const opensOn = {
  get: (me) => me && localStorage.getItem(key(me)),
  set: (me, desk) => localStorage.setItem(key(me), desk),
  forget: (me) => localStorage.removeItem(key(me)),
};

/** A desk on the page Companion and tokens: files open there from this browser, or do not any more. */
export function begin(row) {
  const me = document.body.dataset.me;
  const button = row.querySelector("[data-opens-here]");
  const says = row.querySelector("[data-opens-says]");
  const tell = () => {
    const here = opensOn.get(me) === row.dataset.desk;
    button.textContent = here ? "Do not open files there any more" : "Open files there from this browser";
    says.textContent = here ? "; this browser opens files there" : "; takes links of pages";
  };
  button.hidden = false;
  button.addEventListener("click", () => {
    if (opensOn.get(me) === row.dataset.desk) opensOn.forget(me);
    else opensOn.set(me, row.dataset.desk);
    document.dispatchEvent(new CustomEvent("mint:opens"));
  });
  document.addEventListener("mint:opens", tell);
  tell();
}
