import { useQuery } from "@tanstack/react-query";
import Button from "react-bootstrap/Button";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { type Clinic, clinicQuery, editClinic } from "./queries";

/** Name, zone, lock, and what stands on sheets: the owner's. */
export function ClinicFacts() {
  const clinic = useQuery(clinicQuery);
  if (clinic.error) return <ProblemNote error={clinic.error} />;
  if (!clinic.data) return <p className="muted">Opening</p>;
  return <Facts clinic={clinic.data} onKept={() => clinic.refetch()} />;
}

function Facts({ clinic, onKept }: { clinic: Clinic; onKept: () => void }) {
  const { form, fields, submit, busy, error } = useServerForm({
    defaults: {
      name: clinic.name,
      time_zone: clinic.time_zone,
      idle_minutes: String(clinic.idle_minutes),
      address: clinic.address,
      phone: clinic.phone,
      night_phone: clinic.night_phone,
      emergency_number: clinic.emergency_number,
    },
    send: ({ idle_minutes, ...facts }) =>
      editClinic({ ...facts, idle_minutes: Number(idle_minutes) }),
    onDone: onKept,
  });
  const kept = form.formState.isSubmitSuccessful && !form.formState.isDirty && !busy && !error;
  return (
    <section aria-label="Clinic">
      <h2>Clinic</h2>
      <form onSubmit={submit} style={{ maxWidth: "28rem" }}>
        <FormField form={form} name="name" label="Name" required />
        <FormField
          form={form}
          name="time_zone"
          label="Time zone"
          hint="Such as Europe/Helsinki. Days of screens, windows and referrals are of this zone."
          required
        />
        <FormField
          form={form}
          name="idle_minutes"
          label="Pages lock after so many minutes without use"
          hint="1 to 120. What was typed is kept."
          required
        />
        <h3>On sheets that leave</h3>
        <FormField form={form} name="address" label="Address" />
        <FormField form={form} name="phone" label="Telephone" />
        <FormField form={form} name="night_phone" label="Telephone at night" />
        <FormField
          form={form}
          name="emergency_number"
          label="Emergency number"
          hint="It stands on every athlete's sheet. Empty, the sheet only says to call it."
        />
        <ProblemNote error={error} known={fields} />
        <Button type="submit" disabled={busy}>
          Keep
        </Button>{" "}
        <span role="status" className="muted">
          {kept ? "Kept. Pages that are open follow at their next sign-in." : ""}
        </span>
      </form>
    </section>
  );
}
