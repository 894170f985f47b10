import { useState } from "react";
import styled from "styled-components";
import type { RunningPage, Session } from "../../api/client";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { WorkWaits } from "../../shared/ui/WorkWaits";
import { useKept } from "../../shared/useKept";
import { AdviceBox } from "./AdviceBox";
import { ClosingPage } from "./ClosingPage";
import { EdgeList } from "./EdgeList";
import { Happened } from "./Happened";
import { Soft } from "./hand";
import { type Entries, MeasureForm } from "./MeasureForm";
import { type Came, type RunningAddress, useDoing, waitingPieces, waitingTitle } from "./queries";
import { RunChart } from "./RunChart";
import { RunningHead } from "./RunningHead";
import { ThreeThings } from "./ThreeThings";
import { WhatCame } from "./WhatCame";
import { WhyForm } from "./WhyForm";

const Whole = styled.div`
  display: grid;
  grid-template-rows: auto auto auto minmax(0, 1fr);
  height: 100%;
  min-height: 0;
  @media ${fold.phone} {
    display: block;
    overflow: auto;
  }
`;

const Body = styled.main`
  display: grid;
  grid-row: 4; /* behind what waits, which is mostly nothing */
  grid-template-columns: minmax(0, 1fr) minmax(19rem, 32%);
  min-height: 0;
  > * {
    min-height: 0;
    overflow: auto;
    padding: ${space(3)} ${space(5)} ${space(5)};
  }
  > aside {
    display: grid;
    gap: ${space(4)};
    align-content: start;
    background: ${colour("card")};
    border-left: ${size.line} solid ${colour("hairline")};
  }
  aside h2 {
    font-size: ${type.hand};
    font-weight: 600;
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
    > aside {
      grid-row: 1;
      border-left: 0;
      border-bottom: ${size.line} solid ${colour("hairline")};
    }
    > * {
      overflow: visible;
    }
  }
`;

const Tabs = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 ${space(5)};
  margin-bottom: ${space(3)};
  button {
    min-height: ${size.hand};
    padding: 0;
    background: none;
    border: 0;
    border-bottom: ${size.thick} solid transparent;
    font: 400 ${type.hand} ${face.narrow};
    color: ${colour("soft")};
    cursor: pointer;
  }
  button[aria-selected="true"] {
    font-weight: 600;
    color: ${colour("ink")};
    border-color: ${colour("ink")};
  }
