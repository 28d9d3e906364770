// A sheet under a hand: moved as a picture, drawn sharp once the hand lets go.
import { same } from "./check.js";
import { el, svg } from "/static/js/dom.js";
import { stage } from "/static/js/stage.js";

const wait = (ms) => new Promise((done) => { setTimeout(done, ms); });

async function withSheet(does) {
  const drawing = svg("svg", { class: "drawing", viewBox: "0 0 400 200" });
  const element = el("div", { class: "stage", "data-stage": "" }, drawing);
  element.style.width = "400px";
  element.style.height = "200px";
  element.setPointerCapture = () => {};
  const holder = el("div", {}, element);
  document.body.append(holder);
  const say = (type, x, id = 7) => element.dispatchEvent(new PointerEvent(type, { pointerId: id, clientX: x, clientY: 50, button: 0, buttons: 1, bubbles: true }));
  try {
    stage(element);
    await wait(250);
    await does({ drawing, say, box: () => drawing.getAttribute("viewBox").split(" ").map(Number) });
  } finally {
    holder.remove();
  }
}

export default {
  "what a hand moves is drawn anew once it lets go, not when it pauses": () => withSheet(async ({ drawing, say, box }) => {
    say("pointerdown", 100);
    say("pointermove", 140);
    await wait(400);
    same(box()[0], 0, "a pause");
    same(drawing.style.transform.startsWith("translate(40px"), true, "it moves as a picture");
    same(drawing.getAnimations().length, 1, "under one animation, however often it moves");
    same(new DOMMatrix(getComputedStyle(drawing).transform).e, 40, "which adds nothing");
    say("pointerup", 140);
    await wait(400);
    same(box()[0], -40, "let go");
    same(drawing.style.transform, "", "as it is drawn");
    same(drawing.getAnimations().length, 0, "and rests");
  }),
  "a hand that is lost without a word holds nothing up": () => withSheet(async ({ say, box }) => {
    say("pointerdown", 100);
    say("pointermove", 160);
    await wait(250);
    say("lostpointercapture", 160);
    await wait(400);
    same(box()[0], -60, "drawn");
  }),
  "of two fingers the last one counts": () => withSheet(async ({ say, box }) => {
    say("pointerdown", 100, 1);
    say("pointermove", 130, 1);
    say("pointerdown", 200, 2);
    await wait(250);
    say("pointerup", 200, 2);
    await wait(400);
    same(box()[0], 0, "one holds it still");
    say("pointercancel", 130, 1);
    await wait(400);
    same(box()[0], -30, "drawn");
  }),
};
