export type Theme = "light" | "dark" | "system";

const KEY = "crelda.theme";

export function rememberedTheme(): Theme {
  const kept = localStorage.getItem(KEY);
  return kept === "light" || kept === "dark" ? kept : "system";
}

export function applyTheme(theme: Theme): void {
  const dark = theme === "dark" || (theme === "system" && matchMedia("(prefers-color-scheme: dark)").matches);
  document.documentElement.dataset.theme = dark ? "dark" : "light";
}

export function rememberTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  applyTheme(theme);
}
