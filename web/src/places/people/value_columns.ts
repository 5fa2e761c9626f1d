// What a column of a table can become: a part of the long form, or a value of a test on a side.
import type { Catalogue } from "../../api/catalogue";
import type { Columns } from "../../api/values";

export interface Role {
  role: string;
  says: string;
}

const SIDES = ["left", "right"] as const;

/** Everything a column can become, the plain ones first. */
export function rolesOf(catalogue: Catalogue, plain: Columns["roles"]): Role[] {
  const values = catalogue.tests.flatMap((test) =>
    test.key
      ? []
      : test.measures.flatMap((measure) => {
          const sided = test.sides === "each" || measure.per_side;
          return (sided ? SIDES : [null]).map((side) => ({
            role: `${test.code}/${measure.code}${side ? `/${side}` : ""}`,
            says: [test.name, measure.label, side].filter(Boolean).join(", "),
          }));
        }),
  );
  return [...plain, ...values];
}

/** The role somebody typed: by its code or by its words; as typed where it is none. */
export function roleTyped(typed: string, roles: readonly Role[]): string {
  const said = typed.trim().toLowerCase();
  return (
    roles.find(({ role, says }) => role === said || says.toLowerCase() === said)?.role ?? typed
  );
}

export const saysOf = (role: string, roles: readonly Role[]): string | null =>
  roles.find((each) => each.role === role)?.says ?? null;
