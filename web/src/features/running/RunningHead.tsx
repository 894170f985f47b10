import { Link } from "react-router";
import styled from "styled-components";
import type { RunningPage } from "../../api/client";
import { TextButton } from "../../shared/ui/Button";
import { HandHead } from "../../shared/ui/HandHead";
import { colour, type } from "../../shared/ui/theme";
import { thousands } from "../../shared/words";

const Head = styled(HandHead)`
  a[aria-current] {
    color: ${colour("ink")};
    font-weight: 600;
  }
  .far {
    margin-left: auto;
    font-size: ${type.run};
    color: ${colour("ink")};
    b {
      font-size: ${type.hand};
      font-weight: 600;
    }
  }
`;

type Props = {
  page: RunningPage;
  person: string;
  waiting: { counted: number; good: number };
  away: boolean;
  onUnits: () => void;
};

/** Whose pieces they are, how far they are, and the ways out of here. */
export function RunningHead({ page, person, waiting, away, onUnits }: Props) {
  const { head } = page;
  const good = head.good + waiting.good;
  const scrap = head.scrap + waiting.counted - waiting.good;
  return (
    <Head>
      <h1>{page.name}</h1>
      <p>
        {page.drawing_number} · release {page.release.number} · {page.machine}
      </p>
      {page.lots.length > 1 && (
        <nav aria-label="Lots">
          {page.lots.map((lot) => (
            <Link
              key={lot.key}
              to={`/runs/${page.run}/running?lot=${lot.key}&units=${page.units}`}
              aria-current={lot.key === page.lot ? "page" : undefined}
            >
              {lot.name.split(",")[0]}: {thousands(lot.good)}
            </Link>
          ))}
        </nav>
      )}
      <nav aria-label="Of this run">
        <p>{person}</p>
        {!away && (
          <>
            <TextButton onPress={onUnits}>{page.units === "metric" ? "in inch" : "in mm"}</TextButton>
            <Link to={`/runs/${page.run}/card`}>Its card</Link>
            <Link to="/">The bench</Link>
          </>
        )}
      </nav>
      <p className="far">
        <b>{thousands(good)}</b> of {thousands(head.quantity)} good
        {scrap > 0 && ` · ${thousands(scrap)} scrap`} · {head.done}
      </p>
    </Head>
  );
}
