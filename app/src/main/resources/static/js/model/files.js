// Files of models, read beside the page where that takes long.
import { GLTFLoader, OBJLoader, STLLoader, THREE, ThreeMFLoader } from "../../vendor/three-viewer.js";

const worker = new Worker("/static/occt/worker.js");
const waiting = new Map();
worker.onmessage = ({ data }) => {
  const { resolve, reject } = waiting.get(data.id);
  waiting.delete(data.id);
  if (data.error) reject(new Error(data.error)); else resolve(data.meshes);
};
worker.onerror = () => waiting.forEach(({ reject }) => reject(new Error("The kernel did not start.")));
let jobs = 0;
const step = (bytes) => new Promise((resolve, reject) => {
  const id = ++jobs;
  waiting.set(id, { resolve, reject });
  worker.postMessage({ id, bytes }, [bytes]);
});

async function bytes(url, tell) {
  const answer = await fetch(url);
  if (!answer.ok) throw new Error(answer.status === 404 ? "It is not there." : `The server answered ${answer.status}.`);
  const reader = answer.body.getReader();
  const parts = [];
  let n = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    parts.push(value);
    n += value.length;
    tell(n);
  }
  return new Blob(parts).arrayBuffer();
}

function fromMesh(mesh) {
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute("position", new THREE.BufferAttribute(mesh.position, 3));
  if (mesh.index) geometry.setIndex(new THREE.BufferAttribute(mesh.index, 1));
  if (mesh.normal) geometry.setAttribute("normal", new THREE.BufferAttribute(mesh.normal, 3)); else geometry.computeVertexNormals();
  geometry.userData.faces = mesh.faces;
  return { geometry, color: mesh.color ? new THREE.Color().setRGB(...mesh.color, THREE.SRGBColorSpace) : null };
}
function fromObject(object) {
  const found = [];
  object.updateMatrixWorld(true);
  object.traverse((each) => {
    if (!each.isMesh) return;
    const geometry = each.geometry.clone().applyMatrix4(each.matrixWorld);
    if (!geometry.getAttribute("normal")) geometry.computeVertexNormals();
    found.push({ geometry, color: each.material?.color ?? null });
  });
  return found;
}
/** The bodies of a file: geometry and colour (or none), in the file's own units. */
export async function load(file, tell) {
  const data = await bytes(file.url, tell);
  switch (file.format) {
    case "step": return (await step(data)).map(fromMesh);
    case "stl": { const geometry = new STLLoader().parse(data); return [{ geometry, color: null }]; }
    case "3mf": return fromObject(new ThreeMFLoader().parse(data));
    case "obj": return fromObject(new OBJLoader().parse(new TextDecoder().decode(data)));
    default: return fromObject((await new GLTFLoader().parseAsync(data, "")).scene);
  }
}
