package mintshelf.demo;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** The pictures of the main views in docs/screenshots. */
final class Pictures {
    private static final Path FOLDER = Path.of("docs/screenshots");

    private static final String SHELF = "/shelves/1";

    /** Taps on three holes of the gland plate, as a finger would. */
    private Pictures() {}

    private static String row(String number) {
        return "[...document.querySelectorAll('.spine')].find(r => r.dataset.number === '" + number + "')";
    }

    private static String click(String number) {
        return row(number) + ".click()";
    }

    private static String open(String number) {
        return "location.href = " + row(number) + ".dataset.href";
    }

    /** A request or an order, by words of its title. */
    private static String change(String words) {
        return "location.href = [...document.querySelectorAll('.change-row')].find(r => r.textContent.includes('"
                + words + "')).querySelector('a.n').href";
    }

    /** How far a change reaches, by words of its title. */
    private static String reachOf(String words) {
        return "location.href = [...document.querySelectorAll('.change-row')].find(r => r.textContent.includes('"
                + words + "')).querySelector('a.n').getAttribute('href').replace('/requests/', '/changes/') + '/reach'";
    }

    /** Opens a page of the model of a number; its drawing stands before it on the shelf. */
    private static String model(String number, String page) {
        return "location.href = [...document.querySelectorAll('.spine[data-number=\"" + number
                + "\"]')].at(-1).dataset.href + '" + page + "'";
    }

    /** One spine a document, or one an item; the page comes anew. */
    private static String spines(String an) {
        return "[...document.querySelectorAll('.list-tools button')].find(b => b.textContent === '" + an + "').click()";
    }

    /** Waits until the kernel has read the model's files. */
    private static final String READY =
            "return new Promise(done => { const wait = () => document.querySelector('[data-ready]') ? setTimeout(done, 400) : setTimeout(wait, 100); wait(); })";

    private static final String MARKED =
            "return new Promise((done) => { const wait = () => document.querySelectorAll('.model-marks g').length ? done() : setTimeout(wait, 100); wait(); })";

    /** What a desk picture does in turn: a folder inside the browser, what was asked for brought, files changed by hand. */
    private static final String BROUGHT = """
            return (async () => {
              const until = async (f) => { for (let i = 0; i < 300; i++) { const r = await f(); if (r) return r; await new Promise((d) => setTimeout(d, 100)); } throw new Error(String(f)); };
              document.querySelector('[data-practice-folder]').click();
              (await until(() => [...document.querySelectorAll('[data-plan] .btn-mint')].find((b) => !b.disabled))).click();
              await until(() => document.body.textContent.includes('on the desk now'));
            })();
            """;

    private static final String CHANGED = """
            return (async () => {
              for (let i = 0; i < 100 && document.querySelector('[data-section=absent], .at-work'); i++) await new Promise((d) => setTimeout(d, 100));
              document.querySelector('[data-section=even] > button')?.click();
              const root = await (await navigator.storage.getDirectory()).getDirectoryHandle('practice desk');
              const write = async (path, change) => {
                const s = path.split('/'), name = s.pop();
                let at = root;
                for (const one of s) at = await at.getDirectoryHandle(one, { create: true });
                const handle = await at.getFileHandle(name, { create: true });
                const text = change(await (await handle.getFile()).text());
                const out = await handle.createWritable();
                await out.write(text);
                await out.close();
              };
              const lines = [...document.querySelectorAll('[data-line]')].map((l) => l.dataset.line);
              const of = (end) => lines.find((l) => l.endsWith(end)) ?? end;
              await write(of('TG40-3010 Housing.stp'), (t) => t.replace('ENDSEC;', 'ENDSEC; '));
              await write(of('tg40-1050-clamp-liner.dxf'), (t) => t.replace('2010', '2011').replace('EOF', 'EOF '));
              await write('TG40 Tide gauge/3000 Encoder head/cable notes.txt', () => 'Cable 1.8 m, gland below.');
              document.querySelector('[data-section=even] .card-ours')?.remove();
              document.querySelector('[data-read]').click();
              for (let i = 0; i < 100 && !document.querySelector('[data-word=strayed]'); i++) await new Promise((d) => setTimeout(d, 100));
            })();
            """;

    private static final String REMARKS = """
            return (async () => {
              for (let i = 0; i < 100 && !document.querySelector('[data-row]'); i++) await new Promise((d) => setTimeout(d, 100));
              [...document.querySelectorAll('[data-row]')].find((r) => r.textContent.includes('leader'))?.querySelector('[data-pick-remark]').click();
              for (let i = 0; i < 50 && !document.querySelector('.remark-set'); i++) await new Promise((d) => setTimeout(d, 100));
              document.querySelector('[data-zoom=fit]').click();
              document.activeElement?.blur();
              await new Promise((d) => setTimeout(d, 400));
            })();
            """;

