// The viewer of models: turn, section, measure, tree, two versions over each other. Files are read beside the page.
import { OrbitControls, THREE } from "../vendor/three-viewer.js";
import { el, letters, typed } from "./dom.js";
import { sendBytes } from "./http.js";
import { differences } from "./model/differences.js";
import { held } from "./model/edges.js";
import { load } from "./model/files.js";
import { modelRedlines } from "./model/redline.js";
import { FACES, peekIn } from "./peek.js";
import { number } from "./snap.js";

const page = document.querySelector("[data-page=model]");

const stage = page.querySelector("[data-stage]");
const says = page.querySelector("[data-says]");
const progress = page.querySelector("[data-progress]");
const dark = () => document.documentElement.dataset.bsTheme === "dark";
const scene = new THREE.Scene();
const camera = new THREE.OrthographicCamera(-1, 1, 1, -1, -1e6, 1e6);
const still = matchMedia("(prefers-reduced-motion: reduce)").matches;
let renderer;
try {
  renderer = new THREE.WebGLRenderer({ antialias: true, preserveDrawingBuffer: true });
} catch {
  says.textContent = "This browser shows no three-dimensional pictures. Fetch a copy instead.";
  progress.hidden = true;
  page.querySelector("[data-remarks-part] .hint")?.replaceChildren("Remarks on a model are seen where it is shown.");
  throw new Error("no WebGL");
}
renderer.localClippingEnabled = true;
renderer.setPixelRatio(Math.min(2, devicePixelRatio));
stage.prepend(renderer.domElement);
const controls = new OrbitControls(camera, renderer.domElement);
controls.enableDamping = !still;
scene.add(new THREE.HemisphereLight(0xffffff, 0xb4bdb8, 3.4));
const lamp = new THREE.DirectionalLight(0xffffff, 2.4);
lamp.position.set(0.6, -1, 1.4);
scene.add(lamp);
camera.up.set(0, 0, 1);

const model = new THREE.Group();
scene.add(model);
const plane = new THREE.Plane(new THREE.Vector3(1, 0, 0), 0);
let box = new THREE.Box3();
let due = true;
const draw = () => { due = true; };
controls.addEventListener("change", draw);

function size() {
  const { clientWidth: w, clientHeight: h } = stage;
  renderer.setSize(w, h, false);
  const half = (camera.top - camera.bottom) / 2;
  camera.left = -half * (w / h);
  camera.right = half * (w / h);
  camera.updateProjectionMatrix();
  draw();
}
new ResizeObserver(size).observe(stage);
function frame() {
  controls.update();
  if (due) {
    due = false;
    renderer.setClearColor(dark() ? 0x18211e : 0xffffff);
    renderer.render(scene, camera);
    place();
  }
  requestAnimationFrame(frame);
}

const VIEWS = { front: [0, -1, 0], top: [0, 0, 1], right: [1, 0, 0], corner: [0.8, -1, 0.7] };
function look(name) {
  if (box.isEmpty()) return;
  const centre = box.getCenter(new THREE.Vector3());
  const radius = Math.max(box.getSize(new THREE.Vector3()).length() / 2, 1e-3);
  if (name !== "fit") {
    const from = new THREE.Vector3(...VIEWS[name]).normalize();
    camera.up.set(0, name === "top" ? 1 : 0, name === "top" ? 0 : 1);
    camera.position.copy(centre).addScaledVector(from, radius * 3);
  } else {
    const way = camera.position.clone().sub(controls.target).normalize();
    camera.position.copy(centre).addScaledVector(way.lengthSq() ? way : new THREE.Vector3(1, -1, 1).normalize(), radius * 3);
  }
  camera.near = -radius * 10;
  camera.far = radius * 20;
  camera.zoom = 1;
  const aspect = stage.clientWidth / stage.clientHeight;
  const half = radius * 1.05 / Math.min(1, aspect);
  camera.top = half;
  camera.bottom = -half;
  controls.target.copy(centre);
  size();
}
page.querySelectorAll("[data-view]").forEach((button) => button.addEventListener("click", () => look(button.dataset.view)));

