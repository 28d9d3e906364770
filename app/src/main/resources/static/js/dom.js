// Elements, and the words around counts.
const SVG = "http://www.w3.org/2000/svg";

function filled(element, attributes, children) {
  for (const [name, value] of Object.entries(attributes)) {
    if (name.startsWith("on")) element.addEventListener(name.slice(2), value);
    else if (value !== null && value !== undefined) element.setAttribute(name, value);
  }
  element.append(...children.filter((child) => child !== null && child !== undefined));
  return element;
}

/** An element with attributes (on… are listeners, null is left out) and children; text stays text. */
export const el = (tag, attributes = {}, ...children) => filled(document.createElement(tag), attributes, children);

/** The same within a drawing. */
export const svg = (tag, attributes = {}, ...children) => filled(document.createElementNS(SVG, tag), attributes, children);

/** How a file on a desk stands, as a sign; the word always stands beside it. */
export const glyph = (word) => svg("svg", { class: "glyph desk-glyph", "aria-hidden": "true" },
  svg("use", { href: `/static/glyphs.svg#desk-${/^[a-z]+$/.exec(word)}` }));

export const plural = (n, one, many = `${one}s`) => `${n.toLocaleString("en")} ${n === 1 ? one : many}`;

/** Whether single letters are keys here; people can switch them off. */
export const letters = () => document.documentElement.dataset.keys !== "off";

/** Whether a key that was pressed there is typed into something, or belongs to the browser. */
export const typed = (event, inputs = "input") => event.ctrlKey || event.metaKey || event.altKey
  || Boolean(event.target.closest?.(`${inputs}, textarea, select, [contenteditable], dialog[open]`));

/** The bytes of a file in Base64 (RFC 4648, 4). */
export const inBase64 = (file) => new Promise((done, failed) => {
  const reader = new FileReader();
  reader.onload = () => done(reader.result.slice(reader.result.indexOf(",") + 1));
  reader.onerror = () => failed(reader.error);
  reader.readAsDataURL(file);
});

/** Labels of file choosers that are buttons to the eye are so to the keyboard, too. */
export const chosenByKey = (within) => within.querySelectorAll("[data-chooser]").forEach((label) => label.addEventListener("keydown", (event) => {
  if (event.key === "Enter" || event.key === " ") { event.preventDefault(); label.querySelector("input").click(); }
}));
