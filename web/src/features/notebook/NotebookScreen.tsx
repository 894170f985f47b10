import { type ReactNode, useState } from "react";
import { Input, SearchField } from "react-aria-components";
import styled from "styled-components";
import type { Session, Units } from "../../api/client";
import { AppHeader } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { space } from "../../shared/ui/theme";
import { Bar } from "./Bar";
import { Cuts } from "./Cuts";
import { Everything } from "./Everything";

const Main = styled.main`
  padding: ${space(4)} ${space(5)} ${space(12)};
  overflow-x: auto;
`;

type Props = { session: Session; tools: ReactNode };

const PLACES = [
  { value: "cuts", label: "cuts that worked" },
  { value: "all", label: "everything" },
];

/** The notebook: cuts that worked, and everything else that was noted at the machines, found again. */
export function NotebookScreen({ session, tools }: Props) {
  const [place, setPlace] = useState("cuts");
  const [units, setUnits] = useState<Units>("metric");
  const [find, setFind] = useState("");
  const seesAll = session.role !== "operator";
  return (
    <>
      <AppHeader title="Notebook" tools={tools} />
      <Main>
        <Bar>
          <SearchField aria-label="Find in the notebook" value={find} onChange={setFind}>
            <Input placeholder="find: material, machine, insert, remarks" />
          </SearchField>
          {seesAll && <Segments label="What" value={place} options={PLACES} onChange={setPlace} />}
          <Segments
            label="Units"
            value={units}
            options={[
              { value: "metric", label: "mm" },
              { value: "inch", label: "inch" },
            ]}
            onChange={(value) => setUnits(value === "inch" ? "inch" : "metric")}
          />
        </Bar>
        {place === "cuts" ? (
          <Cuts session={session} find={find} units={units} />
        ) : (
          <Everything find={find} units={units} />
        )}
      </Main>
    </>
  );
}
