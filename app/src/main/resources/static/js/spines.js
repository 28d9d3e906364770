// Walking, selecting and peeking along a list of spines.
import { letters, plural, typed } from "./dom.js";
import { foldedUnder, items, turn } from "./items.js";
import { FACES, peekIn } from "./peek.js";

/** How a document stands for the person who looks, in a word. */
const stands = (row, word) => row.dataset.stands.split(" ").includes(word);

export function begin(list) {
  const aside = document.getElementById("peek");
  const frame = document.getElementById("with-peek");
  const peek = aside && peekIn(aside, (open) => frame.classList.toggle("open", open));
  const bar = document.getElementById("pick-bar");
  const live = document.getElementById("live");
  const picked = new Map();
  let last = null;

  items(list);
  const all = () => [...list.querySelectorAll(".spine")].filter((row) => !row.hidden);
  const current = () => list.querySelector(".spine[tabindex='0']");
  const focus = (row) => {
    if (!row) return;
    current()?.setAttribute("tabindex", "-1");
    row.setAttribute("tabindex", "0");
    row.focus({ preventScroll: false });
    row.scrollIntoView({ block: "nearest" });
    if (peek?.open) peek.show(row.dataset.id);
  };
  all()[0]?.setAttribute("tabindex", "0");

  const select = (row, on) => {
    // What lies folded under it goes with it: what is picked is what is counted.
    [row, ...foldedUnder(row)].forEach((one) => {
      one.setAttribute("aria-selected", on);
      if (on) picked.set(one.dataset.id, one); else picked.delete(one.dataset.id);
    });
    tell();
  };
  function tell() {
    if (!bar) return;
    const rows = [...picked.values()];
    bar.hidden = rows.length === 0;
    document.body.style.setProperty("--bar", rows.length ? "70px" : "0");
    if (!rows.length) return;
    const ids = rows.map((row) => row.dataset.id).join(",");
    bar.querySelector("[data-picked]").textContent = `${rows.length} selected`;
    bar.querySelector("[data-picked-numbers]").textContent = [...new Set(rows.map((row) => row.dataset.number))].join(", ");
    const main = bar.querySelector("[data-act='main']");
    const n = plural(rows.length, "document");
    if (rows.every((row) => stands(row, "mine"))) {
      main.textContent = `Check in ${n}…`; main.href = `/check-in?items=${ids}`;
    } else if (rows.every((row) => !stands(row, "pending") && stands(row, "released"))) {
      main.textContent = rows.length === 1 ? "Start the next revision…" : `Start ${rows.length} revisions…`;
      main.href = `/start-revision?items=${ids}`;
    } else if (rows.every((row) => stands(row, "signs"))) {
      main.textContent = `Sign ${rows.length}…`; main.href = `/sign?items=${ids}`;
    } else if (rows.every((row) => stands(row, "decides"))) {
      main.textContent = rows.length === 1 ? "Open the round" : "Open the rounds"; main.href = `/sign?items=${ids}`;
    } else {
      // What is being decided on, held by others or in force is not checked out: the plan says why, the button counts the rest.
      const takes = rows.filter((row) => !stands(row, "held") && stands(row, "pending") && !stands(row, "decides")).length;
      main.textContent = takes === rows.length ? `Check out ${n}…` : takes ? `Check out ${takes} of ${n}…` : "See what keeps them…";
      main.classList.toggle("none", takes === 0);
      main.href = `/check-out?items=${ids}`;
    }
    const send = bar.querySelector("[data-act='send']");
    send.hidden = !rows.every((row) => stands(row, "sends"));
    send.href = `/send-to-review?items=${ids}`;
    const write = bar.querySelector("[data-act='write']");
    write.hidden = send.hidden;
    write.href = `/write-sheets?items=${ids}`;
    const change = bar.querySelector("[data-act='change']");
    change.hidden = !rows.every((row) => stands(row, "changes"));
    change.textContent = `Ask for a change (${rows.length})…`;
    change.href = `/ask-for-change?items=${ids}`;
    const move = bar.querySelector("[data-act='move']");
    if (move) move.href = `/relocate?items=${ids}`;
    const bringFor = bar.querySelector("[data-act='bring-for']");
    if (bringFor) bringFor.href = `/bring-for?items=${ids}`;
    const baseline = bar.querySelector("[data-act='baseline']");
    if (baseline) baseline.href = `/baselines/new?items=${ids}`;
    // One goes out, or one comes in for the other.
    const swap = bar.querySelector("[data-act='swap']");
    if (swap) {
      swap.hidden = picked.length > 2;
      swap.href = `/swap?items=${ids}`;
    }
    const fetchLink = bar.querySelector("[data-act='fetch']");
    fetchLink.textContent = rows.length === 1 ? "Fetch a copy" : `Fetch ${rows.length} copies`;
    fetchLink.href = `/files.zip?items=${ids}`;
    live.textContent = `${rows.length} selected`;
  }
  const clear = () => { [...picked.values()].forEach((row) => row.setAttribute("aria-selected", "false")); picked.clear(); tell(); };
  bar?.querySelector("[data-clear]").addEventListener("click", clear);

  aside?.addEventListener("peek-closed", () => current()?.focus());

  list.addEventListener("click", (event) => {
    const fold = event.target.closest("[data-fold]");
    if (fold) { foldAt(fold.closest(".folder-head")); return; }
    const row = event.target.closest(".spine");
    if (!row || event.target.closest("a, .item-tabs")) return;
    focus(row);
    if (event.shiftKey && last) {
      const rows = all();
      const [from, to] = [rows.indexOf(last), rows.indexOf(row)].sort((a, b) => a - b);
      rows.slice(from, to + 1).forEach((each) => select(each, true));
    } else {
      select(row, row.getAttribute("aria-selected") !== "true");
    }
    last = row;
  });
  list.addEventListener("dblclick", (event) => {
    const row = event.target.closest(".spine");
    if (row) location.href = row.dataset.href;
  });

  // Rows that are dragged out of the window: the browser fetches a copy to where they are dropped, where it can.
  list.addEventListener("pointerdown", (event) => event.target.closest(".spine")?.setAttribute("draggable", "true"));
  list.addEventListener("dragstart", (event) => {
    const row = event.target.closest?.(".spine");
    if (!row) return;
    const many = picked.has(row.dataset.id) && picked.size > 1;
    const [version, ...name] = (row.dataset.file ?? "").split(" ");
    const at = many ? `/files.zip?items=${[...picked.keys()].join(",")}` : `/documents/${row.dataset.id}/versions/${version}/file`;
    event.dataTransfer.setData("DownloadURL", `application/octet-stream:${many ? "mint-shelf.zip" : name.join(" ")}:${location.origin}${at}`);
    event.dataTransfer.setData("text/plain", row.dataset.number);
    event.dataTransfer.effectAllowed = "copy";
  });

  // Rows that are dragged onto a folder's heading: the plan of moving them there opens. What is picked goes along.
  if (bar?.querySelector("[data-act='move']")) {
    const dragged = "application/x-mint-rows";
    const head = (event) => event.target.closest?.(".folder-head");
    list.addEventListener("dragstart", (event) => {
      const row = event.target.closest?.(".spine");
      if (!row) return;
      event.dataTransfer.setData(dragged, (picked.has(row.dataset.id) ? [...picked.keys()] : [row.dataset.id]).join(","));
      event.dataTransfer.effectAllowed = "copyMove";
    });
    list.addEventListener("dragover", (event) => {
      if (!head(event) || !event.dataTransfer.types.includes(dragged)) return;
      event.preventDefault();
      head(event).classList.add("over");
    });
    list.addEventListener("dragleave", (event) => head(event)?.classList.remove("over"));
    list.addEventListener("drop", (event) => {
      const items = event.dataTransfer.getData(dragged);
      if (!items || !head(event)) return;
      event.preventDefault();
      location.href = `/relocate?items=${items}&to=${head(event).id.slice(1)}`;
    });
  }

  function foldAt(head) {
    const folded = head.toggleAttribute("data-folded");
    head.querySelector("[data-fold]").setAttribute("aria-expanded", String(!folded));
    for (let next = head.nextElementSibling; next && !next.matches(".folder-head"); next = next.nextElementSibling) {
      if (next.matches(".spine")) next.hidden = folded, next.style.setProperty("display", folded ? "none" : "");
    }
    list.querySelectorAll(".spine").forEach((row) => { if (!row.hidden) foldedUnder(row).forEach((one) => { one.hidden = true; one.style.display = "none"; }); });
  }

  document.addEventListener("keydown", (event) => {
    if (typed(event)) return;
    const rows = all();
    const row = current();
    const at = rows.indexOf(row);
    const onRow = event.target.closest?.(".spine");
    switch (event.key) {
      case "ArrowDown": event.preventDefault(); focus(rows[onRow ? Math.min(rows.length - 1, at + 1) : Math.max(0, at)]); break;
      case "ArrowUp": event.preventDefault(); focus(rows[Math.max(0, at - 1)]); break;
      case "ArrowRight": case "ArrowLeft": if (onRow && turn(row, event.key === "ArrowRight")) event.preventDefault(); break;
      case "Home": if (onRow) { event.preventDefault(); focus(rows[0]); } break;
      case "End": if (onRow) { event.preventDefault(); focus(rows[rows.length - 1]); } break;
      case " ": if (onRow) { event.preventDefault(); select(row, row.getAttribute("aria-selected") !== "true"); last = row; } break;
      case "Enter": if (onRow && !event.target.closest("a")) location.href = row.dataset.href; break;
      case "Escape": if (peek?.open) peek.close(); else clear(); break;
      case "v": if (letters() && peek) { if (peek.open) peek.close(); else if (row) peek.show(row.dataset.id); } break;
      case "1": case "2": case "3": case "4":
        if (letters() && peek?.open) peek.turn(FACES[event.key - 1]);
        break;
      case "o": case "i": case "r": if (letters() && (picked.size || row)) {
        if (!picked.size) select(row, true);
        const ids = [...picked.keys()].join(",");
        location.href = `/${{ o: "check-out", i: "check-in", r: "send-to-review" }[event.key]}?items=${ids}`;
      } break;
      default: break;
    }
  });
}
