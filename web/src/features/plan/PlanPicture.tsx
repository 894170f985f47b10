import { type ReactNode, useState } from "react";
import styled from "styled-components";
import type { Side, Stop } from "../../api/client";
import { Section } from "../../drawing/Section";
import { TextButton } from "../../shared/ui/Button";
import { hidden } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import type { Changes } from "./changes";
import { ForceChart } from "./ForceChart";
import type { Pull } from "./ForceHandles";
import type { groupInView } from "./Ledger";
import { AcrossCurves, InsertDrawing } from "./Pictures";

const Picture = styled.section`
  grid-area: picture;
  position: relative;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-width: 0;
  background: ${colour("card")};
  border-bottom: ${size.line} solid ${colour("hairline")};
`;

const Views = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 ${space(4)};
  padding: ${space(2)} ${space(3.5)} 0;
  min-height: 30px;
  button {
    color: ${colour("soft")};
    text-decoration: none;
  }
  button[aria-pressed="true"] {
    color: ${colour("ink")};
    text-decoration: underline;
  }
  p {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("caution")};
    overflow-wrap: anywhere;
  }
  p:first-of-type {
    margin-left: auto;
  }
`;

const Canvas = styled.div`
  position: relative;
  min-height: 0;
`;

const Words = styled.p`
  ${hidden}
`;

const CHART = "chart";
const INSERT = "insert";
const ACROSS = "across";

type Props = {
  stop: Stop;
  side: Side | undefined;
  group: ReturnType<typeof groupInView>;
  lit: string | null;
  changes: Changes;
  pull: Pull;
  onLight: (fact: string | null) => void;
  children: ReactNode;
};

/** The drawing of a stop in the view that was chosen for it, and beside the views what there is to tell. */
export function PlanPicture({ stop, side, group, lit, changes, pull, onLight, children }: Props) {
  const [views, setViews] = useState<Readonly<Record<string, string>>>({});
  const scenes = (side?.scenes ?? []).filter((s) => s.stops.length === 0 || s.stops.includes(stop.name));
  const { chart } = stop;
  const small = stop.pictures.filter((p) => p.group === group && p.kind !== "bars");
  const insert = small.find((p) => p.kind === "outline");
  const across = small.find((p) => p.kind === "curves");
  const offered = [
    ...(chart ? [{ name: CHART, title: "Grip against speed" }] : []),
    ...(insert ? [{ name: INSERT, title: insert.title }] : []),
    ...scenes,
    ...(across ? [{ name: ACROSS, title: across.title }] : []),
  ];
  const wanted = views[stop.name];
  const view = offered.some((v) => v.name === wanted) ? wanted : offered[0]?.name;
  const scene = scenes.find((s) => s.name === view) ?? scenes[0];
  return (
    <Picture aria-label="Drawing">
      <Views>
        {offered.length > 1 &&
          offered.map((v) => (
            <TextButton
              key={v.name}
              aria-pressed={v.name === view}
              onPress={() => setViews((all) => ({ ...all, [stop.name]: v.name }))}
            >
              {v.title}
            </TextButton>
          ))}
        {children}
      </Views>
      <Canvas>
        {view === CHART && chart ? (
          <ForceChart chart={chart} pull={pull} />
        ) : view === INSERT && insert ? (
          <InsertDrawing picture={insert} />
        ) : view === ACROSS && across ? (
          <AcrossCurves picture={across} />
        ) : (
          scene && (
            <Section
              // A view keeps its own place and size.
              key={scene.name}
              scene={scene}
              stop={stop.name}
              lit={lit}
              changed={(fact) => changes.has(`fact:${stop.key}:${fact}`)}
              onLight={onLight}
            />
          )
        )}
      </Canvas>
      <Words>{scene?.words.join(" ")}</Words>
    </Picture>
  );
}
