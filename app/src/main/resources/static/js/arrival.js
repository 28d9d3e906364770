// After a check-out the file comes by itself, once: to the desk of this browser, or else as a download.
import { arrive, follow } from "./desk/here.js";
import { el } from "./dom.js";

export async function begin(link) {
  const arrived = new URLSearchParams(location.search);
  const { document: id, version, path } = link.dataset;
  const say = (text) => link.parentElement.append(el("small", {}, text));
  if (arrived.has("reinstated")) {
    history.replaceState(null, "", location.pathname);
    const says = await follow(Number(id), Number(version), path).catch(() => null);
    if (says) say(says);
  }
  if (arrived.has("taken")) {
    history.replaceState(null, "", location.pathname);
    const name = await arrive(Number(id), Number(version), path).catch(() => null);
    if (name) say(`It lies on your desk ${name}: ${path}`);
    else el("a", { href: link.href, download: "" }).click();
  }
}
