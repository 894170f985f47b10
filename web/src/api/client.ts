import createClient from "openapi-fetch";
import { heard, heardNothing } from "./contact";
import type { components, paths } from "./schema";

export type Session = components["schemas"]["SessionOut"];
export type BenchRow = components["schemas"]["BenchRow"];
export type BenchPage = components["schemas"]["BenchOut"];
export type Role = Session["role"];
export type Person = components["schemas"]["PersonOut"];
export type PlanList = components["schemas"]["ListSaid"];
export type Side = components["schemas"]["SideSaid"];
export type PlanTable = components["schemas"]["TableSaid"];
export type HistoryEntry = components["schemas"]["HistoryEntry"];
export type Hit = components["schemas"]["HitOut"];
export type ShelfKind = components["schemas"]["ShelfKind"];
export type Item = components["schemas"]["Item"];
export type ItemField = components["schemas"]["ItemField"];
export type ChuckChart = components["schemas"]["ChuckChart"];
export type FileAnswer = components["schemas"]["FileAnswer"];
export type KindName = Item["kind"];
export type Plan = components["schemas"]["PlanOut"];
/** What is known of a plan under another entry, laid over the kept one. */
export type Preview = components["schemas"]["PreviewOut"];
/** What a screen shows at one place of a plan, by its name. */
export type Part = components["schemas"]["PartOut"];
export type PlanParts = components["schemas"]["PartsOut"];
/** A stop in its line. */
export type StopLine = components["schemas"]["StopLine"];
/** A picture that a stop can be shown by. */
export type Offer = components["schemas"]["Offer"];
/** A stop with its page, which is there once it was looked at. */
export type Stop = StopLine & components["schemas"]["StopPage"];
export type Fact = components["schemas"]["FactSaid"];
export type Answer = components["schemas"]["AnswerSaid"];
export type Note = components["schemas"]["NoteSaid"];
export type Help = components["schemas"]["HelpSaid"];
export type Step = components["schemas"]["StepSaid"];
export type Scene = components["schemas"]["SceneSaid"];
export type Shape = components["schemas"]["ShapeSaid"];
export type Graph = components["schemas"]["GraphSaid"];
export type Practice = components["schemas"]["PracticeOut"];
export type PracticeSubject = components["schemas"]["SubjectOut"];
export type PracticeExercise = components["schemas"]["ExerciseOut"];
export type PracticeGrade = components["schemas"]["GradeSaid"];
export type Calculator = components["schemas"]["CalculatorShown"];
export type CalculatorAnswer = components["schemas"]["CalculatorAnswer"];
export type Dimension = components["schemas"]["DimensionSaid"];
export type Chart = components["schemas"]["ChartSaid"];
export type Releases = components["schemas"]["ReleasesOut"];
export type ChuckGauge = components["schemas"]["ChuckGaugeOut"];
export type GaugeRunLine = components["schemas"]["GaugeRunOut"];
export type GaugeRun = components["schemas"]["GaugeRunPage"];
export type Board = components["schemas"]["BoardOut"];
export type BoardRun = components["schemas"]["BoardRun"];
export type CardPage = components["schemas"]["CardOut"];
export type CardDone = components["schemas"]["DoneOut"];
export type CardStep = components["schemas"]["CardStepSaid"];
export type CardAsk = components["schemas"]["AskSaid"];
export type CardReading = components["schemas"]["CardReadingOut"];
export type CardFollows = components["schemas"]["FollowsOut"];
export type CardMark = components["schemas"]["MarkOut"];
export type Compared = components["schemas"]["ComparedOut"];
export type RunningPage = components["schemas"]["RunningOut"];
export type RunningKept = components["schemas"]["KeptOut"];
export type RunningDimension = RunningPage["standing"]["dimensions"][number];
export type RunningEdge = components["schemas"]["EdgeClockSaid"];
export type RunningChart = RunningDimension["chart"];
export type PieceMade = components["schemas"]["PieceOut"];
export type LotClosing = components["schemas"]["ClosingOut"];
export type Lesson = components["schemas"]["LessonOut"];
export type PiecesFile = components["schemas"]["PiecesFileOut"];
type Said = "key" | "release" | "lot" | "units" | "at";
type InRunning<Shape extends keyof components["schemas"]> = Omit<components["schemas"][Shape], Said>;
/** What can be said in Running, by where it is sent. */
export type RunningDoings = {
  pieces: Partial<InRunning<"PieceIn">>;
  sizes: Partial<InRunning<"MeasureIn">> & Pick<InRunning<"MeasureIn">, "values">;
  changes: Partial<InRunning<"ChangeIn">> & Pick<InRunning<"ChangeIn">, "kind" | "edge">;
  stops: Partial<InRunning<"StopIn">> & Pick<InRunning<"StopIn">, "what">;
  corrections: Partial<InRunning<"CorrectIn">> & Pick<InRunning<"CorrectIn">, "piece" | "why">;
};
export type HouseRule = components["schemas"]["RuleOut"];
export type Picture = components["schemas"]["PictureSaid"];
export type ToolsForCut = components["schemas"]["ToolsOut"];
/** A question that takes long, and how it stands. */
export type Question = components["schemas"]["QuestionOut"];
export type Effects = components["schemas"]["EffectsOut"];
export type Check = components["schemas"]["CheckOut"];
export type GaugeHeard = components["schemas"]["HeardOut"];
export type NotebookAnswer = components["schemas"]["NotebookFileAnswer"];
export type Settled = components["schemas"]["SettledOut"];
export type GainFound = components["schemas"]["GainOut"];
export type LikeCuts = components["schemas"]["LikeOut"];
export type NotebookPage = components["schemas"]["NotebookOut"];
export type Noted = components["schemas"]["NotedOut"];
export type ProvenLine = components["schemas"]["ProvenLine"];
export type Problem = components["schemas"]["Problem"];
export type Units = Plan["units"];

