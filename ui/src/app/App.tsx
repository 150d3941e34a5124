import {
  Autocomplete,
  Checkbox,
  createTheme,
  MantineProvider,
  Modal,
  NativeSelect,
  Select,
  Textarea,
  TextInput,
} from "@mantine/core";
import { notifyManager, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { createBrowserRouter, Link, Navigate, RouterProvider } from "react-router";
import { followAnswers } from "../api/power";
import { frame } from "../words/frame";
import { Failed } from "./Failed";
import { Frame } from "./Frame";
import { unpressed } from "./unpressed";

const ink = Array.from({ length: 10 }, () => "#14213a") as unknown as [
  string,
  string,
  string,
  string,
  string,
  string,
  string,
  string,
  string,
  string,
];
const theme = createTheme({
  colors: { ink },
  primaryColor: "ink",
  fontFamily: "var(--text)",
  fontFamilyMonospace: "var(--mono)",
  defaultRadius: 7,
  respectReducedMotion: true,
  components: {
    Modal: Modal.extend({ defaultProps: { closeButtonProps: { "aria-label": frame.close } } }),
    TextInput: TextInput.extend({ defaultProps: { size: "md" } }),
    Textarea: Textarea.extend({ defaultProps: { size: "md" } }),
    NativeSelect: NativeSelect.extend({ defaultProps: { size: "md" } }),
    Autocomplete: Autocomplete.extend({ defaultProps: { size: "md" } }),
    Select: Select.extend({ defaultProps: { size: "md" } }),
    Checkbox: Checkbox.extend({ defaultProps: { size: "md" } }),
  },
});
const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });
followAnswers(queries);
// What comes from the server while a finger is down is shown after it: rows do not move under it.
notifyManager.setScheduler((show) => setTimeout(() => unpressed(show), 0));

const router = createBrowserRouter([
  {
    element: <Frame />,
    HydrateFallback: () => null,
    errorElement: <Failed />,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      { path: "jobs", lazy: async () => ({ Component: (await import("../rooms/jobs/JobsRoom")).JobsRoom }) },
      {
        path: "jobs/:jobId/intake",
        lazy: async () => ({ Component: (await import("../rooms/intake/IntakeRoom")).IntakeRoom }),
      },
      {
        path: "jobs/:jobId/safe",
        lazy: async () => ({ Component: (await import("../rooms/safe/SafeRoom")).SafeRoom }),
      },
      {
        path: "jobs/:jobId/codes",
        lazy: async () => ({ Component: (await import("../rooms/codes/CodesRoom")).CodesRoom }),
      },
      {
        path: "jobs/:jobId/trace",
        lazy: async () => ({ Component: (await import("../rooms/trace/TraceRoom")).TraceRoom }),
      },
      {
        path: "jobs/:jobId/trip",
        lazy: async () => ({ Component: (await import("../rooms/trip/TripRoom")).TripRoom }),
      },
      {
        path: "jobs/:jobId/repair",
        lazy: async () => ({ Component: (await import("../rooms/repair/RepairRoom")).RepairRoom }),
      },
      {
        path: "jobs/:jobId/prove",
        lazy: async () => ({ Component: (await import("../rooms/prove/ProveRoom")).ProveRoom }),
      },
      {
        path: "jobs/:jobId/sheet-out",
        lazy: async () => ({ Component: (await import("../rooms/sheetOut/SheetOutRoom")).SheetOutRoom }),
      },
      {
        path: "machines/:sheetId?",
        lazy: async () => ({ Component: (await import("../rooms/machines/MachinesRoom")).MachinesRoom }),
      },
      {
        path: "shelf",
        lazy: async () => ({ Component: (await import("../rooms/shelf/ShelfRoom")).ShelfRoom }),
      },
      {
        path: "setup",
        lazy: async () => ({ Component: (await import("../rooms/setup/SetupRoom")).SetupRoom }),
      },
      {
        path: "*",
        element: (
          <div className="page stack">
            <h1>{frame.notFound}</h1>
            <Link to="/jobs">{frame.toJobs}</Link>
          </div>
        ),
      },
    ],
  },
]);

export function App() {
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={queries}>
        <RouterProvider router={router} />
      </QueryClientProvider>
    </MantineProvider>
  );
}
