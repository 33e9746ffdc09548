import { lazy, type ReactNode, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { Toaster } from "sonner";
import { BenchScreen } from "./screens/BenchScreen";
import { CheckScreen } from "./screens/CheckScreen";
import { CutScreen } from "./screens/CutScreen";
import { LostScreen } from "./screens/LostScreen";
import { NewRunScreen } from "./screens/NewRunScreen";
import { NewScreen } from "./screens/NewScreen";
import { RackScreen } from "./screens/RackScreen";
import { RunScreen } from "./screens/RunScreen";
import { RunsScreen } from "./screens/RunsScreen";
import "./styles.css";

/** Rarely wanted, with what it brings. */
const StockScreen = lazy(() => import("./screens/StockScreen").then((screen) => ({ default: screen.StockScreen })));

const CouponScreen = lazy(() => import("./screens/CouponScreen").then((screen) => ({ default: screen.CouponScreen })));

function Later({ screen }: { screen: ReactNode }) {
  return <Suspense fallback={null}>{screen}</Suspense>;
}

const router = createBrowserRouter([
  { path: "/", element: <RackScreen />, errorElement: <LostScreen /> },
  { path: "/new", element: <NewScreen />, errorElement: <LostScreen /> },
  { path: "/bench/:id", element: <BenchScreen />, errorElement: <LostScreen /> },
  { path: "/bench/:id/cut", element: <CutScreen />, errorElement: <LostScreen /> },
  { path: "/runs", element: <RunsScreen />, errorElement: <LostScreen /> },
  { path: "/runs/new", element: <NewRunScreen />, errorElement: <LostScreen /> },
  { path: "/runs/:id", element: <RunScreen />, errorElement: <LostScreen /> },
  { path: "/runs/:id/:view", element: <RunScreen />, errorElement: <LostScreen /> },
  { path: "/stock", element: <Later screen={<StockScreen />} />, errorElement: <LostScreen /> },
  { path: "/stock/:sheet", element: <Later screen={<StockScreen />} />, errorElement: <LostScreen /> },
  { path: "/stock/:sheet/test", element: <Later screen={<CouponScreen />} />, errorElement: <LostScreen /> },
  { path: "/check", element: <CheckScreen />, errorElement: <LostScreen /> },
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
