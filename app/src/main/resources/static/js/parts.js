// Gives each part of the page to the module of its name (data-part="strip desk-words"): nothing loads where it is not used.
// As elements of the page they hold its load event back: whoever sees a page that is loaded can use it.
document.querySelectorAll("[data-part]").forEach((element) => element.dataset.part.split(" ")
  .filter((name) => /^[a-z]+(?:[-/][a-z]+)*$/.test(name))
  .forEach((name) => {
    const address = new URL(`${name}.js`, import.meta.url).href;
    const script = document.createElement("script");
    script.type = "module";
    script.src = address;
    script.addEventListener("load", async () => (await import(address)).begin?.(element));
    document.head.append(script);
  }));
