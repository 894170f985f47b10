import type { LotClosing } from "../../api/client";

type Props = { rows: LotClosing["rows"]; kept?: LotClosing["kept"] };

/** What was planned beside what it came to. */
export function PlannedAndReal({ rows, kept = [] }: Props) {
  return (
    <table>
      <thead>
        <tr>
          <th />
          <th>planned</th>
          <th>real</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((r) => (
          <tr key={r.what}>
            <td>{r.what}</td>
            <td>{r.planned}</td>
            <td>{r.real}</td>
          </tr>
        ))}
        {kept.map((k) => (
          <tr key={k.title}>
            <td>{k.title}</td>
            <td />
            <td>{k.words}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
