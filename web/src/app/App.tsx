import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { Bench } from "../features/bench/Bench";
import { PlanScreen } from "../features/plan/PlanScreen";
import { Gate } from "../features/session/Gate";
import { GlobalStyle } from "./GlobalStyle";

const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: 10_000, retry: 1, refetchOnWindowFocus: true } },
});

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <BrowserRouter>
        <Gate>
          {(session) => (
            <Routes>
              <Route path="/" element={<Bench session={session} />} />
              <Route path="/runs/:runId" element={<Navigate to="part" replace />} />
              <Route path="/runs/:runId/:stop" element={<PlanScreen session={session} />} />
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          )}
        </Gate>
      </BrowserRouter>
    </QueryClientProvider>
  );
}
