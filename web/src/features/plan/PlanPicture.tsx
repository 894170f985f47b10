import type { ReactNode } from "react";
import styled from "styled-components";
import type { Offer, Part, StopLine } from "../../api/client";
import { Section } from "../../drawing/Section";
import { TextButton } from "../../shared/ui/Button";
import { hidden } from "../../shared/ui/Page";
import { seldom } from "../../shared/ui/seldom";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { Changes } from "./changes";
import type { Pull } from "./ForceHandles";
import { InsertDrawing } from "./Pictures";
import { useWalk, Walk } from "./Walk";

// Charts and what draws them are loaded when the first one is looked at.
const ForceChart = seldom(() => import("./ForceChart").then((m) => m.ForceChart), null);
const AcrossCurves = seldom(() => import("./AcrossCurves").then((m) => m.AcrossCurves), null);
const LanesChart = seldom(() => import("./LanesChart").then((m) => m.LanesChart), null);

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
  @media ${fold.tablet} {
    min-height: ${size.touch};
    padding-top: 0;
    align-items: center;
    /* What they are hit within reaches over the picture. */
    position: relative;
    z-index: 1;
  }
`;

const Canvas = styled.div`
  position: relative;
  min-height: 0;
`;

const Words = styled.p`
  ${hidden}
`;

type Props = {
  stop: StopLine;
  /** The pictures offered for what is in view, the one that is shown, and the part that holds it. */
  offers: readonly Offer[];
  chosen: Offer | undefined;
  part: Part | undefined;
  /** What can be stepped through, in its order, and which of them is in view. */
  headings: readonly { key: string; title: string }[];
  group: string | undefined;
  onPick: (group: string) => void;
  lit: string | null;
  changes: Changes;
  pull: Pull;
  onLight: (fact: string | null) => void;
  onChoose: (name: string) => void;
  children: ReactNode;
};

/** The drawing of a stop in the view that was chosen for it, and beside the views what there is to tell. */
export function PlanPicture(props: Props) {
  const { stop, offers, chosen, part, headings, group, lit, changes, pull } = props;
  const { onPick, onLight, onChoose, children } = props;
  const small = part?.pictures?.find((p) => p.name === chosen?.name);
  const scene = part?.scene;
  const steps = scene?.shapes.some((s) => s.group) ? headings : [];
  const walk = useWalk(steps, group, onPick);
  return (
    <Picture aria-label="Drawing">
      <Views>
        {offers.length > 1 &&
          offers.map((v) => (
            <TextButton key={v.name} aria-pressed={v.name === chosen?.name} onPress={() => onChoose(v.name)}>
              {v.title}
            </TextButton>
          ))}
        {steps.length > 1 && <Walk {...walk} />}
        {children}
      </Views>
      <Canvas>
        {part?.chart && <ForceChart chart={part.chart} pull={pull} />}
        {small?.kind === "outline" && <InsertDrawing picture={small} />}
        {small?.kind === "curves" && <AcrossCurves picture={small} />}
        {small?.kind === "lanes" && <LanesChart picture={small} />}
        {scene && (
          <Section
            // A view keeps its own place and size.
            key={chosen?.name}
            scene={scene}
            stop={stop.name}
            lit={lit}
            group={group}
            isPlaying={walk.isPlaying}
            onStep={steps.length > 1 ? walk.onStep : undefined}
            changed={(fact) => changes.has(`fact:${stop.key}:${fact}`)}
            onLight={onLight}
          />
        )}
      </Canvas>
      <Words>{scene?.words.join(" ")}</Words>
    </Picture>
  );
}
