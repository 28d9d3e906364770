"use strict";
(() => {
  const data = JSON.parse(document.getElementById("data").textContent);
  const items = data.first.items;
  const heads = items.filter((one) => one.motivation !== "replying");
  const source = heads[0]?.target?.source ?? "";
  const marks = [...document.querySelectorAll(".over [data-remark]")];
  const by = (id) => document.getElementById(id);
  const keep = (key, value) => { try { localStorage.setItem(key, JSON.stringify(value)); } catch { /* a browser may forbid it: what is written stays on the page */ } };
  const kept = (key, otherwise) => { try { return JSON.parse(localStorage.getItem(key)) ?? otherwise; } catch { return otherwise; } };
  const PERSON = "mint-shelf outside person";
  const WRITTEN = "mint-shelf written " + data.id;
  let person = kept(PERSON, null);
  let written = kept(WRITTEN, []);
  let saved = true;
  const uuid = () => crypto.randomUUID ? crypto.randomUUID() : "10000000-1000-4000-8000-100000000000".replace(/[018]/g, (c) => (c ^ crypto.getRandomValues(new Uint8Array(1))[0] & 15 >> c / 4).toString(16));
  const make = (tag, text, kind) => { const one = document.createElement(tag); if (text) one.textContent = text; if (kind) one.className = kind; return one; };
  const bodies = (one) => Array.isArray(one.body) ? one.body : one.body ? [one.body] : [];
  const says = (one, purpose) => bodies(one).find((b) => b.purpose === purpose)?.value ?? "";
  const day = (one) => one.created ? new Date(one.created).toLocaleDateString("en-GB", { day: "numeric", month: "short", year: "numeric" }) : "";

  function asked(dialog) {
    return new Promise((answer) => {
      dialog.addEventListener("close", () => answer(dialog.returnValue === "ok"), { once: true });
      dialog.returnValue = "no";
      dialog.showModal();
    });
  }

  async function whoWrites() {
    if (person) return true;
    if (!(await asked(by("ask")))) return false;
    person = { name: by("name").value.trim(), mail: by("mail").value.trim() };
    keep(PERSON, person);
    head();
    return true;
  }

  function creator() {
    const one = { type: "Person", name: person.name };
    if (person.mail) one.email = "mailto:" + person.mail;
    return one;
  }

  function add(one) {
    written.push({ id: "urn:uuid:" + uuid(), type: "Annotation", created: new Date().toISOString(), creator: creator(), ...one });
    keep(WRITTEN, written);
    saved = false;
    draw();
  }

  function head() {
    const who = by("who");
    who.replaceChildren();
    if (person) {
      who.append("You write as " + person.name + (person.mail ? " <" + person.mail + "> " : " "));
      const other = make("button", "Somebody else");
      other.onclick = async () => { const before = person; person = null; if (!(await whoWrites())) { person = before; head(); } };
      who.append(other);
    }
    by("save").hidden = written.length === 0;
    by("save").textContent = "Save what I wrote (" + written.length + ")";
  }

  function pick(card, mark) {
    document.querySelectorAll(".picked").forEach((one) => one.classList.remove("picked"));
    card.classList.add("picked");
    mark?.classList.add("picked");
  }

  function reply(one, mine) {
    const box = make("div", "", "reply" + (mine ? " mine" : ""));
    box.append(make("div", (one.creator?.name ?? "") + ", " + day(one), "quiet"), make("div", says(one, "replying"), "says"));
    if (mine) box.append(taker(one));
    return box;
  }

  function taker(one) {
    const drop = make("button", "Take it out");
    drop.onclick = () => { written = written.filter((w) => w.id !== one.id); keep(WRITTEN, written); draw(); };
    return drop;
  }

  function card(one, mine) {
    const box = make("article", "", "");
    const title = make("h2", "", "");
    if (one["shelf:number"]) title.append(make("b", one["shelf:number"]));
    title.append(says(one, "commenting") || one["shelf:tool"] || "Remark");
    box.append(title, make("div", [one.creator?.name, day(one), one["shelf:state"]].filter(Boolean).join(" · "), "quiet"));
    if (says(one, "describing")) box.append(make("div", says(one, "describing"), "says"));
    for (const r of items) if (r.motivation === "replying" && r.target === one.id) box.append(reply(r, false));
    for (const r of written) if (r.motivation === "replying" && r.target === one.id) box.append(reply(r, true));
    box.onclick = () => pick(box, marks[heads.indexOf(one)]);
    if (mine) { box.append(taker(one)); return box; }
    const form = make("form");
    const words = make("textarea");
    words.rows = 2; words.maxLength = 2000; words.required = true; words.setAttribute("aria-label", "Answer to " + (one["shelf:number"] ?? "this"));
    const row = make("div", "", "row");
    row.append(make("button", "Answer", "main"));
    form.append(words, row);
    form.onsubmit = async (event) => {
      event.preventDefault();
      const text = words.value.trim();
      if (!text || !(await whoWrites())) return;
      add({ motivation: "replying", body: { type: "TextualBody", value: text, format: "text/plain", purpose: "replying" }, target: one.id });
    };
    box.append(form);
    return box;
  }

  function draw() {
    const list = by("list");
    list.replaceChildren();
    for (const one of written) if (one.motivation !== "replying") list.append(card(one, true));
    for (const one of items) if (one.motivation !== "replying") list.append(card(one, false));
    head();
  }

  // A box round something on the sheet; a tap is a small one.
  const sheet = by("sheet");
  const paper = sheet.querySelector(".over svg");
  const at = (event) => new DOMPoint(event.clientX, event.clientY).matrixTransform(paper.getScreenCTM().inverse());
  let from = null;
  let box = null;
  sheet.addEventListener("pointerdown", (event) => {
    if (!event.isPrimary || event.button !== 0) return;
    from = { x: event.clientX, y: event.clientY };
  });
  sheet.addEventListener("pointermove", (event) => {
    if (!from || Math.hypot(event.clientX - from.x, event.clientY - from.y) < 6) return;
    if (!box) { box = make("div", "", "box"); sheet.append(box); }
    const edge = sheet.getBoundingClientRect();
    Object.assign(box.style, { left: Math.min(from.x, event.clientX) - edge.left + "px", top: Math.min(from.y, event.clientY) - edge.top + "px", width: Math.abs(event.clientX - from.x) + "px", height: Math.abs(event.clientY - from.y) + "px" });
  });
  const drop = () => { box?.remove(); box = null; from = null; };
  sheet.addEventListener("pointercancel", drop);
  sheet.addEventListener("pointerup", async (event) => {
    if (!from) return;
    const a = at({ clientX: from.x, clientY: from.y });
    const b = at(event);
    const drawn = box !== null;
    drop();
    const mm = paper.viewBox.baseVal.width / 420;
    const [x, y, w, h] = drawn ? [Math.min(a.x, b.x), Math.min(a.y, b.y), Math.abs(a.x - b.x), Math.abs(a.y - b.y)] : [a.x - 4 * mm, a.y - 4 * mm, 8 * mm, 8 * mm];
    by("line").value = ""; by("more").value = "";
    if (!(await asked(by("fresh"))) || !(await whoWrites())) return;
    const body = [{ type: "TextualBody", value: by("line").value.trim(), format: "text/plain", purpose: "commenting" }];
    if (by("more").value.trim()) body.push({ type: "TextualBody", value: by("more").value.trim(), format: "text/plain", purpose: "describing" });
    const value = "xywh=pixel:" + [x, y, w, h].map((n) => n.toFixed(3)).join(",");
    add({ motivation: by("kind").value, body, target: { type: "SpecificResource", source: source, selector: { type: "FragmentSelector", conformsTo: "http://www.w3.org/TR/media-frags/", value } } });
  });

  by("save").onclick = () => {
    const file = { "@context": data["@context"], id: "urn:uuid:" + uuid(), type: "AnnotationCollection", label: data.label + ", answers of " + person.name, total: written.length, first: { type: "AnnotationPage", startIndex: 0, items: written } };
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([JSON.stringify(file, null, 1)], { type: "application/ld+json" }));
    link.download = (data.label + ", answers of " + person.name).replace(/[\\/:*?"<>|]/g, "-") + ".json";
    document.body.append(link);
    link.click();
    link.remove();
    saved = true;
  };
  addEventListener("beforeunload", (event) => { if (!saved) event.preventDefault(); });
  draw();
})();
