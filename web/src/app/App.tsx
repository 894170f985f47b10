import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ComponentType, ReactNode } from "react";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";
import { Refused, type Session } from "../api/client";
import { Bench } from "../features/bench/Bench";
import { NewRun } from "../features/bench/NewRun";
import { FindBox } from "../features/find/FindBox";
import { HistoryScreen } from "../features/plan/HistoryScreen";
import { PlanScreen } from "../features/plan/PlanScreen";
import { Gate } from "../features/session/Gate";
import { LOOK_AS } from "../features/session/queries";
import { Tools } from "../features/session/Tools";
import { LocalHits } from "../shared/find/LocalHits";
import { AppHeader, Blank } from "../shared/ui/Page";
import { Stumbled } from "../shared/ui/Stumbled";
import { seldom } from "../shared/ui/seldom";
import { GlobalStyle } from "./GlobalStyle";

// What is opened seldom is loaded when it is: the first load stays small.
const opened = <P extends object>(load: () => Promise<ComponentType<P>>) =>
  seldom(load, <Blank>Opening …</Blank>);

const ShelfScreen = opened(() => import("../features/shelf/ShelfScreen").then((m) => m.ShelfScreen));
const People = opened(() => import("../features/people/People").then((m) => m.People));
const ReleaseScreen = opened(() => import("../features/plan/ReleaseScreen").then((m) => m.ReleaseScreen));
const GaugeScreen = opened(() => import("../features/gauge/GaugeScreen").then((m) => m.GaugeScreen));
const NotebookScreen = opened(() =>
  import("../features/notebook/NotebookScreen").then((m) => m.NotebookScreen),
);
const PracticeScreen = opened(() =>
  import("../features/practice/PracticeScreen").then((m) => m.PracticeScreen),
);
const ExerciseScreen = opened(() =>
  import("../features/practice/ExerciseScreen").then((m) => m.ExerciseScreen),
);
const ApprenticeScreen = opened(() =>
  import("../features/practice/ApprenticeScreen").then((m) => m.ApprenticeScreen),
);
const FromWorkScreen = opened(() =>
  import("../features/practice/FromWorkScreen").then((m) => m.FromWorkScreen),
);
const CalculatorsScreen = opened(() =>
  import("../features/calculators/CalculatorsScreen").then((m) => m.CalculatorsScreen),
);
const BoardScreen = opened(() => import("../features/board/BoardScreen").then((m) => m.BoardScreen));
const card = () => import("../features/card/CardScreen");
const CardScreen = opened(() => card().then((m) => m.CardScreen));
const running = () => import("../features/running/RunningScreen");
const RunningScreen = opened(() => running().then((m) => m.RunningScreen));
const HouseRules = opened(() => import("../features/house/HouseRules").then((m) => m.HouseRules));
const Trail = opened(() => import("../features/people/Trail").then((m) => m.Trail));
const Password = opened(() => import("../features/session/Password").then((m) => m.Password));

/** A session that has ended: whoever works here signs in again where they were, the demo by being opened anew. */
function seeWhoIsHere(error: Error) {
  if (!(error instanceof Refused) || error.status !== 401) return;
  // Another role is being taken: what was asked as the one before is late, and the page begins anew with the answer.
  if (queries.isMutating({ mutationKey: LOOK_AS }) > 0) return;
  if (queries.getQueryData<Session | null>(["session"])?.demo) window.location.reload();
  else void queries.invalidateQueries({ queryKey: ["session"] });
}

/** What was refused is refused the second time, too; a server that does not answer may the next moment. */
const again = (failed: number, error: Error) =>
  failed < 1 && !(error instanceof Refused && error.status < 500);

const queries = new QueryClient({
  queryCache: new QueryCache({ onError: seeWhoIsHere }),
  mutationCache: new MutationCache({ onError: seeWhoIsHere }),
  // A browser that thinks itself offline asks all the same: what is kept in it answers.
  defaultOptions: {
    queries: { staleTime: 10_000, retry: again, refetchOnWindowFocus: true, networkMode: "always" },
    mutations: { networkMode: "always" },
  },
});

// At the machine nobody waits for one thing after the other: the card is asked for beside who is here.
if (window.location.pathname.endsWith("/card"))
  void card().then((m) => m.askEarly(queries, new URL(window.location.href)));
if (window.location.pathname.endsWith("/running"))
  void running().then((m) => m.askEarly(queries, new URL(window.location.href)));

function Places({ session }: { session: Session }) {
  const tools: ReactNode = (
    <>
      <FindBox />
      <Tools session={session} />
    </>
  );
  return (
    <Routes>
      <Route path="/" element={<Bench session={session} tools={tools} />} />
      <Route path="/new" element={<NewRun tools={tools} />} />
      <Route path="/runs/:runId" element={<PlanScreen session={session} tools={tools} />} />
      <Route path="/runs/:runId/history" element={<HistoryScreen session={session} tools={tools} />} />
      <Route path="/runs/:runId/releases" element={<ReleaseScreen session={session} tools={tools} />} />
      <Route path="/runs/:runId/card" element={<CardScreen session={session} />} />
      <Route path="/runs/:runId/running" element={<RunningScreen session={session} />} />
      <Route path="/runs/:runId/:stop" element={<PlanScreen session={session} tools={tools} />} />
      <Route path="/board" element={<BoardScreen tools={tools} />} />
      <Route path="/shelf" element={<ShelfScreen session={session} tools={tools} />} />
      <Route path="/shelf/:kind" element={<ShelfScreen session={session} tools={tools} />} />
      <Route path="/shelf/:kind/:itemKey" element={<ShelfScreen session={session} tools={tools} />} />
      <Route path="/chucks/:key/gauge" element={<GaugeScreen session={session} tools={tools} />} />
      <Route path="/notebook" element={<NotebookScreen session={session} tools={tools} />} />
      <Route path="/calculators" element={<CalculatorsScreen tools={tools} />} />
      <Route path="/calculators/:name" element={<CalculatorsScreen tools={tools} />} />
      <Route path="/practice" element={<PracticeScreen session={session} tools={tools} />} />
      <Route path="/practice/apprentice" element={<ApprenticeScreen tools={tools} />} />
      <Route path="/practice/:kind" element={<ExerciseScreen tools={tools} />} />
      <Route path="/practice/from/:runId" element={<FromWorkScreen tools={tools} />} />
      <Route path="/rules" element={<HouseRules tools={tools} />} />
      <Route path="/people" element={<People session={session} tools={tools} />} />
      <Route path="/trail" element={<Trail tools={tools} />} />
      <Route
        path="/password"
        element={
          <>
            <AppHeader title="My password" tools={tools} />
            <Password />
          </>
        }
      />
      <Route path="*" element={<Navigate to="/" replace />} />
    </Routes>
  );
}

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <GlobalStyle />
      <BrowserRouter>
        <LocalHits>
          <Stumbled>
            <Gate>{(session) => <Places session={session} />}</Gate>
          </Stumbled>
        </LocalHits>
      </BrowserRouter>
    </QueryClientProvider>
  );
}
