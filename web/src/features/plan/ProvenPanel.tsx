import { useState } from "react";
import { Form } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { fieldErrors, type Plan, said } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import type { Action } from "./acting";
import { type OfCut, useKeepCut, useLikeCuts } from "./cutQueries";

const Panel = styled.section`
  margin-top: ${space(3)};
  h3 {
    font: 600 ${type.label} ${face.narrow};
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    padding: ${space(1)};
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  small {
    display: block;
    font: 400 ${type.small} ${face.narrow};
    color: ${colour("soft")};
  }
  p[role="alert"] {
    color: ${colour("stop")};
  }
`;

const Fields = styled(Form)`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: ${space(2)} ${space(4)};
  align-items: end;
  margin-top: ${space(2)};
`;

const CHIPS = [
  { value: "", label: "chip not noted" },
  { value: "curls", label: "short curls or sixes" },
  { value: "ribbon", label: "long ribbons" },
  { value: "powder", label: "packed or crushed" },
  { value: "straw", label: "straw to brown" },
  { value: "blue", label: "deep blue" },
];

type Props = {
  of: OfCut;
  name: string;
  mayTake: boolean;
  mayKeep: boolean;
  onDo: (action: Action) => Promise<Plan | null>;
};

/** What worked before in a situation like this one, and keeping this cut because it worked. */
export function ProvenPanel({ of, name, mayTake, mayKeep, onDo }: Props) {
  const { data } = useLikeCuts(of);
  const keep = useKeepCut(of);
  const [open, setOpen] = useState(false);
  const [seen, setSeen] = useState({ chip: "", finish_um: "", remarks: "" });
  const errors = fieldErrors(keep.error);
  return (
    <Panel aria-label={`Notebook for ${name}`}>
      <h3>Proven before</h3>
      {data && data.cuts.length === 0 && (
        <small>
          Nothing like this is in the <Link to="/notebook">notebook</Link> yet. When the cut works, keep it
          here.
        </small>
      )}
      <ul>
        {data?.cuts.map((c) => (
          <li key={c.id}>
            {c.said.speed_m_min}, {c.said.feed_mm_rev}
            {c.said.depth_mm && `, ${c.said.depth_mm} deep`} · {c.said.insert || c.said.material} · {c.score}{" "}
            of 100{" "}
            {mayTake && (
              <TextButton
                aria-label={`take these figures, of ${c.said.on || "the notebook"}`}
                onPress={() =>
                  void onDo({
                    kind: "proven",
                    setup: of.setup,
                    cut: of.cut,
                    proven: c.id,
                    base: of.revision,
                  })
                }
              >
                take these figures
              </TextButton>
            )}
            <small>
              {c.why.join("; ")}
              {c.said.chip && ` · ${c.said.chip}`}
              {c.said.finish_um && ` · Ra ${c.said.finish_um}`}
              {c.said.remarks && ` · “${c.said.remarks}”`}
            </small>
          </li>
        ))}
      </ul>
      {mayKeep &&
        (open ? (
          <Fields
            aria-label={`Keep ${name}`}
            onSubmit={(event) => {
              event.preventDefault();
              keep.mutate(seen, { onSuccess: () => setOpen(false) });
            }}
          >
            <Picker
              label="Chip"
              value={seen.chip}
              options={CHIPS}
              onChange={(chip) => setSeen({ ...seen, chip })}
            />
            <Entry
              label="Finish Ra measured"
              value={seen.finish_um}
              error={errors.finish_um}
              onChange={(finish_um) => setSeen({ ...seen, finish_um })}
            />
            <Entry
              label="Remarks"
              value={seen.remarks}
              error={errors.remarks}
              onChange={(remarks) => setSeen({ ...seen, remarks })}
            />
            <Button type="submit" isDisabled={keep.isPending}>
              Keep it in the notebook
            </Button>
            <TextButton onPress={() => setOpen(false)}>leave it</TextButton>
          </Fields>
        ) : (
          <p>
            <TextButton onPress={() => setOpen(true)}>{name} worked: keep it</TextButton>
            {keep.isSuccess && <span role="status"> It is in the notebook.</span>}
          </p>
        ))}
      {keep.error && Object.keys(errors).length === 0 && <p role="alert">{said(keep.error)}</p>}
    </Panel>
  );
}
