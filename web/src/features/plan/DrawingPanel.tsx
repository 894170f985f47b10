import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, type Plan, said, type Units } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { Picker } from "../../shared/ui/Picker";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import type { Action } from "./acting";
import { type Drawing, lookAtDrawing } from "./queries";

const Panel = styled.section`
  display: grid;
  gap: ${space(2)};
  margin-top: ${space(4)};
  padding-top: ${space(3)};
  border-top: ${size.line} solid ${colour("hairline")};
  h3 {
    font: 600 ${type.label} ${face.narrow};
  }
  p[role="alert"] {
    color: ${colour("stop")};
  }
  pre {
    white-space: pre-wrap;
    font-weight: 600;
  }
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(2)} ${space(5)};
  align-items: center;
`;

const MOST = 5_000_000;
const TITLES: Record<string, string> = {
  outside: "Outside",
  inside: "Bore from end A",
  inside_b: "Bore from end B",
};

type Look = { layers: string[]; units: string[]; lines: Record<string, string>; notes: string[] };
type Props = {
  runId: number;
  units: Units;
  mayEdit: boolean;
  revision: number;
  onTake: (action: Action) => Promise<Plan | null>;
};

/** The profile from a DXF drawing, looked at before it is kept, and the part as a drawing. */
export function DrawingPanel({ runId, units, mayEdit, revision, onTake }: Props) {
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const [look, setLook] = useState<Look | null>(null);
  const [wrong, setWrong] = useState("");

  async function ask(next: Drawing) {
    setDrawing(next);
    setWrong("");
    setLook(null);
    try {
      setLook(await lookAtDrawing(runId, next, units));
    } catch (error) {
      setWrong(fieldErrors(error).text ?? said(error));
    }
  }
  async function read(file: File) {
    if (file.size > MOST) {
      setDrawing(null);
      setLook(null);
      setWrong("The file is too large to be read: save the part alone, without its frame and views.");
      return;
    }
    await ask({ text: await file.text(), name: file.name, layer: null, unit: null });
  }
  const leave = () => {
    setDrawing(null);
    setLook(null);
    setWrong("");
  };
  const asks = look !== null && (look.layers.length > 0 || look.units.length > 0);
  return (
    <Panel aria-label="Drawing of the part">
      <Row>
        <h3>As a drawing</h3>
        <a href={`/api/runs/${runId}/part.dxf`} download>
          save DXF
        </a>
        <a href={`/api/runs/${runId}/part.svg`} download>
          save SVG
        </a>
        {mayEdit && (
          <FileTrigger acceptedFileTypes={[".dxf"]} onSelect={(files) => files?.[0] && void read(files[0])}>
            <Button>Read a DXF half-profile …</Button>
          </FileTrigger>
        )}
      </Row>
      {wrong && <p role="alert">{wrong}</p>}
      {drawing && look && look.layers.length > 0 && (
        <Picker
          label="Layer with the profile"
          value={drawing.layer}
          options={look.layers.map((l) => ({ value: l, label: `layer ${l}` }))}
          onChange={(layer) => void ask({ ...drawing, layer })}
        />
      )}
      {drawing && look && look.units.length > 0 && (
        <Picker
          label="Unit of the drawing"
          value={drawing.unit}
          options={look.units.map((u) => ({ value: u, label: u === "in" ? "inches" : "millimetres" }))}
          onChange={(unit) => void ask({ ...drawing, unit: unit === "in" ? "in" : "mm" })}
        />
      )}
      {drawing && look && !asks && (
        <>
          <p>{drawing.name} makes this of the profile:</p>
          {Object.entries(look.lines).map(
            ([name, lines]) =>
              lines && (
                <div key={name}>
                  <h3>{TITLES[name]}</h3>
                  <pre>{lines}</pre>
                </div>
              ),
          )}
          {look.notes.map((n) => (
            <p key={n}>{n}</p>
          ))}
          <Row>
            <Button
              onPress={() =>
                void onTake({ kind: "drawing", drawing, base: revision }).then((went) => went && leave())
              }
            >
              Put it in place of the profile
            </Button>
            <TextButton onPress={leave}>leave it</TextButton>
          </Row>
        </>
      )}
    </Panel>
  );
}
