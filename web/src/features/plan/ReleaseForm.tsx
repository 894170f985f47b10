import { useRef, useState } from "react";
import { Form } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { type Releases, said, type Units } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Told } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { useRelease } from "./releaseQueries";

const Confirm = styled.ul`
  margin: ${space(2)} 0 ${space(4)};
  label {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: ${space(3)};
    align-items: start;
    min-height: ${size.touch};
    padding: ${space(2.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  input {
    width: 20px;
    height: 20px;
    accent-color: ${colour("act")};
  }
  small {
    margin-left: ${space(2)};
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  label span span {
    display: block;
    padding-bottom: ${space(1)};
  }
`;

const Statement = styled.ul`
  margin: ${space(2)} 0 ${space(4)};
  padding: ${space(3)} ${space(4)};
  border: ${size.line} solid ${colour("hairline")};
  li {
    padding: ${space(0.5)} 0;
  }
`;

const Against = styled.ul`
  padding: ${space(3)} ${space(4)};
  background: ${colour("card")};
  box-shadow: inset 6px 0 0 ${colour("stop")};
`;

const Done = styled.div`
  padding: ${space(4)};
  background: ${colour("card")};
  border: ${size.thick} solid ${colour("act")};
  b {
    font-size: ${type.run};
  }
`;

type Props = { runId: number; page: Releases; units: Units };

/** What keeps a plan from being released; else what is confirmed, and the press that releases it. */
export function ReleaseForm({ runId, page, units }: Props) {
  const release = useRelease(runId, units);
  const [confirmed, setConfirmed] = useState<readonly string[]>([]);
  const [note, setNote] = useState("");
  const [made, setMade] = useState<number | null>(null);
  // One key a try: a release that is sent again after a lost answer is released once.
  const key = useRef(crypto.randomUUID());
  const general = page.cautions.filter((c) => c.general);
  const particular = page.cautions.filter((c) => !c.general);
  const left = particular.filter((c) => !confirmed.includes(c.code)).length;
  const number = (page.releases[0]?.number ?? 0) + 1;
  const put = (code: string, isOn: boolean) =>
    setConfirmed([...confirmed.filter((c) => c !== code), ...(isOn ? [code] : [])]);
  if (made !== null && page.releases[0]?.number === made)
    return (
      <Done role="status">
        <b>Release {made} is at the machine.</b>
        <p>
          It stays as it is, whatever is planned from now on.{" "}
          <Link to={`/runs/${runId}/card`}>Open its card</Link>,{" "}
          <Link to={`/runs/${runId}/force?release=${made}`}>look at it</Link>, or go{" "}
          <Link to="/">to the bench</Link>.
        </p>
      </Done>
    );
  if (page.reasons.length > 0)
    return (
      <Against aria-label="What keeps it from being released">
        {page.reasons.map((reason) => (
          <li key={reason}>{reason}</li>
        ))}
      </Against>
    );
  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        release.mutate(
          {
            base_revision: page.revision,
            confirmed: [...general.map((c) => c.code), ...confirmed],
            note,
            key: key.current,
          },
          {
            onSuccess: () => {
              key.current = crypto.randomUUID();
              setConfirmed([]);
              setNote("");
              setMade(number);
            },
          },
        );
      }}
    >
      {particular.length > 0 && (
        <>
          <p>Of this plan, one by one:</p>
          <Confirm aria-label="Cautions of this plan">
            {particular.map((c) => (
              <li key={c.code}>
                <label>
                  <input
                    type="checkbox"
                    checked={confirmed.includes(c.code)}
                    onChange={(event) => put(c.code, event.target.checked)}
                  />
                  <span>
                    {c.lines.map((line) => (
                      <span key={line.text}>
                        {line.text}
                        {line.where && <small>{line.where}</small>}
                      </span>
                    ))}
                  </span>
                </label>
              </li>
            ))}
          </Confirm>
        </>
      )}
      <p>Of every plan, signed as one statement with your name:</p>
      <Statement aria-label="What always holds">
        {general
          .flatMap((c) => c.lines)
          .map((line) => (
            <li key={line.text}>{line.text}</li>
          ))}
      </Statement>
      <Entry label="Remark" value={note} onChange={setNote} hint="May stay empty" />
      <Told role="alert">{release.error ? said(release.error) : ""}</Told>
      <Button type="submit" isDisabled={left > 0 || release.isPending}>
        {left > 0
          ? `${left} still to confirm`
          : `Sign, and release draft ${page.revision} as release ${number}`}
      </Button>
    </Form>
  );
}
