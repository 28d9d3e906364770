// Whom or what a field could name is offered while somebody types, and before that what is pinned or was open last; what is typed
// counts without it, too.
export function begin(field) {
  const list = document.getElementById(field.getAttribute("list"));
  let waiting = 0;
  let asked = null;
  const offer = async () => {
    const words = field.value.trim();
    if (words === asked) return;
    asked = words;
    const answer = await fetch(`${field.dataset.lookUp}?q=${encodeURIComponent(words)}`).catch(() => null);
    if (!answer?.ok || answer.redirected || words !== asked) return;
    const found = await answer.json();
    list.replaceChildren(...found.map((one) => Object.assign(document.createElement("option"), { value: one.value, label: one.says })));
  };
  field.addEventListener("input", () => {
    clearTimeout(waiting);
    waiting = setTimeout(offer, 160);
  });
  field.addEventListener("focus", () => { if (!field.value.trim()) offer(); });
}
