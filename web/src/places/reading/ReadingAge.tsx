/** A reading that is not of what stands now is marked as such, and never passed off as the newest. */
export function ReadingAge({ failed, behind }: { failed: boolean; behind: boolean }) {
  if (!failed && !behind) return null;
  return (
    <p className="caution" role="status">
      {failed
        ? "The server does not answer: this reading may be older than what was recorded since."
        : "Something on this device is not with the server yet: this reading is older than it."}
    </p>
  );
}
