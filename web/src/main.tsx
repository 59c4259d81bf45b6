import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "@/app/app";
import { applyTheme, rememberedTheme } from "@/app/theme";
import "./styles.css";

applyTheme(rememberedTheme());
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}
