import { useNavigate } from "react-router";
import styled from "styled-components";
import { fieldErrors, said } from "../../api/client";
import { Button } from "../../shared/ui/Button";
import { FileButton } from "../../shared/ui/FileButton";
import { Told } from "../../shared/ui/Page";
import { colour, size, space, type } from "../../shared/ui/theme";
import { useReadRun } from "./queries";

const Part = styled.section`
  display: grid;
  gap: ${space(3)};
  justify-items: start;
  padding-top: ${space(4)};
  border-top: ${size.line} solid ${colour("hairline")};
  h3 {
    font-size: ${type.run};
    font-weight: 600;
  }
  p,
  li {
    color: ${colour("soft")};
  }
  li[data-wrong] {
    color: ${colour("stop")};
  }
`;

const MOST_TOLD = 12;

/** A run that was saved as a file, read in again; what came with it is told before the plan is opened. */
export function ReadRun() {
  const read = useReadRun();
  const navigate = useNavigate();
  const wrong = Object.entries(fieldErrors(read.error));
  const open = (id: number) => void navigate(`/runs/${id}`);
  return (
    <Part aria-label="A run from a file">
      <h3>A run from a file</h3>
      <p>
        A run saved on the bench, here or in another shop, with everything its plan rests on. What this shelf
        has by the same key stays as it is; what it lacks is put on it.
      </p>
      <FileButton
        label="Read a file in …"
        types={[".json", "application/json"]}
        isDisabled={read.isPending}
        onText={(text) =>
          read.mutate(text, {
            onSuccess: (made) => {
              if (made.told.length === 0) open(made.id);
            },
          })
        }
      />
      {read.error && (
        <>
          <Told role="alert">
            {wrong.length > 0 ? "Nothing was taken. The file is not right here:" : said(read.error)}
          </Told>
          <ul>
            {wrong.slice(0, MOST_TOLD).map(([field, message]) => (
              <li key={field} data-wrong>
                {field}: {message}
              </li>
            ))}
            {wrong.length > MOST_TOLD && <li>and {wrong.length - MOST_TOLD} more</li>}
          </ul>
        </>
      )}
      {read.data && read.data.told.length > 0 && (
        <>
          <Told role="status">It is on the bench. Look at what came with it:</Told>
          <ul>
            {read.data.told.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
          <Button onPress={() => open(read.data.id)}>Open the run</Button>
        </>
      )}
    </Part>
  );
}
