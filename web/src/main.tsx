import { registerSW } from "virtual:pwa-register";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { core, readyWhenAway } from "@/api/core/keeping";
import { App } from "@/app/app";
import { applyTheme, rememberedTheme } from "@/shell/theme";
import { refreshWords } from "@/words/kept-words";
import "./styles.css";

applyTheme(rememberedTheme());
// A new version takes over when all windows are closed, never in the middle of work.
registerSW({ immediate: true });
// Whoever installs the program means to have it where there is no network.
window.addEventListener("appinstalled", () => void core.want());
readyWhenAway();
void core.look();
// Another version of the program may say it otherwise.
void refreshWords();
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
