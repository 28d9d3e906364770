// Folders as they are dropped: all files below them.
/** What was dropped, files and folders; asked before anything is waited for, for then it is forgotten. */
export const dropped = (event) => [...event.dataTransfer.items].map((item) => item.webkitGetAsEntry?.()).filter(Boolean);

/**
 * All files below what was dropped, each with its path.
 *
 * @param within whether a folder that was dropped is not part of the paths itself
 */
export async function walk(entries, within) {
  const found = [];
  const open = entries.map((entry) => ({ entry, above: "" }));
  while (open.length) {
    const { entry, above } = open.pop();
    if (entry.isFile) {
      found.push({ path: above + entry.name, given: () => new Promise((done, failed) => { entry.file(done, failed); }) });
      continue;
    }
    const below = within && entries.includes(entry) ? "" : `${above}${entry.name}/`;
    const reader = entry.createReader();
    // A reader gives some at a time, nothing at the end.
    for (let some = [0]; some.length;) {
      some = await new Promise((done, failed) => { reader.readEntries(done, failed); });
      some.forEach((one) => open.push({ entry: one, above: below }));
    }
  }
  return found.sort((a, b) => (a.path < b.path ? -1 : 1));
}
