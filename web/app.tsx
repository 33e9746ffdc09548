import { type ComponentType, StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { Toaster } from "sonner";
import { LostScreen } from "./screens/LostScreen";
import "./styles.css";

/** A screen that is loaded when it is gone to; the one before it stays in sight meanwhile. */
const screen = (path: string, load: () => Promise<ComponentType>) => ({
  path,
  lazy: { Component: load },
  errorElement: <LostScreen />,
  hydrateFallbackElement: <></>,
});

const run = async () => (await import("./screens/RunScreen")).RunScreen;
const stock = async () => (await import("./screens/StockScreen")).StockScreen;

const router = createBrowserRouter([
  screen("/", async () => (await import("./screens/RackScreen")).RackScreen),
  screen("/new", async () => (await import("./screens/NewScreen")).NewScreen),
  screen("/bench/:id", async () => (await import("./screens/BenchScreen")).BenchScreen),
  screen("/bench/:id/cut", async () => (await import("./screens/CutScreen")).CutScreen),
  screen("/runs", async () => (await import("./screens/RunsScreen")).RunsScreen),
  screen("/runs/new", async () => (await import("./screens/NewRunScreen")).NewRunScreen),
  screen("/runs/:id", run),
  screen("/runs/:id/:view", run),
  screen("/stock", stock),
  screen("/stock/:sheet", stock),
  screen("/stock/:sheet/test", async () => (await import("./screens/CouponScreen")).CouponScreen),
  screen("/check", async () => (await import("./screens/CheckScreen")).CheckScreen),
  { path: "*", element: <LostScreen /> },
]);

createRoot(document.getElementById("root")!).render(
  <StrictMode>
    <RouterProvider router={router} />
    {/* Above the chain and the buttons of the stage, where nothing is filled in. */}
    <Toaster
      position="bottom-center"
      offset={{ bottom: 168 }}
      mobileOffset={{ bottom: 16 }}
      toastOptions={{ className: "font-sans", duration: 6000 }}
    />
  </StrictMode>,
);
