import { Link } from "react-router";
import { auditTo } from "../../state/domain/addresses";
import { useSession } from "../base/session";

interface Props {
  noun: "athlete" | "screen";
  record: string;
}

/** Who read and wrote it: for owners. */
export function AuditLink({ noun, record }: Props) {
  const session = useSession();
  if (session.role !== "owner") return null;
  return (
    <Link className="btn btn-quiet" to={auditTo(noun, record)}>
      Audit
    </Link>
  );
}