    private static final String SWAP = """
            return (async () => {
              const id = async (number) => {
                const text = await (await fetch('/search?q=' + encodeURIComponent('"' + number + '"'))).text();
                const links = [...new DOMParser().parseFromString(text, 'text/html').querySelectorAll('a[href^="/documents/"]')];
                return links.find((a) => a.textContent.trim() === number).getAttribute('href').match(/[0-9]+/)[0];
              };
              const screws = `${await id('ISO 4762 M6 x 16')}-${await id('ISO 4017 M5 x 20')}`;
              location.href = `/swap?pairs=${screws},${await id('ISO 3601 40 x 2')}-${await id('ISO 3601 40 x 2.5')}`;
            })();
            """;

    private static final String DESIGN = """
            return (async () => {
              const until = async (f) => { for (let i = 0; i < 100; i++) { if (f()) return; await new Promise((d) => setTimeout(d, 100)); } throw new Error(String(f)); };
              const say = async (field, value, then) => { field.value = value; field.dispatchEvent(new Event('change', { bubbles: true })); await until(() => document.body.textContent.includes(then)); };
              const cell = (number) => [...document.querySelectorAll('.dt')].find((r) => r.querySelector('.n')?.textContent === number).querySelector('.dt-cell');
              document.querySelector('#from').value = 'TG40-####';
              await say(document.querySelector('#to'), 'TG42-####', 'Make 12 documents');
              await say(cell('TG40-3040'), 'TG40-3040', 'is shared');
              await say(cell('ISO 3601 40 x 2'), 'ISO 3601 40 x 2.5', 'is exchanged');
              await say(cell('ISO 4762 M6 x 16'), '', 'is left out');
            })();
            """;

    private static final String WHEN_SEATED = """
            return (async () => {
              for (let i = 0; i < 100 && !document.querySelector('.swap-seats small'); i++) await new Promise((d) => setTimeout(d, 100));
            })();
            """;

    private static final String PLAN = "location.href = document.querySelector('a[href^=\"/release-plan\"]').href";

    static void refresh(String origin) throws IOException {
        try (Shots shots = new Shots(origin)) {
            shots.signIn("");
            shots.signIn("priya");
            take(shots, "/today", "today", List.of());
            take(shots, SHELF, "shelf", List.of(spines("an item"), click("TG40-1000"), click("TG40-1050")));
            take(shots, SHELF, "bom", List.of(spines("a document"), model("TG40-3000", "/bom")));
            take(shots, SHELF, "document", List.of(open("TG40-2010")));
            take(
                    shots,
                    SHELF,
                    "compare",
                    List.of(open("TG40-3030"), "document.querySelector('[data-compare]').click()"));
            take(
                    shots,
                    SHELF,
                    "desk",
                    List.of(
                            model("TG40-3000", ""),
                            "location.href = document.querySelector('a[href^=\"/desk?bring=\"]').href",
                            BROUGHT,
                            "document.querySelector('[data-update]').click()",
                            CHANGED));
            take(shots, SHELF, "new-design", List.of(model("TG40-3000", "/new-design"), DESIGN));
            shots.signIn("oluwaseun");
            String round =
                    "location.href = [...document.querySelectorAll('.tray')].find(t => t.textContent.includes('TG40-3030')).querySelector('a.n').href";
            shots.shot("/in-tray", FOLDER.resolve("phone-sign-off.png"), 390, 844, false, List.of(round));
            take(shots, "/changes", "changes", List.of());
            take(shots, "/changes", "reach", List.of(reachOf("pipe clamp")));
            take(shots, "/changes", "order", List.of(change("Intake in duplex")));
            shots.signIn("hedda");
            take(
                    shots,
                    "/in-tray",
                    "round",
                    List.of(
                            "location.href = [...document.querySelectorAll('.tray')].find(t => t.textContent.includes('and 1 more')).querySelector('a.n').href"));
            take(shots, SHELF, "model", List.of(model("TG40-3000", "/versions/1/model"), READY, MARKED));
            take(
                    shots,
                    SHELF,
                    "redlines",
                    List.of(open("TG40-3030"), "document.querySelector('.sheet .whole').click()", REMARKS));
            shots.signIn("ines");
            take(shots, "/search?q=material:316L+stage:%22in+review%22,%22in+preparation%22", "search", List.of());
            take(shots, "/today", "swap", List.of(SWAP, WHEN_SEATED));
            take(shots, SHELF, "item", List.of(open("TG40-3030"), "location.href = location.pathname + '/item'"));
            take(shots, SHELF, "release-plan", List.of(model("TG40-1000", ""), PLAN));
            take(
                    shots,
                    "/house/routes/reviewed-twice/draw?move=read",
                    "route",
                    List.of(
                            "const f = document.querySelector('input[placeholder=\"With quality\"]'); f.value = 'With quality'; f.form.requestSubmit()",
                            "return new Promise((done) => setTimeout(done, 800))"));
        }
    }

    private static void take(Shots shots, String path, String name, List<String> steps) throws IOException {
        shots.shot(path, FOLDER.resolve(name + ".png"), 1280, 800, false, steps);
        System.out.println(FOLDER.resolve(name + ".png"));
    }
}
