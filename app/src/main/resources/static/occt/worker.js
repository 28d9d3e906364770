// Reads STEP files with the published kernel, beside the page: it stays usable however large the model is.
importScripts("/static/occt/occt-import-js.js");

let ready = null;
const kernel = () => {
  ready ??= fetch("/static/occt/occt-import-js.wasm.gz")
    .then((answer) => new Response(answer.body.pipeThrough(new DecompressionStream("gzip"))).arrayBuffer())
    .then((wasmBinary) => occtimportjs({ wasmBinary }));
  return ready;
};

onmessage = async ({ data }) => {
  try {
    const occt = await kernel();
    const result = occt.ReadStepFile(new Uint8Array(data.bytes), { linearUnit: "millimeter", linearDeflectionType: "bounding_box_ratio", linearDeflection: 0.001, angularDeflection: 0.4 });
    if (!result.success) throw new Error("The kernel cannot read it.");
    const meshes = result.meshes.map((mesh) => ({
      name: mesh.name,
      color: mesh.color ?? null,
      position: new Float32Array(mesh.attributes.position.array),
      normal: mesh.attributes.normal ? new Float32Array(mesh.attributes.normal.array) : null,
      index: mesh.index ? new Uint32Array(mesh.index.array) : null,
      faces: mesh.brep_faces?.length ? new Uint32Array(mesh.brep_faces.flatMap((face) => [face.first, face.last])) : null,
    }));
    const moved = meshes.flatMap((mesh) => [mesh.position.buffer, mesh.normal?.buffer, mesh.index?.buffer, mesh.faces?.buffer]).filter(Boolean);
    postMessage({ id: data.id, meshes }, moved);
  } catch (error) {
    postMessage({ id: data.id, error: String(error?.message ?? error) });
  }
};
