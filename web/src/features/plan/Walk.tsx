import { useEffect, useState } from "react";
import styled from "styled-components";
import { SWEEP_MS } from "../../drawing/Section";
import { TextButton } from "../../shared/ui/Button";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Bar = styled.div`
  display: flex;
  gap: ${space(3)};
  align-items: baseline;
  margin-left: auto;
  font: 400 ${type.label} ${face.narrow};
  span {
    color: ${colour("soft")};
  }
  button {
    min-width: 28px;
    min-height: 28px;
    text-align: center;
  }
  @media ${fold.tablet} {
    /* It stands marked in the table below. */
    strong {
      display: none;
    }
    button {
      min-width: ${size.touch};
      min-height: ${size.touch};
    }
  }
`;

type Step = { key: string; title: string };

/** Going through the cuts of a side, one after the other, by hand or by itself. */
export function useWalk(steps: readonly Step[], group: string | undefined, onPick: (group: string) => void) {
  const [playing, setPlaying] = useState(false);
  const place = steps.findIndex((s) => s.key === group);
  const next = steps[place + 1];
  const isPlaying = playing && place >= 0;

  useEffect(() => {
    if (!isPlaying) return;
    const wait = setTimeout(() => (next ? onPick(next.key) : setPlaying(false)), SWEEP_MS);
    return () => clearTimeout(wait);
  }, [isPlaying, next, onPick]);

  return {
    title: steps[place]?.title ?? "",
    place,
    count: steps.length,
    isPlaying,
    onStep: (by: 1 | -1) => {
      const to = steps[place + by];
      setPlaying(false);
      if (to) onPick(to.key);
    },
    onPlay: () => {
      const [first] = steps;
      if (!playing && !next && first) onPick(first.key);
      setPlaying(!playing);
    },
  };
}

/** Which cut is at work, the ones before and after it, and the whole side. */
export function Walk({ title, place, count, isPlaying, onStep, onPlay }: ReturnType<typeof useWalk>) {
  return (
    <Bar role="group" aria-label="Go through the cuts">
      <TextButton onPress={() => onStep(-1)} isDisabled={place <= 0} aria-label="The cut before">
        ←
      </TextButton>
      <strong>{title}</strong>
      <span>
        {place + 1} of {count}
      </span>
      <TextButton onPress={() => onStep(1)} isDisabled={place >= count - 1} aria-label="The cut after">
        →
      </TextButton>
      <TextButton onPress={onPlay} aria-pressed={isPlaying}>
        {isPlaying ? "stop" : "play the side"}
      </TextButton>
    </Bar>
  );
}
