import styled from "styled-components";
import type { Graph as GraphContent, Scene } from "../api/client";
import { colour, size } from "../shared/ui/theme";
import { Graph } from "./Graph";
import { Section } from "./Section";

const Frame = styled.div`
  position: relative;
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
`;

const still = () => false;
const dark = () => undefined;

type Props = { scene?: Scene | null | undefined; graph?: GraphContent | null | undefined; height: string };

/** A drawing or a graph by itself, framed; nothing where there is neither. */
export function AnyPicture({ scene, graph, height }: Props) {
  if (!scene && !graph) return null;
  return (
    <Frame style={{ height }}>
      {graph && <Graph graph={graph} />}
      {scene && <Section scene={scene} stop="" lit={null} changed={still} onLight={dark} />}
    </Frame>
  );
}
