import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { dressPage } from "./shared/looks";

dressPage();
const root = document.getElementById("app");
if (root) createRoot(root).render(<App />);
