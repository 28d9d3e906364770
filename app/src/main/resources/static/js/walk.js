// A picture of boxes in columns that is walked by arrow keys: left and right to the nearest box of the next column, up and down in one.
export function begin(figure) {
  const boxes = [...figure.querySelectorAll("[data-col]")].map((link) => ({ link, col: Number(link.dataset.col), row: Number(link.dataset.row) }));
  figure.addEventListener("keydown", (event) => {
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    const at = boxes.find((box) => box.link === event.target.closest("[data-col]"));
    if (!step || !at) return;
    event.preventDefault();
    const middle = at.link.getBoundingClientRect().top;
    const next = step[0]
      ? boxes.filter((box) => box.col === at.col + step[0])
        .sort((a, b) => Math.abs(a.link.getBoundingClientRect().top - middle) - Math.abs(b.link.getBoundingClientRect().top - middle))[0]
      : boxes.find((box) => box.col === at.col && box.row === at.row + step[1]);
    next?.link.focus();
    next?.link.scrollIntoView({ block: "nearest", inline: "nearest" });
  });
}
