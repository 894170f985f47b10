import { type ReactNode, useEffect, useState } from "react";
import { Form } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, type HouseRule, Refused, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { AppHeader, Blank, Column, hidden, Told } from "../../shared/ui/Page";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { useChangeRules, useHouseRules } from "./queries";
import { ShopHours } from "./ShopHours";

const Rule = styled.li`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 11rem;
  gap: ${space(1)} ${space(6)};
  align-items: center;
  padding: ${space(2.5)} 0;
  border-bottom: ${size.line} solid ${colour("hairline")};
  p {
    font: 400 ${type.label}/1.35 ${face.narrow};
    color: ${colour("soft")};
  }
  /* The rule's name stands at its left for the eye. */
  label {
    ${hidden}
  }
  output {
    font-weight: 600;
    text-align: right;
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;

const Keep = styled(Form)`
  position: sticky;
  bottom: 0;
  display: grid;
  gap: ${space(3)};
  padding: ${space(4)} 0;
  background: ${colour("sheet")};
  border-top: ${size.thick} solid ${colour("ink")};
`;

const Past = styled.ol`
  li {
    padding: ${space(2.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  p {
    font: 400 ${type.label}/1.35 ${face.narrow};
    color: ${colour("soft")};
  }
`;

const day = (at: string) => new Date(at).toLocaleDateString("en-GB", { dateStyle: "medium" });

type RuleProps = {
  rule: HouseRule;
  typed: string | undefined;
  error: string | undefined;
  mayEdit: boolean;
  onChange: (text: string) => void;
};

function RuleRow({ rule, typed, error, mayEdit, onChange }: RuleProps) {
  const unit = rule.unit ? `, ${rule.unit}` : "";
  return (
    <Rule>
      <div>
        <b>
          {rule.label}
          {unit}
        </b>
        <p>
          {rule.help}. Usual: {rule.usual}.
          {rule.changed &&
            ` Changed by ${rule.changed.by} on ${day(rule.changed.at)}: ${rule.changed.reason}.`}
        </p>
      </div>
      {!mayEdit ? (
        <output>{rule.text}</output>
      ) : rule.options ? (
        <Picker
          label={rule.label}
          value={typed ?? String(rule.value)}
          options={rule.options}
          onChange={onChange}
        />
      ) : (
        <Entry
          label={`${rule.label}${unit}`}
          value={typed ?? rule.text.replace(/[^\d.]/g, "")}
          error={error}
          onChange={onChange}
        />
      )}
    </Rule>
  );
}

/** What the shop has settled on: each rule with its meaning, its usual value, and who changed it and why. */
export function HouseRules({ tools }: { tools: ReactNode }) {
  const page = useHouseRules();
  const change = useChangeRules();
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [reason, setReason] = useState("");
  const errors = fieldErrors(change.error);
  useEffect(() => {
    document.title = "House rules · Noble Anvil";
  }, []);
  if (page.isError)
    return (
      <Blank>
        <p>{page.error instanceof Refused ? page.error.message : "The server does not answer."}</p>
        <Button onPress={() => page.refetch()}>Try again</Button>
      </Blank>
    );
  const rules = page.data;
  const elsewhere = change.error && Object.keys(errors).length === 0 ? said(change.error) : errors[""];
  const stale = change.error instanceof Refused && change.error.status === 409;
  return (
    <>
      <AppHeader title="House rules" tools={tools} />
      <Column>
        <ShopHours />
        <h2>Revision {rules?.number ?? "…"}</h2>
        <p>
          A plan keeps the rules it was computed under. When a rule changes, each plan tells what it would
          move, and takes the new rules when its planner says so.
        </p>
        <ul>
          {rules?.rules.map((rule) => (
            <RuleRow
              key={rule.name}
              rule={rule}
              typed={typed[rule.name]}
              error={errors[rule.name]}
              mayEdit={rules.may_edit}
              onChange={(text) => setTyped((all) => ({ ...all, [rule.name]: text }))}
            />
          ))}
        </ul>
        {rules && Object.keys(typed).length > 0 && (
          <Keep
            onSubmit={(event) => {
              event.preventDefault();
              change.mutate(
                { base_number: rules.number, values: typed, reason },
                {
                  onSuccess: () => {
                    setTyped({});
                    setReason("");
                  },
                },
              );
            }}
          >
            <Entry
              label="Why it is changed"
              value={reason}
              onChange={setReason}
              error={errors.reason}
              hint="Kept with your name and the date"
            />
            <Told role="alert">{elsewhere}</Told>
            <div>
              <Button type="submit">Keep as revision {rules.number + 1}</Button>{" "}
              <Button onPress={() => setTyped({})}>Put back</Button>{" "}
              {stale && <Button onPress={() => page.refetch()}>Look at the rules again</Button>}
            </div>
          </Keep>
        )}
        {rules && rules.history.length > 0 && (
          <>
            <h3>What was changed</h3>
            <Past>
              {rules.history.map((past) => (
                <li key={past.number}>
                  <b>
                    Revision {past.number}: {past.changes.join("; ")}
                  </b>
                  <p>
                    {past.by} on {day(past.at)}: {past.reason}
                  </p>
                </li>
              ))}
            </Past>
          </>
        )}
      </Column>
    </>
  );
}
