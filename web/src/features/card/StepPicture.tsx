import { useState } from "react";
import styled from "styled-components";
import type { CardPage, CardStep } from "../../api/client";
import { Section } from "../../drawing/Section";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, fold, size, space, type } from "../../shared/ui/theme";

const Side = styled.aside`
  display: grid;
  grid-template-rows: auto auto;
  gap: ${space(4)};
  align-content: start;
  padding: ${space(4)};
  background: ${colour("card")};
  border-left: ${size.line} solid ${colour("hairline")};
  > div:first-child {
    position: relative;
    height: 20rem;
  }
  > div:last-child {
    font-size: ${type.run};
  }
  @media ${fold.phone} {
    border-left: 0;
    border-top: ${size.line} solid ${colour("hairline")};
  }
`;

const unchanged = () => false;

/** The side's section with what the step speaks of lit, and the caution that belongs to it. */
export function StepPicture({ page, step }: { page: CardPage; step: CardStep }) {
  const scene = page.scenes[step.side ?? 0];
  const [pointed, setPointed] = useState<string | null>(null);
  const known = new Set(scene?.shapes.flatMap((s) => s.facts).concat(scene.dimensions.map((d) => d.fact)));
  const lit = step.lights.find((fact) => known.has(fact)) ?? null;
  return (
    <Side aria-label="Picture">
      <div>
        {scene && (
          <Section scene={scene} stop="hold" lit={pointed ?? lit} changed={unchanged} onLight={setPointed} />
        )}
      </div>
      <div>{step.caution && <NoteBox level="caution">{step.caution}</NoteBox>}</div>
    </Side>
  );
}
