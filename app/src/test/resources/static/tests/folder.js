import { Folder } from "/static/js/desk/folder.js";
import { fails, same } from "./check.js";

let turn = 0;
async function folder() {
  const root = await navigator.storage.getDirectory();
  return new Folder(await root.getDirectoryHandle(`folder ${Date.now()} ${turn++}`, { create: true }));
}
async function put(desk, path, text) {
  const out = await desk.writable(path);
  await out.write(text);
  await out.close();
}
const read = async (desk, path) => (await desk.file(path))?.text();
async function paths(desk) {
  const all = [];
  for await (const [path] of desk.files()) all.push(path);
  return all.sort();
}

export default {
  "what is written lies in its folders and is read back": async () => {
    const desk = await folder();
    await put(desk, "TG40/3000/cone.dxf", "cone");
    same(await read(desk, "TG40/3000/cone.dxf"), "cone");
    same(await paths(desk), ["TG40/3000/cone.dxf"]);
  },
  "what was there stays until the new bytes are whole": async () => {
    const desk = await folder();
    await put(desk, "cone.dxf", "first");
    const out = await desk.writable("cone.dxf");
    await out.write("half of the sec");
    same(await read(desk, "cone.dxf"), "first");
    await out.abort();
    same(await read(desk, "cone.dxf"), "first");
  },
  "no path leads out of the folder": async () => {
    const desk = await folder();
    for (const path of ["../x", "a/../../x", "/x", "a//x", "./x", ""]) await fails(() => desk.writable(path), "no place in the folder");
  },
  "hidden files and what the browser is writing are not listed": async () => {
    const desk = await folder();
    for (const name of [".secret", "a/.git/x", "b/cone.dxf.crswap", "b/cone.dxf"]) await put(desk, name, "x");
    same(await paths(desk), ["b/cone.dxf"]);
  },
  "an empty file is none: an interrupted write leaves it": async () => {
    const desk = await folder();
    await put(desk, "cone.dxf", "");
    same(await desk.file("cone.dxf"), null);
    same(await desk.file("nowhere/at/all.dxf"), null);
  },
  "a file moves only to where none lies": async () => {
    const desk = await folder();
    await put(desk, "a.dxf", "a");
    await put(desk, "b.dxf", "b");
    await fails(() => desk.move("a.dxf", "b.dxf"), "lies already");
    await fails(() => desk.move("c.dxf", "d.dxf"), "not there any more");
    await desk.move("a.dxf", "deep/er/a.dxf");
    same(await paths(desk), ["b.dxf", "deep/er/a.dxf"]);
    same(await read(desk, "deep/er/a.dxf"), "a");
  },
  "what is set aside lies beside, under the next free name": async () => {
    const desk = await folder();
    const names = [];
    for (const text of ["one", "two", "three"]) {
      await put(desk, "v1.2/cone", text);
      names.push(await desk.aside("v1.2/cone"));
    }
    same(names, ["v1.2/cone (mine)", "v1.2/cone (mine 2)", "v1.2/cone (mine 3)"]);
    same(await read(desk, "v1.2/cone (mine 2)"), "two");
    await put(desk, "cone.dxf", "x");
    same(await desk.aside("cone.dxf"), "cone (mine).dxf");
  },
  "where a folder lies no file is written, and a file is no folder": async () => {
    const desk = await folder();
    await put(desk, "a/b.dxf", "b");
    await fails(() => desk.writable("a"), "something else lies");
    await fails(() => desk.writable("a/b.dxf/c.dxf"), "something else lies");
    same(await read(desk, "a/b.dxf"), "b");
  },
  "to remove what is not there is no fault": async () => {
    const desk = await folder();
    await desk.remove("nowhere/x.dxf");
    await put(desk, "x.dxf", "x");
    await desk.remove("x.dxf");
    same(await paths(desk), []);
  },
};
