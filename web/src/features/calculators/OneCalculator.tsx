import { useState } from "react";
import styled from "styled-components";
import { type Calculator, fieldErrors, said, type Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Told } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, fold, space, type } from "../../shared/ui/theme";
import { Answers, Working } from "./Answer";
import { asked, type Given, linkOf } from "./draft";
import { Fields } from "./Fields";
import { BackToPlan, FromPlan, type Source } from "./FromPlan";
import { useDraft } from "./useDraft";

const Sheet = styled.section`
  padding: ${space(4)} ${space(5)} ${space(12)};
  > p {
    margin: ${space(1)} 0 ${space(4)};
    color: ${colour("soft")};
  }
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(3)};
  align-items: center;
  h2 {
    flex: 1 1 auto;
    font-size: ${type.run};
    font-weight: 600;
  }
`;

const Whole = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 22rem);
  gap: ${space(4)} ${space(6)};
  align-items: start;
  > aside {
    display: grid;
    gap: ${space(4)};
    position: sticky;
    top: ${space(3)};
  }
  @media ${fold.tablet} {
    grid-template-columns: minmax(0, 1fr);
    > aside {
      position: static;
    }
  }
`;

type Props = {
  calculator: Calculator;
  /** The figures that a link brings; null: the worked example. */
  begin: Given | null;
  units: Units;
  onUnits: (units: Units) => void;
};

/** One calculator: it answers while one types, with its picture and its working. */
export function OneCalculator({ calculator, begin, units, onUnits }: Props) {
  const draft = useDraft(calculator, begin ?? calculator.example, units);
  const [taking, setTaking] = useState(false);
  const [source, setSource] = useState<Source | null>(null);
  const [told, setTold] = useState("");
  const { answer, known } = draft;
  const errors = fieldErrors(answer.error);
  const fields = calculator.fields;
  const named = new Set(Object.keys(errors));
  const take = (found: Source) => {
    draft.fill(found.given);
    setSource(found);
    setTaking(false);
  };
  const copyLink = async () => {
    const given = known && !draft.isOld ? asked(fields, known.given) : asked(fields, draft.given);
    const link = window.location.origin + linkOf(calculator.name, given, units);
    try {
      await navigator.clipboard.writeText(link);
      setTold("The link is copied: it opens this with these figures.");
    } catch {
      setTold(link); // a browser that keeps its clipboard to itself
    }
  };
  return (
    <Sheet aria-label={calculator.title}>
      <Head>
        <h2>{calculator.title}</h2>
        <Segments
          label="Units"
          value={units}
          options={[
            { value: "metric", label: "mm" },
            { value: "inch", label: "inch" },
          ]}
          onChange={(value) => {
            draft.settle();
            onUnits(value === "inch" ? "inch" : "metric");
          }}
        />
        <Button onPress={() => setTaking(true)}>Take from a plan</Button>
        <Button
          onPress={() => {
            draft.fill(calculator.example);
            setSource(null);
          }}
        >
          Example
        </Button>
        <Button onPress={copyLink}>Copy the link</Button>
      </Head>
      <p>
        {calculator.summary} A bare figure is in the unit named; write another unit behind it, such as 1/2 in.
      </p>
      {told && <Told role="status">{told}</Told>}
      {taking && <FromPlan name={calculator.name} onTake={take} onClose={() => setTaking(false)} />}
      {source && (
        <BackToPlan
          source={source}
          now={draft.isOld ? undefined : known?.given}
          onKept={(kept) => setSource(kept)}
        />
      )}
      <Whole>
        <Fields
          fields={fields}
          path={[]}
          given={{ ...known?.given, ...draft.given }}
          draft={draft}
          errors={errors}
        />
        <aside>
          {answer.error && (
            <Told role="alert">
              {named.size > 0 ? "The answer waits for what is marked." : said(answer.error)}
              {named.has("") && ` ${errors[""]}`}
            </Told>
          )}
          {known && <Answers answer={known} isOld={draft.isOld} />}
        </aside>
      </Whole>
      {known && <Working steps={known.working} />}
    </Sheet>
  );
}
