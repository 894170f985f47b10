import { useEffect } from "react";
import { Link, useParams, useSearchParams } from "react-router";
import { NoAnswer, type Session, said } from "../../api/client";
import { KeptCards } from "../../shared/ui/KeptCards";
import { Blank } from "../../shared/ui/Page";
import { OneCard } from "./OneCard";
import { addressed, useCard, useDone } from "./queries";

export { askEarly } from "./queries";

/** The card of a run's release at the machine: one step on a screen, ticked, skipped or read. */
export function CardScreen({ session }: { session: Session }) {
  const runId = Number(useParams().runId);
  const [params, setParams] = useSearchParams();
  const asked = addressed(runId, params);
  const { units } = asked;
  const page = useCard(asked);
  const done = useDone(page.data, units);
  useEffect(() => {
    document.title = `Card of ${page.data?.name ?? "a run"} · Noble Anvil`;
  }, [page.data?.name]);
  if (page.isError)
    return (
      <Blank>
        <p>
          {said(page.error)}
          {page.error instanceof NoAnswer && " This tablet keeps the cards that were opened on it."}
        </p>
        {page.error instanceof NoAnswer ? (
          <KeptCards person={session.name} />
        ) : (
          <p>
            <Link to={`/runs/${runId}`}>To the plan</Link> or <Link to="/">to the bench</Link>
          </p>
        )}
      </Blank>
    );
  if (!page.data) return <Blank>Opening the card …</Blank>;
  return (
    <OneCard
      page={page.data}
      units={units}
      session={session}
      replaced={done.data?.replaced ?? page.data.release.replaced}
      done={done.data ?? page.data}
      lookedAt={done.dataUpdatedAt}
      onUnits={() =>
        setParams({ ...Object.fromEntries(params), units: units === "metric" ? "inch" : "metric" })
      }
    />
  );
}
