// Steps through what differs between two models: a ring with its number stands round each, wherever the model is turned.
import { THREE } from "../../vendor/three-viewer.js";
import { el, letters, typed } from "../dom.js";

export function differences(page, { stage, camera, controls, size, draw, screen, whole }) {
  const rows = [...page.querySelectorAll("[data-difference]")];
  if (!rows.length) return null;
  const ring = el("span", { class: "model-ring", hidden: "" }, el("b", { class: "ring-number" }));
  stage.append(ring);
  let at = -1;
  let box = null;
  function show(next) {
    const row = rows[next];
    if (!row) return;
    rows[at]?.removeAttribute("data-current");
    at = next;
    row.setAttribute("data-current", "");
    row.scrollIntoView({ block: "nearest" });
    const told = row.dataset.difference.split(" ").map(Number);
    box = told.length === 6 && told.every(Number.isFinite) ? new THREE.Box3(new THREE.Vector3(...told.slice(0, 3)), new THREE.Vector3(...told.slice(3))) : null;
    ring.firstChild.textContent = row.querySelector(".ring-number").textContent;
    if (box) look();
    draw();
  }
  /** Nearer, as far as what is round it can still be told. */
  function look() {
    const all = Math.max(whole().getSize(new THREE.Vector3()).length(), 1e-3);
    const centre = box.getCenter(new THREE.Vector3());
    camera.position.add(centre.clone().sub(controls.target));
    controls.target.copy(centre);
    const half = Math.max(box.getSize(new THREE.Vector3()).length() * 0.9, all / 6);
    camera.top = half;
    camera.bottom = -half;
    camera.zoom = 1;
    size();
  }
  function place() {
    ring.hidden = !box;
    if (!box) return;
    const corners = [0, 1, 2, 3, 4, 5, 6, 7].map((i) => screen(new THREE.Vector3(i & 1 ? box.max.x : box.min.x, i & 2 ? box.max.y : box.min.y, i & 4 ? box.max.z : box.min.z)));
    const [xs, ys] = [corners.map((c) => c[0]), corners.map((c) => c[1])];
    const [left, top] = [Math.min(...xs) - 10, Math.min(...ys) - 10];
    Object.assign(ring.style, { translate: `${left}px ${top}px`, width: `${Math.max(...xs) + 10 - left}px`, height: `${Math.max(...ys) + 10 - top}px` });
  }
  rows.forEach((row, i) => row.querySelector("button").addEventListener("click", () => show(i)));
  document.addEventListener("keydown", (event) => {
    if (typed(event) || !letters()) return;
    if (event.key === "n") show(Math.min(rows.length - 1, at + 1));
    if (event.key === "p") show(Math.max(0, at - 1));
  });
  return { place };
}