const PLAIN = new THREE.Color(0xb9c2c6);
async function show(address, which, into, tree) {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error("What it consists of cannot be read.");
  const told = await answer.json();
  const total = told.files.reduce((sum, file) => sum + file.size, 0) || 1;
  const came = new Map();
  const nodes = told.nodes.map((node) => {
    const group = new THREE.Group();
    group.matrixAutoUpdate = false;
    group.matrix.set(...node.matrix);
    into.add(group);
    return { ...node, group };
  });
  if (tree) branches(nodes);
  const failed = [];
  let done = 0;
  for (const [index, file] of told.files.entries()) {
    try {
      const parts = await load(file, (n) => {
        came.set(index, n);
        const sum = [...came.values()].reduce((a, b) => a + b, 0);
        progress.value = Math.round((sum / total) * 100);
        says.textContent = `${done} of ${told.files.length} files, ${Math.round(sum / 1024).toLocaleString("en")} of ${Math.round(total / 1024).toLocaleString("en")} kB`;
      });
      nodes.filter((node) => node.file === index).forEach((node) => parts.forEach((part) => add(part, node, which)));
    } catch (error) {
      nodes.filter((node) => node.file === index).forEach((node) => node.line?.append(` · ${error.message}`));
      failed.push(error.message);
    }
    done++;
    measureBox();
    if (done === 1) look("corner"); else draw();
  }
  return { files: told.files.length, failed, cut: told.cut, missing: told.nodes.filter((node) => node.says).length };
}
/** Edges of both versions in the picture's space, to be held against each other. */
const edges = { old: [], now: [] };
function add(part, node, which) {
  const triangles = (part.geometry.index?.count ?? part.geometry.getAttribute("position").count) / 3;
  if (triangles < 60_000) part.edges ??= new THREE.EdgesGeometry(part.geometry, 28);
  if (which && part.edges) edges[which].push(part.edges.clone().applyMatrix4(node.group.matrix).getAttribute("position").array);
  if (which === "old") {
    // Of the older version only the edges are drawn; its extent counts all the same.
    const ghost = new THREE.Mesh(part.geometry, new THREE.MeshBasicMaterial({ visible: false }));
    ghost.userData.colour = new THREE.Color();
    node.group.add(ghost);
    return;
  }
  const material = new THREE.MeshStandardMaterial({
    color: which ? new THREE.Color(0xe3e8e4) : part.color ?? PLAIN, metalness: 0.1, roughness: 0.65, side: THREE.DoubleSide, clippingPlanes: [],
    polygonOffset: true, polygonOffsetFactor: 1, polygonOffsetUnits: 1,
  });
  const mesh = new THREE.Mesh(part.geometry, material);
  mesh.userData.colour = material.color.clone();
  node.group.add(mesh);
  if (part.edges && !which) node.group.add(new THREE.LineSegments(part.edges, new THREE.LineBasicMaterial({ color: 0x2c3a36, clippingPlanes: [] })));
}
/** Edges of both versions grey, only in the old one amber and dashed and seen through, only in the new one blue. */
function compare() {
  const { both, added: fresh, gone: lost } = held(edges.old, edges.now);
  const geometry = (positions) => new THREE.BufferGeometry().setAttribute("position", new THREE.Float32BufferAttribute(positions, 3));
  const length = Math.max(box.getSize(new THREE.Vector3()).length(), 1);
  const lines = (shape, material) => {
    const found = new THREE.LineSegments(shape, material);
    found.computeLineDistances();
    model.add(found);
    return shape.getAttribute("position").count / 2;
  };
  lines(geometry(both), new THREE.LineBasicMaterial({ color: 0x8a9691, clippingPlanes: [] }));
  const added = lines(geometry(fresh), new THREE.LineBasicMaterial({ color: 0x0a5fb4, clippingPlanes: [] }));
  const gone = lines(geometry(lost), new THREE.LineDashedMaterial({ color: 0xb06a00, dashSize: length / 90, gapSize: length / 160, depthTest: false, clippingPlanes: [] }));
  return added + gone === 0 ? "no edge differs" : "edges differ where it is drawn in amber and blue";
}
function measureBox() {
  box = new THREE.Box3();
  model.updateMatrixWorld(true);
  model.children.forEach((child) => box.expandByObject(child));
}

