import { useMutation } from "@tanstack/react-query";
import { exportDate } from "../../api/exports";
import { saveFile } from "../base/saveFile";
import { isLicensed, useSession } from "../base/session";
import { ProblemNote } from "../marks/ProblemNote";

interface Props {
  screen: string;
  action: string;
  side: "left" | "right" | null;
  name: string;
}

/** One date as a file for a calendar, without a name in it. */
export function DateFile({ screen, action, side, name }: Props) {
  const session = useSession();
  const made = useMutation({
    mutationFn: () => exportDate(screen, action, side, false),
    onSuccess: (file) => saveFile(file, "north-stride-date.ics"),
  });
  if (!isLicensed(session)) return null;
  return (
    <>
      <button
        type="button"
        className="text-button"
        disabled={made.isPending}
        onClick={() => made.mutate()}
      >
        calendar file
        <span className="only-read-aloud">
          , {name}
          {side ? `, ${side}` : ""}
        </span>
      </button>
      <ProblemNote error={made.error} />
    </>
  );
}
