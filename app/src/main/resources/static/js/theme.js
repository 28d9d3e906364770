// Before the first paint: the person's theme, or the system's.
(() => {
  const root = document.documentElement;
  const dark = window.matchMedia("(prefers-color-scheme: dark)");
  const choose = () => {
    const choice = root.dataset.themeChoice || "system";
    root.dataset.bsTheme = choice === "system" ? (dark.matches ? "dark" : "light") : choice;
  };
  choose();
  dark.addEventListener("change", choose);
})();
