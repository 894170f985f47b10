import { Link } from "react-router";
import styled from "styled-components";
import type { CardPage, CardStep, Units } from "../../api/client";
import { TextButton } from "../../shared/ui/Button";
import { HandHead } from "../../shared/ui/HandHead";

const Head = styled(HandHead)`
  nav {
    margin-left: auto;
  }
`;

type Props = {
  page: CardPage;
  step: CardStep | undefined;
  units: Units;
  person: string;
  /** How many steps are done. */
  done: number;
  /** The server does not answer: nothing is asked of it. */
  away: boolean;
  onUnits: () => void;
};

/** Whose card it is, how far it is, and the ways out of it. */
export function CardHead({ page, step, units, person, done, away, onUnits }: Props) {
  return (
    <Head>
      <h1>{page.name}</h1>
      <p>
        {page.drawing_number} · release {page.release.number}
        {step && step.side !== null && page.sides.length > 1 ? ` · side ${step.side + 1}` : ""} ·{" "}
        {page.machine}
      </p>
      <nav aria-label="Of this card">
        <p>
          {person} · {done} of {page.card.steps.length} done
        </p>
        <Link to={`/runs/${page.run}/running`}>Running</Link>
        {!away && (
          <>
            <TextButton onPress={onUnits}>{units === "metric" ? "in inch" : "in mm"}</TextButton>
            <a href={`/api/runs/${page.run}/card.pdf?units=${units}&release=${page.release.number}`}>
              On paper
            </a>
            <Link to={`/runs/${page.run}`}>The plan</Link>
          </>
        )}
      </nav>
    </Head>
  );
}