// The tree.
const tree = page.querySelector("[data-tree]");
function paint(node, on) {
  node.group.traverse((each) => {
    if (!each.isMesh) return;
    each.material.color.copy(on ? new THREE.Color(0x15795c) : each.userData.colour);
  });
  draw();
}
let chosen = null;
// What is chosen stands out: the rest goes pale.
function pale(nodes, but) {
  nodes.forEach((node) => node.group?.traverse((each) => {
    if (!each.isMesh) return;
    const faint = but && !but.includes(node);
    each.material.transparent = faint || each.userData.clear === true;
    each.material.opacity = faint ? 0.12 : each.userData.opacity ?? 1;
    each.material.depthWrite = !faint;
    each.material.needsUpdate = true;
  }));
  draw();
}
const aside = page.querySelector("[data-peek]");
const peek = peekIn(aside);
aside.addEventListener("peek-closed", () => chosen?.name.focus());
function acts(node) {
  const row = el("span", { class: "tree-acts" }, el("button", { type: "button", onclick: () => peek.show(node.item) }, "Peek"), " ");
  const link = (words, href) => row.append(el("a", { href }, words), " ");
  link("Look", `/documents/${node.item}?version=${node.version}`);
  if (node.takes) link("Check out", `/check-out?items=${node.item}`);
  if (node.mine) link("Check in", `/check-in?items=${node.item}`);
  link("Where used", `/documents/${node.item}/where-used`);
  return row;
}
/** One component stands out, with what can be done with it; the others go pale. */
function choose(node, nodes) {
  const was = chosen;
  if (was === node) return;
  chosen = node;
  if (was) {
    was.all.forEach((each) => paint(each, false));
    was.name.removeAttribute("aria-pressed");
    was.acts?.remove();
  }
  pale(nodes, node?.all ?? null);
  if (!node) return;
  node.name.setAttribute("aria-pressed", "true");
  node.all.forEach((each) => paint(each, true));
  if (!node.item) return;
  node.acts = acts(node);
  node.line.append(node.acts);
  if (peek.open) peek.show(node.item);
}
/** What is picked in the picture is chosen in the tree; beside it, nothing is. */
function pick(event) {
  if (!branched.length) return;
  const hit = under(event)[0];
  const node = hit && branched.find((each) => each.group === hit.object.parent);
  const line = node && (node.twinOf ?? node);
  choose(line && line !== chosen ? line : null, branched);
  chosen?.line.scrollIntoView({ block: "nearest" });
}
let branched = [];
function branches(nodes) {
  branched = nodes;
  const below = (node) => {
    const at = nodes.indexOf(node);
    const all = [node];
    for (let i = at + 1; i < nodes.length && nodes[i].depth > node.depth; i++) all.push(nodes[i]);
    return all;
  };
  nodes.forEach((node, at) => {
    // The same leaf many times over is one line with its count.
    const twin = (i) => nodes[i] && nodes[i].item && nodes[i].item === node.item && nodes[i].depth === node.depth && below(nodes[i]).length === 1;
    if (node.twinOf) return;
    const twins = [];
    if (twin(at)) for (let i = at + 1; twin(i); i++) { nodes[i].twinOf = node; twins.push(nodes[i]); }
    const shown = el("input", { type: "checkbox", class: "form-check-input", "aria-label": `Show ${node.number || node.title}`, onchange: () => {
      [...below(node), ...twins].forEach((each) => { each.group.visible = shown.checked; if (each.shown) each.shown.checked = shown.checked; });
      draw();
    } });
    shown.checked = true;
    const says = node.says || (node.version ? ` v${node.version}` : "") + (twins.length ? ` × ${twins.length + 1}` : "");
    const name = el("button", { type: "button" }, el("b", { class: "mono" }, node.number), ` ${node.title}`, " ", el("small", { class: node.says ? "brick" : null }, says),
      node.stage ? el("small", { class: "quiet d-block" }, node.stage + (node.holder ? ` · held by ${node.holder}` : "")) : null);
    const line = el("li");
    line.className = `deep-${Math.min(node.depth, 8)}`;
    const all = [...below(node), ...twins];
    name.addEventListener("pointerenter", () => all.forEach((each) => paint(each, true)));
    name.addEventListener("pointerleave", () => { if (chosen !== node) all.forEach((each) => paint(each, false)); });
    name.addEventListener("click", () => choose(chosen === node ? null : node, nodes));
    line.append(shown, name);
    tree.append(line);
    Object.assign(node, { line, shown, name, all });
  });
}

