import { type ReactNode, useState } from "react";
import styled from "styled-components";
import { fieldErrors, said } from "../../api/client";
import { Button, TextButton } from "./Button";
import { FileButton } from "./FileButton";
import { Told } from "./Page";
import { space } from "./theme";

const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space(4)};
  align-items: center;
  margin-bottom: ${space(4)};
`;

type Asking<A> = { data: A | undefined; error: Error | null; reset: () => void };

type Props<A> = {
  /** The way out: the same as a file. */
  save: ReactNode;
  mayEdit: boolean;
  /** What was found in a file that is looked at, and what was kept of it. */
  looked: Asking<A> & { isPending: boolean; mutate: (text: string) => void };
  taken: Asking<A>;
  onKeep: (text: string, how: "all" | "good") => void;
  hasNew: (answer: A) => boolean;
  words: (answer: A) => string;
  lines: (answer: A) => ReactNode;
};

/** A file is looked at, every line is answered, and it is kept as the person says. */
export function FileLook<A extends { kept: number; bad: number }>(props: Props<A>) {
  const { save, mayEdit, looked, taken, onKeep, hasNew, words, lines } = props;
  const [text, setText] = useState<string | null>(null);
  const answer = taken.data ?? looked.data;
  const wrong = taken.error ?? looked.error;
  return (
    <>
      <Actions>
        {save}
        {mayEdit && (
          <FileButton
            label="Look at a file …"
            types={[".csv", "text/csv", "text/plain"]}
            onText={(read) => {
              setText(read);
              taken.reset();
              looked.mutate(read);
            }}
          />
        )}
      </Actions>
      {looked.isPending && <Told role="status">Looking at its lines …</Told>}
      {wrong && <Told role="alert">{fieldErrors(wrong).text ?? said(wrong)}</Told>}
      {answer && text !== null && (
        <>
          <Told role="status">{words(answer)}</Told>
          {answer.kept === 0 && hasNew(answer) && (
            <Actions>
              <Button onPress={() => onKeep(text, answer.bad ? "good" : "all")}>
                {answer.bad ? "Keep the good lines only" : "Keep them"}
              </Button>
              <TextButton
                onPress={() => {
                  setText(null);
                  taken.reset();
                  looked.reset();
                }}
              >
                leave it
              </TextButton>
            </Actions>
          )}
          {lines(answer)}
        </>
      )}
    </>
  );
}
