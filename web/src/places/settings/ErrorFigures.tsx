import { useQuery } from "@tanstack/react-query";
import { catalogueQuery } from "../../api/catalogue";
import { errorRows } from "./error_figures";
import styles from "./settings.module.css";

/** How large the error of each measure is taken to be, and who says so. */
export function ErrorFigures() {
  const catalogue = useQuery(catalogueQuery);
  if (!catalogue.data) return <p className="muted">Opening</p>;
  const rows = errorRows(catalogue.data);
  const assumed = rows.filter((row) => row.assumed).length;
  return (
    <section aria-label="Error figures">
      <h2>Error figures in force</h2>
      <p className="muted">
        A difference or change counts as real beyond the smallest real change, 1.96 · √2 · SEM (Weir
        2005). {assumed} of {rows.length} figures are assumed, not published: they are marked so in
        every reading. The clinic has measured none of its own.
      </p>
      <div className={styles.wide}>
        <table>
          <thead>
            <tr>
              <th scope="col">Test and measure</th>
              <th scope="col">SEM</th>
              <th scope="col">Smallest real change</th>
              <th scope="col">Matters from</th>
              <th scope="col">Source</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.key}>
                <th scope="row">{row.name}</th>
                <td>{row.sem}</td>
                <td>{row.mdc95}</td>
                <td>{row.threshold}</td>
                <td>{row.source}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
