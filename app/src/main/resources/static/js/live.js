// Pages keep up by themselves: rows that moved are written anew where they stand and marked, everything else is said at the foot of the page.
// Nothing jumps: a row under the pointer, or with the focus in it, waits until that has left.
import { el, plural } from "./dom.js";

const POLL = 20_000;
const IDLE = 30 * 60_000;

export function begin(page) {
  const list = document.querySelector(".spines");
  const region = document.getElementById("live");
  const foot = el("div", { class: "live-news", hidden: "", role: "status" });
  document.body.append(foot);
  const others = new Set();
  let since = 0;
  let stream = null;
  let polling = 0;
  let failed = 0;
  let used = Date.now();

  const address = (path) => `${path}?${page.dataset.live}`;

  function say(text) {
    foot.replaceChildren(text, " ", el("a", { href: "", onclick: (event) => { event.preventDefault(); location.reload(); } }, "Load the page"),
      " ", el("button", { type: "button", class: "btn btn-plain btn-sm", "aria-label": "Put this away", onclick: () => { foot.hidden = true; } }, "Not now"));
    foot.hidden = false;
  }

  async function renew(row, says) {
    const answer = await fetch(`/documents/${row.dataset.id}/row`).catch(() => null);
    if (!answer?.ok || answer.redirected) return;
    const fresh = new DOMParser().parseFromString(await answer.text(), "text/html").querySelector(".spine");
    if (!fresh) return;
    const put = () => {
      // The row itself stays: it may be selected, and the walk along the list stands on it.
      row.replaceChildren(...fresh.childNodes);
      Object.assign(row.dataset, { ...fresh.dataset });
      row.classList.add("moved");
      if (says) row.title = says;
    };
    if (!row.matches(":hover") && !row.contains(document.activeElement)) { put(); return; }
    row.classList.add("moves");
    const later = () => {
      if (row.matches(":hover") || row.contains(document.activeElement)) return;
      row.classList.remove("moves");
      ["pointerleave", "focusout"].forEach((name) => row.removeEventListener(name, soon));
      put();
    };
    const soon = () => setTimeout(later, 50);
    ["pointerleave", "focusout"].forEach((name) => row.addEventListener(name, soon));
  }

  function take(news) {
    for (const one of news.documents) {
      const row = list?.querySelector(`#d${Number(one.document)}`);
      if (row) renew(row, one.says);
      else others.add(one.document);
    }
    if (news.documents.length && list) region.textContent = `${plural(news.documents.length, "document")} moved`;
    if (page.dataset.livePage === "document" && news.documents.length) {
      say(news.documents[0].says ? `${news.documents[0].says}.` : "What is in force has changed.");
    } else if (list && others.size) {
      say(`${plural(others.size, "document")} moved or came that ${others.size === 1 ? "is" : "are"} not in this list as it stands.`);
    } else if (news.today) {
      say("Something new waits for you.");
    }
  }

  async function poll() {
    const answer = await fetch(`${address("/live/since")}&since=${since}`).catch(() => null);
    if (!answer?.ok || answer.redirected) return;
    const news = await answer.json();
    since = news.now;
    if (news.documents.length || news.today) take(news);
  }

  const watching = () => document.visibilityState === "visible" && Date.now() - used < IDLE;
  function stop() { stream?.close(); stream = null; clearInterval(polling); polling = 0; }
  function watch() {
    if (!watching()) { stop(); return; }
    if (stream || polling) return;
    if (failed >= 3 || !window.EventSource) { polling = setInterval(() => { if (watching()) poll(); else stop(); }, POLL); poll(); return; }
    stream = new EventSource(address("/live"));
    stream.addEventListener("open", () => { failed = 0; });
    stream.addEventListener("moved", (event) => take(JSON.parse(event.data)));
    stream.addEventListener("error", () => {
      // The server ends a stream from time to time, and the browser asks again by itself; where it cannot, pages ask.
      if (stream?.readyState !== EventSource.CLOSED) return;
      failed += 1;
      stop();
      setTimeout(watch, 2_000 * failed);
    });
  }
  ["pointerdown", "keydown", "pointermove"].forEach((name) => addEventListener(name, () => { const slept = !watching(); used = Date.now(); if (slept) watch(); }, { passive: true }));
  document.addEventListener("visibilitychange", () => {
    if (document.visibilityState !== "visible") { stop(); return; }
    used = Date.now();
    poll(); // what moved while nobody looked
    watch();
  });
  list?.addEventListener("pointerover", (event) => event.target.closest(".moved")?.classList.remove("moved"));
  addEventListener("pagehide", stop);
  poll(); // from which moment on to ask
  watch();
}
