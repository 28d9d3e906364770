// A photo for a request: it is made smaller here, marked with a tap, and goes with the form. Without this script a form has none.
const LONGEST = 1600;

export function begin(part) {
  const chooser = part.querySelector("[data-take]");
  const canvas = part.querySelector("canvas");
  const field = part.querySelector("[name=photo]");
  const clear = part.querySelector("[data-clear]");
  let picture = null;
  let marks = [];

  function draw() {
    const paper = canvas.getContext("2d");
    paper.drawImage(picture, 0, 0, canvas.width, canvas.height);
    const radius = Math.max(canvas.width, canvas.height) / 24;
    marks.forEach(([x, y], i) => {
      // A light ring under a dark one: seen on whatever the photo shows.
      for (const [wide, colour] of [[radius / 3.2, "#fff"], [radius / 6, "#a3342c"]]) {
        paper.beginPath();
        paper.arc(x, y, radius, 0, 2 * Math.PI);
        paper.lineWidth = wide;
        paper.strokeStyle = colour;
        paper.stroke();
      }
      if (marks.length < 2) return;
      paper.font = `600 ${radius}px sans-serif`;
      paper.lineWidth = radius / 4;
      paper.strokeStyle = "#fff";
      paper.strokeText(i + 1, x + radius * 1.2, y - radius * 0.6);
      paper.fillStyle = "#a3342c";
      paper.fillText(i + 1, x + radius * 1.2, y - radius * 0.6);
    });
    field.value = canvas.toDataURL("image/jpeg", 0.85).split(",")[1];
    clear.hidden = marks.length === 0;
  }

  chooser.addEventListener("change", async () => {
    const [file] = chooser.files;
    part.querySelector("[data-says]").textContent = "";
    if (!file) return;
    try {
      picture = await createImageBitmap(file, { imageOrientation: "from-image" });
    } catch {
      part.querySelector("[data-says]").textContent = `${file.name} is no picture that can be shown. Nothing was taken.`;
      return;
    }
    const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
    canvas.width = Math.round(picture.width * scale);
    canvas.height = Math.round(picture.height * scale);
    marks = [];
    part.querySelector("[data-shown]").hidden = false;
    draw();
  });
  canvas.addEventListener("click", (event) => {
    const box = canvas.getBoundingClientRect();
    marks.push([(event.clientX - box.left) * canvas.width / box.width, (event.clientY - box.top) * canvas.height / box.height]);
    draw();
  });
  clear.addEventListener("click", () => { marks = []; draw(); });
}