// The section.
const cut = page.querySelector("[data-cut]");
const cutAt = page.querySelector("[data-cut-at]");
const flip = page.querySelector("[data-cut-flip]");
let side = -1;
function section() {
  const axis = cut.value;
  cutAt.hidden = flip.hidden = !axis;
  if (axis) {
    const at = box.min[axis] + (box.max[axis] - box.min[axis]) * (cutAt.value / 1000);
    plane.normal.set(axis === "x" ? side : 0, axis === "y" ? side : 0, axis === "z" ? side : 0);
    plane.constant = -side * at;
  }
  model.traverse((each) => { if (each.material) each.material.clippingPlanes = axis ? [plane] : []; });
  draw();
}
cut.addEventListener("change", section);
cutAt.addEventListener("input", section);
flip.addEventListener("click", () => { side = -side; section(); });

// Measuring between snapped points: corners and the middles of edges of the surface that is hit.
const measureOn = page.querySelector("[data-measure-on]");
const measured = page.querySelector("[data-measured]");
const ray = new THREE.Raycaster();
const dots = [];
let measuring = false;
measureOn.addEventListener("click", () => {
  measuring = !measuring;
  measureOn.setAttribute("aria-pressed", String(measuring));
  stage.classList.toggle("measuring", measuring);
  if (!measuring) clearDots();
});
function clearDots() { dots.splice(0).forEach(({ mark }) => mark.remove()); measured.hidden = true; measured.replaceChildren(); draw(); }
function screen(point) {
  const p = point.clone().project(camera);
  return [(p.x + 1) / 2 * stage.clientWidth, (1 - p.y) / 2 * stage.clientHeight];
}
let marks = null;
let ring = null;
function place() {
  marks?.place();
  ring?.place();
  dots.forEach(({ point, mark }) => { const [x, y] = screen(point); mark.style.translate = `${x}px ${y}px`; });
}
function at(event) {
  const r = renderer.domElement.getBoundingClientRect();
  return [event.clientX - r.left, event.clientY - r.top, r];
}
/** What is seen where the pointer is, the nearest first. */
function under(event) {
  const [x, y, r] = at(event);
  ray.setFromCamera(new THREE.Vector2((x / r.width) * 2 - 1, 1 - (y / r.height) * 2), camera);
  const meshes = [];
  model.traverse((each) => { if (each.isMesh && each.material.visible && each.visible && each.parent.visible) meshes.push(each); });
  return ray.intersectObjects(meshes, false).filter((h) => !cut.value || plane.distanceToPoint(h.point) >= 0);
}
function snapped(event) {
  const [x, y] = at(event);
  const hit = under(event)[0];
  if (!hit) return null;
  const position = hit.object.geometry.getAttribute("position");
  const corners = [hit.face.a, hit.face.b, hit.face.c].map((i) => new THREE.Vector3().fromBufferAttribute(position, i).applyMatrix4(hit.object.matrixWorld));
  const candidates = [...corners, ...corners.map((c, i) => c.clone().add(corners[(i + 1) % 3]).multiplyScalar(0.5))];
  let best = hit.point;
  let near = 14;
  candidates.forEach((c) => { const [cx, cy] = screen(c); const d = Math.hypot(cx - x, cy - y); if (d < near) { near = d; best = c; } });
  return best;
}
let down = null;
renderer.domElement.addEventListener("pointerdown", (event) => { down = [event.clientX, event.clientY]; });
renderer.domElement.addEventListener("pointerup", (event) => {
  if (!down || event.button !== 0 || Math.hypot(event.clientX - down[0], event.clientY - down[1]) > 4) return;
  if (marks?.tap(event)) return;
  if (!measuring) { pick(event); return; }
  const point = snapped(event);
  if (!point) return;
  if (dots.length === 2) clearDots();
  const mark = el("span", { class: "model-dot" });
  stage.append(mark);
  dots.push({ point, mark });
  if (dots.length === 2) {
    const d = dots[1].point.clone().sub(dots[0].point);
    measured.hidden = false;
    measured.replaceChildren(...[`Distance ${number(d.length())} mm`, `dx ${number(d.x)}, dy ${number(d.y)}, dz ${number(d.z)} mm`].map((text) => el("li", {}, text)));
  }
  draw();
});