`;

type Props = {
  page: RunningPage;
  of: RunningAddress;
  session: Session;
  replaced: boolean;
  lookedAt: number;
  onUnits: () => void;
  /** Keep this lot in the address. */
  onStay: () => void;
};

const AT_20 = "20";
const [EDGES, HAPPENED, END] = ["edges", "happened", "end"];

/** A lot that runs, or ran. */
export function OneLot({ page, of, session, replaced, lookedAt, onUnits, onStay }: Props) {
  const doing = useDoing(page, of, session.name, lookedAt);
  const isKept = useKept("running");
  const { dimensions, check } = page.standing;
  const [tab, setTab] = useState(dimensions[0]?.id ?? EDGES);
  const [asking, setAsking] = useState<"scrap" | "stop" | null>(null);
  const [edge, setEdge] = useState<string | null>(null);
  const [entries, setEntries] = useState<Entries>({});
  const [instrument, setInstrument] = useState("");
  const [temp, setTemp] = useState(AT_20);
  const [came, setCame] = useState<Came | null>(null);
  const waiting = waitingPieces(doing.waits);
  const written = Object.fromEntries(Object.entries(entries).filter(([, v]) => v.trim() !== ""));
  const isMeasured = Object.keys(written).length > 0;
  const dimension = dimensions.find((d) => d.id === tab);
  const isDue = check !== null && check.pieces - waiting.counted <= 0;
  const next = Math.max(1, page.head.counted + waiting.counted + (page.counts_itself && !doing.away ? 0 : 1));

  const settle = (found: Came) => {
    setCame(found);
    if (found.kind === "kept" || found.kind === "waits") {
      setEntries({});
      setInstrument("");
      setAsking(null);
    }
  };
  const measured = () => ({ values: written, temp_c: Number(temp.replace(",", ".")) || 20, instrument });
  const itself = page.counts_itself && !doing.away;
  const count = async (more: { good?: boolean; reason?: string; sure?: boolean } = {}) => {
    const { good = true, reason = "", sure = false } = more;
    if (!itself) return settle(await doing.keep("pieces", { ...measured(), ...more }));
    // The machine has counted it: what a person says is of the last one.
    if (good) return settle(await doing.keep("sizes", { ...measured(), sure }));
    settle(await doing.keep("corrections", { piece: page.head.counted, good, reason, why: reason }));
  };
  const put = (dimensionId: string, value: string, by: string) => {
    setEntries((now) => ({ ...now, [dimensionId]: value }));
    setInstrument(by);
    setCame(null);
  };
  const fields = came?.kind === "wrong" ? came.fields : {};
  const elsewhere = came?.kind === "wrong" && !Object.keys(fields).some((f) => f in entries);
  const ready = page.may_mark && !doing.isBusy && (isMeasured || !itself);
  const words = itself ? `Keep it of piece ${next}` : isMeasured ? "Good piece, measured" : "Good piece";
  const press = ready ? words : null;
  const still = itself && !isMeasured ? `${page.machine} counts` : "Good piece";
  // What is to be done at an offset stands first, unless a piece is to be measured before it.
  const isAdvised = !isDue && Boolean(dimension?.advice?.told);
  const advice = dimension && (
    <AdviceBox
      key={`advice ${dimension.id}`}
      dimension={dimension}
      counted={page.head.counted}
      mayMark={page.may_mark}
      onDone={(amount) =>
        void doing.keep("changes", { kind: "offset", edge: dimension.edge, amount }).then(setCame)
      }
    />
  );
  return (
    <Whole>
      <RunningHead page={page} person={session.name} waiting={waiting} away={doing.away} onUnits={onUnits} />
      <ThreeThings
        page={page}
        waiting={waiting.counted}
        press={press}
        still={still}
        onPress={() => void count()}
        onScrap={() => setAsking("scrap")}
        onStop={() => setAsking("stop")}
        onGoOn={() => void doing.keep("stops", { what: "on" }).then(settle)}
        onFresh={(key) => void doing.keep("changes", { kind: "edge", edge: key, why: "due" }).then(setCame)}
      />
      <div>
        <WorkWaits titleOf={waitingTitle} waits={doing.waits} isKept={isKept} />
        {page.machine_trouble && <NoteBox level="caution">{page.machine_trouble}</NoteBox>}
        {replaced && (
          <NoteBox level="stop">
            This release was replaced. <a href={`/runs/${page.run}/running`}>Open the one that stands now.</a>
          </NoteBox>
        )}
      </div>
      <Body tabIndex={0}>
        <section aria-label="This lot">
          <Tabs role="tablist" aria-label="What to look at">
            {dimensions.map((d) => (
              <Tab key={d.id} id={d.id} at={tab} onGo={setTab}>
                {d.title}
              </Tab>
            ))}
            <Tab id={EDGES} at={tab} onGo={setTab}>
              Edges
            </Tab>
            <Tab id={HAPPENED} at={tab} onGo={setTab}>
              What happened
            </Tab>
            <Tab id={END} at={tab} onGo={setTab}>
              At its end
            </Tab>
          </Tabs>
          <div role="tabpanel">
            {dimension && <RunChart key={dimension.id} dimension={dimension} />}
            {tab === EDGES && (
              <EdgeList
                page={page}
                chosen={edge}
                onChoose={setEdge}
                wrong={fields.amount ?? fields.edge}
                onFresh={(key, why) => {
                  setEdge(null);
                  void doing.keep("changes", { kind: "edge", edge: key, why }).then(setCame);
                }}
                onOffset={(key, amount) =>
                  void doing.keep("changes", { kind: "offset", edge: key, amount }).then((found) => {
                    setCame(found);
                    if (found.kind === "kept") setEdge(null);
                  })
                }
              />
            )}
            {tab === END && <ClosingPage page={page} of={of} onStay={onStay} />}
            {tab === HAPPENED && <Happened page={page} of={of} doing={doing} />}
          </div>
        </section>
        <aside aria-label="To do">
          {asking === "scrap" && (
            <WhyForm
              title={`Piece ${next} is scrap`}
              reasons={[]}
              wrong={came?.kind === "wrong" ? came.words : ""}
              onSay={(_, reason) => void count({ good: false, reason, sure: true })}
              onBack={() => setAsking(null)}
            />
          )}
          {asking === "stop" && (
            <WhyForm
              title="It stopped"
              reasons={page.stopped_for}
              wrong={came?.kind === "wrong" ? came.words : ""}
              onSay={(why, note) =>
                void doing.keep("stops", { what: "stop", why: why as "other", note }).then(settle)
              }
              onBack={() => setAsking(null)}
            />
          )}
          {asking === null && (
            <>
              {came && (
                <WhatCame came={came} isElsewhere={elsewhere} onSure={() => void count({ sure: true })} />
              )}
              {isAdvised && advice}
              {dimensions.length > 0 && (
                <>
                  <h2>{isDue ? `Measure piece ${next}` : `Piece ${next}, if you measure it`}</h2>
                  <MeasureForm
                    page={page}
                    entries={entries}
                    temp={temp}
                    wrong={fields}
                    onEnter={put}
                    onTemp={setTemp}
                  />
                </>
              )}
              {!isAdvised && advice}
              {page.head.board && <Soft>Done: {page.head.board}.</Soft>}
            </>
          )}
        </aside>
      </Body>
    </Whole>
  );
}

function Tab({
  id,
  at,
  onGo,
  children,
}: {
  id: string;
  at: string;
  onGo: (id: string) => void;
  children: string;
}) {
  return (
    <button type="button" role="tab" aria-selected={id === at} onClick={() => onGo(id)}>
      {children}
    </button>
  );
}
