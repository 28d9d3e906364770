import { send, sendAll } from "/static/js/upload.js";
import { fails, same } from "./check.js";

const real = window.fetch;
const answer = (body, status = 200) => new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });

/** A server with one upload at a time for each name; breaks lets a connection break before or after its bytes are kept. */
function server({ breaks = () => null, most = Infinity } = {}) {
  const uploads = new Map();
  const log = [];
  let now = 0;
  let beside = 0;
  window.fetch = async (url, { method, body }) => {
    beside = Math.max(beside, ++now);
    try {
      const path = new URL(url, location.href);
      log.push(`${method} ${path.pathname}${path.searchParams.get("from") ?? ""}`);
      if (method === "POST") {
        const token = path.searchParams.get("name");
        uploads.set(token, { size: Number(path.searchParams.get("size")), bytes: [] });
        return answer({ token, received: 0, complete: false });
      }
      const token = decodeURIComponent(path.pathname.split("/")[2]);
      const upload = uploads.get(token);
      if (method === "PUT") {
        const from = Number(path.searchParams.get("from"));
        const broken = breaks(log.length, token, from);
        if (broken === "busy") return answer({ code: "upload.busy", detail: "Many files are being sent." }, 409);
        if (broken === "refused") return answer({ code: "file.longer", detail: "More bytes came.", remedy: "Send it again." }, 409);
        if (broken === "signed out") return answer({}, 401);
        if (broken === "before") throw new TypeError("broken");
        const bytes = new Uint8Array(await body.arrayBuffer());
        if (from === upload.bytes.length) upload.bytes.push(...bytes.slice(0, most));
        if (broken === "after") throw new TypeError("broken");
      }
      return answer({ token, received: upload.bytes.length, complete: upload.bytes.length === upload.size });
    } finally {
      now--;
    }
  };
  return { uploads, log, beside: () => beside };
}

const file = (name, length) => new File([Uint8Array.from({ length }, (_, i) => (i * 7) % 251)], name);
const bytes = async (f) => [...new Uint8Array(await f.arrayBuffer())];

const tests = {
  "a file comes whole, and its progress is told": async () => {
    const s = server();
    const told = [];
    const f = file("cone.dxf", 1000);
    same(await send(f, (n) => told.push(n)), "cone.dxf");
    same(s.uploads.get("cone.dxf").bytes, await bytes(f));
    same(told.at(-1), 1000);
  },
  "a connection that breaks before or after the bytes were kept goes on from where the server stands": async () => {
    for (const how of ["before", "after"]) {
      const s = server({ breaks: (n) => (n === 3 ? how : null), most: 300 });
      const f = file(`${how}.dxf`, 1000);
      await send(f, () => {});
      same(s.uploads.get(`${how}.dxf`).bytes, await bytes(f), how);
      same(s.log.filter((l) => l.startsWith("GET")).length, 1);
    }
  },
  "what the server refuses is not tried again": async () => {
    const s = server({ breaks: () => "refused" });
    await fails(() => send(file("x", 10), () => {}), "More bytes came. Send it again.");
    same(s.log.length, 2);
  },
  "a session that ended is told, and that nothing is lost": async () => {
    server({ breaks: () => "signed out" });
    await fails(() => send(file("x", 10), () => {}), "Your session has ended");
  },
  "a server with its hands full is asked again": async () => {
    const s = server({ breaks: (n) => (n === 2 ? "busy" : null) });
    await send(file("x", 10), () => {});
    same(s.uploads.get("x").bytes.length, 10);
  },
  "several come beside each other, few at once, each to its place": async () => {
    const s = server({ breaks: (n, token) => (token === "f3" ? "refused" : null) });
    const files = Array.from({ length: 9 }, (_, i) => (i % 2 ? file(`f${i}`, 50) : async () => file(`f${i}`, 50)));
    const results = await sendAll(files, () => {});
    same(results.map((r) => r.token ?? "refused"), ["f0", "f1", "f2", "refused", "f4", "f5", "f6", "f7", "f8"]);
    same(s.beside() > 1 && s.beside() <= 3, true, `${s.beside()} at once`);
  },
  "a file that cannot be read does not hold the others up": async () => {
    server();
    const results = await sendAll([async () => { throw new TypeError("gone"); }, file("b", 5)], () => {});
    same([results[0].error.message, results[1].token], ["gone", "b"]);
  },
};

export default Object.fromEntries(Object.entries(tests).map(([name, test]) => [name, async () => {
  try { await test(); } finally { window.fetch = real; }
}]));
