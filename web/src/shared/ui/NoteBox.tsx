import type { ReactNode } from "react";
import styled from "styled-components";
import { colour, face, space, type } from "./theme";

type Level = "info" | "caution" | "stop";

const WORDS: Record<Level, string> = { info: "Note.", caution: "Caution.", stop: "Stopped." };

const Box = styled.div`
  position: relative;
  padding-left: ${space(4)};
  font: 400 ${type.label}/1.35 ${face.narrow};
  b {
    font-weight: 600;
  }
  &::before {
    content: "";
    position: absolute;
    inset: 0 auto 0 0;
    width: ${space(1.5)};
    background: ${colour("hairline")};
  }
  &[data-level="caution"]::before {
    background: repeating-linear-gradient(135deg, ${colour("caution")} 0 5px, ${colour("sheet")} 5px 10px);
  }
  &[data-level="stop"]::before {
    background: repeating-linear-gradient(180deg, ${colour("stop")} 0 7px, ${colour("sheet")} 7px 10px);
  }
  &[data-level="stop"] b {
    color: ${colour("stop")};
  }
`;

/** Something that must be said, with its own word and edge for each level. */
export function NoteBox({ level, children }: { level: Level; children: ReactNode }) {
  return (
    <Box data-level={level} role={level === "stop" ? "alert" : undefined}>
      <b>{WORDS[level]}</b> {children}
    </Box>
  );
}