document.addEventListener("keydown", (event) => {
  if (typed(event) || !letters()) return;
  const view = { f: "front", t: "top", r: "right", i: "corner", 0: "fit" }[event.key];
  if (view) { event.preventDefault(); look(view); }
  if (event.key === "d") measureOn.click();
  if (event.key === "v" && chosen?.item) { if (peek.open) peek.close(); else peek.show(chosen.item); }
  if (peek.open && FACES[event.key - 1]) peek.turn(FACES[event.key - 1]);
  if (event.key === "Escape" && !stage.classList.contains("marking")) { if (measuring) measureOn.click(); else if (peek.open) peek.close(); else choose(null, branched); }
});

ring = differences(page, { stage, camera, controls, size, draw, screen, whole: () => box });
frame();
try {
  const over = page.dataset.with;
  const result = await show(page.dataset.model, over ? "now" : "", model, true);
  if (over) await show(over, "old", model, false);
  measureBox();
  const differs = over ? ` · ${compare()}` : "";
  look("corner");
  const dims = box.isEmpty() ? "" : ["x", "y", "z"].map((axis) => number(Math.round((box.max[axis] - box.min[axis]) * 10) / 10)).join(" × ");
  says.textContent = box.isEmpty()
    ? result.failed[0] ?? "There is nothing to show in it."
    : `${dims} mm${result.missing ? ` · ${result.missing} not shown` : ""}${result.cut ? " · more than can be shown" : ""}${differs}`;
  progress.hidden = true;
  // Who comes from a line of a list finds its body chosen.
  const wanted = location.hash.match(/^#part-(\d{1,18})$/);
  const line = wanted && branched.find((node) => node.item === Number(wanted[1]) && !node.twinOf);
  if (line) { choose(line, branched); line.line.scrollIntoView({ block: "nearest" }); }
  page.dataset.ready = "true";
  if (page.dataset.keep && !box.isEmpty() && !result.failed.length) keep();
} catch (error) {
  says.textContent = error.message;
  progress.hidden = true;
  page.dataset.ready = "failed";
}
// What was said of a model is read even where it cannot be shown.
if (page.querySelector("[data-remarks]")) {
  const stopMeasuring = () => { if (measuring) measureOn.click(); };
  marks = modelRedlines(page, { camera, controls, stage, under, screen, draw, size, measuring: () => measuring, stopMeasuring });
}

/** A small picture for lists, made here once. */
function keep() {
  requestAnimationFrame(() => {
    const small = document.createElement("canvas");
    [small.width, small.height] = [420, 300];
    const from = renderer.domElement;
    renderer.setClearColor(0xffffff);
    renderer.render(scene, camera);
    const scale = Math.min(420 / from.width, 300 / from.height);
    const context = small.getContext("2d");
    context.fillStyle = "#fff";
    context.fillRect(0, 0, 420, 300);
    context.drawImage(from, (420 - from.width * scale) / 2, (300 - from.height * scale) / 2, from.width * scale, from.height * scale);
    draw();
    small.toBlob((png) => sendBytes(page.dataset.keep, "image/png", png), "image/png");
  });
}
