import styled from "styled-components";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { useSetupTook } from "./machineQueries";

const Whole = styled.section`
  margin-top: ${space(4)};
  p,
  summary,
  td,
  th {
    font: 400 ${type.label}/1.4 ${face.narrow};
  }
  p,
  th,
  details table {
    color: ${colour("soft")};
  }
  table {
    width: 100%;
    max-width: 34rem;
    border-collapse: collapse;
  }
  th,
  td {
    padding: ${space(0.5)} ${space(3)} ${space(0.5)} 0;
    text-align: left;
    vertical-align: top;
  }
  tbody tr {
    border-top: ${size.line} solid ${colour("hairline")};
  }
  td + td,
  th + th {
    text-align: right;
    white-space: nowrap;
    font-variant-numeric: tabular-nums;
  }
  summary {
    cursor: pointer;
  }
`;

/** What the set-up took last time, task by task beside what is planned, its steps on opening. */
export function SetupTook({ runId, revision }: { runId: number; revision: number }) {
  const { data: found } = useSetupTook(runId, revision);
  if (!found) return null;
  return (
    <Whole aria-label="What the set-up took last time">
      <p>
        {found.tasks.length > 0 && "Last time: "}
        {found.told}
      </p>
      {found.tasks.length > 0 && (
        <table>
          <thead>
            <tr>
              <th>Set-up</th>
              <th>planned</th>
              <th>took</th>
            </tr>
          </thead>
          <tbody>
            {found.tasks.map((t) => (
              <tr key={t.task}>
                <td>
                  {t.steps.length > 0 ? (
                    <details>
                      <summary>{t.task}</summary>
                      <table>
                        <tbody>
                          {t.steps.map((s) => (
                            <tr key={s.title}>
                              <td>{s.title}</td>
                              <td>{s.minutes || "not known"}</td>
                            </tr>
                          ))}
                        </tbody>
                      </table>
                    </details>
                  ) : (
                    t.task
                  )}
                </td>
                <td>{t.planned}</td>
                <td>{t.took || "not ticked"}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Whole>
  );
}
