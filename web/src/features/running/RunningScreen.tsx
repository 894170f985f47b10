import { useEffect } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { NoAnswer, type Session, said } from "../../api/client";
import { KeptCards } from "../../shared/ui/KeptCards";
import { Blank } from "../../shared/ui/Page";
import { OneLot } from "./OneLot";
import { addressed, useRunning } from "./queries";

export { askEarly } from "./queries";

/** Where an operator stands while pieces come off. */
export function RunningScreen({ session }: { session: Session }) {
  const runId = Number(useParams().runId);
  const [params, setParams] = useSearchParams();
  const of = addressed(runId, params);
  const { page, replaced, lookedAt } = useRunning(of);
  useEffect(() => {
    document.title = `Running: ${page.data?.name ?? "a run"} · Noble Anvil`;
  }, [page.data?.name]);
  if (page.isError && !page.data)
    return (
      <Blank>
        <p>{said(page.error)}</p>
        {page.error instanceof NoAnswer ? (
          <KeptCards person={session.name} />
        ) : (
          <p>
            <Link to={`/runs/${runId}`}>To the plan</Link> or <Link to="/">to the bench</Link>
          </p>
        )}
      </Blank>
    );
  if (!page.data) return <Blank>Opening what runs …</Blank>;
  const units = of.units === "metric" ? "inch" : "metric";
  return (
    <OneLot
      key={`${page.data.lot} ${page.data.release.number}`}
      page={page.data}
      of={of}
      session={session}
      replaced={replaced}
      lookedAt={lookedAt}
      onUnits={() => setParams({ ...Object.fromEntries(params), units })}
      onStay={() => setParams({ ...Object.fromEntries(params), lot: page.data.lot })}
    />
  );
}