/** The only way to the server. */
export const client = createClient<paths>({
  baseUrl: globalThis.location.origin,
  fetch: (request) => globalThis.fetch(request),
});

/** The token that shows that a change comes from this page; the page names the cookie that holds it. */
function token(): string | undefined {
  const name = document.querySelector('meta[name="token-cookie"]')?.getAttribute("content");
  const found = document.cookie.split("; ").find((one) => name && one.startsWith(`${name}=`));
  return found?.slice(found.indexOf("=") + 1);
}

client.use({
  onRequest({ request }) {
    const found = request.method === "GET" ? undefined : token();
    if (found) request.headers.set("X-CSRFToken", found);
    return request;
  },
  onResponse({ response }) {
    if (isAnswer(response)) heard(response.headers);
  },
});

const DISK_FULL = 507; // the server's own word; other answers above 501 come from in front of it

const isAnswer = (response: Response) => response.status < 502 || response.status === DISK_FULL;

/** The server did not answer: nothing is known of what it did. */
export class NoAnswer extends Error {}

/** The server answered with a problem. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem | undefined,
  ) {
    super(problem?.title ?? `The server answered ${status}.`);
  }
}

type Answered<T> = { data?: T; error?: unknown; response: Response };

/** The data of an answer; throws Refused for a problem and NoAnswer where there was none. */
export async function answered<T>(asked: Promise<Answered<T>>): Promise<T> {
  let result: Answered<T>;
  try {
    result = await asked;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    heardNothing();
    throw new NoAnswer("The server does not answer.");
  }
  if (!isAnswer(result.response)) {
    heardNothing();
    throw new NoAnswer("The server does not answer.");
  }
  if (!result.response.ok) throw new Refused(result.response.status, result.error as Problem | undefined);
  return result.data as T;
}

/** What to say of an error where there is no field for it. */
export function said(error: unknown): string {
  return error instanceof Error ? error.message : "Something went wrong. Try again.";
}

/** The sentence of each field that the server wants another look at. */
export function fieldErrors(error: unknown): Record<string, string> {
  if (!(error instanceof Refused)) return {};
  return Object.fromEntries((error.problem?.errors ?? []).map((e) => [e.field, e.message]));
}
