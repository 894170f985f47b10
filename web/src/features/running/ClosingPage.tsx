import { useState } from "react";
import { TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import { type RunningPage, said } from "../../api/client";
import { PlannedAndReal } from "../../shared/ui/PlannedAndReal";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { moment } from "../../shared/words";
import { Hand, Soft, Wrong } from "./hand";
import { type RunningAddress, useClose, useClosing } from "./queries";

const Whole = styled.div`
  display: grid;
  gap: ${space(5)};
  h2 {
    font-size: ${type.run};
    font-weight: 600;
  }
  table {
    width: 100%;
    border-collapse: collapse;
    font-size: ${type.run};
  }
  th {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
    text-align: left;
  }
  td,
  th {
    padding: ${space(1.5)} ${space(3)} ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    vertical-align: top;
  }
  label[data-cut] {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 0 ${space(3)};
    align-items: center;
    min-height: ${size.hand};
    padding: ${space(1)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    font-size: ${type.run};
    input {
      width: 24px;
      height: 24px;
      grid-row: span 2;
    }
  }
  textarea {
    width: 100%;
    min-height: 6rem;
    padding: ${space(2)};
    background: ${colour("card")};
    border: ${size.line} solid ${colour("ink")};
    font: inherit;
    font-size: ${type.run};
  }
`;

type Props = {
  page: RunningPage;
  of: RunningAddress;
  /** Stay at this lot, which the next one would take the place of. */
  onStay: () => void;
};

/** A lot at its end: planned beside real, what goes into the notebook, and what the next one should know. */
export function ClosingPage({ page, of, onStay }: Props) {
  const closing = useClosing(page);
  const close = useClose(page, of);
  const [left, setLeft] = useState<readonly string[]>([]);
  const [lesson, setLesson] = useState("");
  const found = closing.data;
  if (closing.isError) return <Wrong role="alert">{said(closing.error)}</Wrong>;
  if (!found) return <Soft>Counting …</Soft>;
  const keep = found.may_keep ? found.worked.map((w) => w.key).filter((k) => !left.includes(k)) : [];
  return (
    <Whole>
      <section aria-label="Planned and real">
        <h2>Planned and real</h2>
        <PlannedAndReal rows={found.rows} kept={found.kept} />
      </section>
      {found.closed_at ? (
        <section aria-label="Closed">
          <h2>Closed {moment(found.closed_at)}</h2>
          {found.lessons.map((l) => (
            <p key={l.at}>
              “{l.text}” {l.by}
            </p>
          ))}
          <Soft>One more piece counted opens it again.</Soft>
        </section>
      ) : (
        page.may_mark &&
        page.head.counted > 0 && (
          <section aria-label="Close this lot">
            {found.may_keep ? (
              <>
                <h2>Into the notebook, as they really ran</h2>
                {found.worked.map((w) => (
                  <label key={w.key} data-cut>
                    <input
                      type="checkbox"
                      checked={keep.includes(w.key)}
                      onChange={() =>
                        setLeft((now) =>
                          now.includes(w.key) ? now.filter((k) => k !== w.key) : [...now, w.key],
                        )
                      }
                    />
                    <span>
                      {w.name}: {w.words}
                    </span>
                    <Soft>{w.remarks}</Soft>
                  </label>
                ))}
              </>
            ) : (
              <Soft>A setter puts its cuts into the notebook.</Soft>
            )}
            <h2>What the next one should know</h2>
            <TextField aria-label="What the next one should know" value={lesson} onChange={setLesson}>
              <TextArea maxLength={400} />
            </TextField>
            <Hand
              data-main
              disabled={close.isPending}
              onClick={() => {
                onStay();
                close.mutate({ keep, lesson });
              }}
            >
              {keep.length > 0 ? `Close it, keep ${keep.length} cuts` : "Close it"}
            </Hand>
            {close.isError && <Wrong role="alert">{said(close.error)}</Wrong>}
          </section>
        )
      )}
    </Whole>
  );
}
