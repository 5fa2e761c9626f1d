import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import { type Athlete, editAthlete, type Squad } from "../../api/athletes";
import { DialogButtons } from "../../components/controls/DialogButtons";
import { FormField, useServerForm } from "../../components/controls/form";
import { ProblemNote } from "../../components/marks/ProblemNote";
import { capital } from "../../state/domain/wording";
import styles from "./people.module.css";
import { addAthlete } from "./queries";

interface Props {
  athlete: Athlete | null;
  squads: Squad[];
  inSquad: string | null;
  onClose: () => void;
  onSaved: (athlete: Athlete) => void;
}

const TEXTS = [
  ["name", "Name"],
  ["ref", "Reference, as it stands in files"],
  ["birth_date", "Birth date"],
  ["sport", "Sport"],
  ["body_mass_kg", "Body mass, kg"],
  ["height_cm", "Height, cm"],
] as const;

const CHOICES = [
  ["sex", "Sex, for reference values", ["female", "male", "other"]],
  ["dominant_side", "Dominant side", ["left", "right", "both"]],
] as const;

interface Values extends Record<(typeof TEXTS)[number][0], string> {
  id: string;
  sex: string;
  dominant_side: string;
  squads: string[];
}

const numberOf = (text: string): number | null =>
  text.trim() ? Number(text.replace(",", ".")) : null;

function send(values: Values, athlete: Athlete | null): Promise<Athlete> {
  const { id, squads, name, ref } = values;
  const body = {
    name,
    ref,
    birth_date: values.birth_date || null,
    sport: values.sport || null,
    body_mass_kg: numberOf(values.body_mass_kg),
    height_cm: numberOf(values.height_cm),
    sex: (values.sex || null) as Athlete["sex"],
    dominant_side: (values.dominant_side || null) as Athlete["dominant_side"],
    squads: [...squads],
  };
  if (athlete) return editAthlete(id, { seen: athlete.revision, ...body });
  return addAthlete({ id, ...body });
}

function valuesOf(athlete: Athlete | null, inSquad: string | null): Values {
  const text = (value: string | number | null | undefined) => String(value ?? "");
  return {
    id: athlete?.id ?? crypto.randomUUID(),
    name: text(athlete?.name),
    ref: text(athlete?.ref),
    birth_date: text(athlete?.birth_date),
    sport: text(athlete?.sport),
    body_mass_kg: text(athlete?.body_mass_kg),
    height_cm: text(athlete?.height_cm),
    sex: text(athlete?.sex),
    dominant_side: text(athlete?.dominant_side),
    squads: athlete?.squads ?? (inSquad ? [inSquad] : []),
  };
}

/** Adding and editing are the same form. Nothing but name and reference has to be known. */
export function AthleteForm({ athlete, squads, inSquad, onClose, onSaved }: Props) {
  const { form, fields, submit, busy, error } = useServerForm<Values, Athlete>({
    defaults: valuesOf(athlete, inSquad),
    send: (values) => send(values, athlete),
    onDone: onSaved,
  });
  return (
    <Modal show centered onHide={onClose} size="lg" aria-labelledby="athlete-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="athlete-title" className="fs-4 mb-3">
          {athlete ? `Edit ${athlete.name}` : "Add athlete"}
        </h2>
        <div className={styles["form-two"]}>
          {TEXTS.map(([name, label]) => (
            <FormField
              key={name}
              form={form}
              name={name}
              label={label}
              type={name === "birth_date" ? "date" : "text"}
              autoFocus={name === "name"}
              required={name === "name" || name === "ref"}
            />
          ))}
          {CHOICES.map(([name, label, codes]) => (
            <Form.Group key={name} controlId={name} className="mb-3">
              <Form.Label>{label}</Form.Label>
              <Form.Select {...form.register(name)}>
                <option value="">not known</option>
                {codes.map((code) => (
                  <option key={code} value={code}>
                    {capital(code)}
                  </option>
                ))}
              </Form.Select>
            </Form.Group>
          ))}
        </div>
        {squads.length > 0 ? (
          <fieldset>
            <legend className="fs-6">Squads</legend>
            {squads.map((squad) => (
              <Form.Check
                key={squad.id}
                inline
                id={`squad-${squad.id}`}
                label={squad.name}
                value={squad.id}
                {...form.register("squads")}
              />
            ))}
          </fieldset>
        ) : null}
        <ProblemNote error={error} known={fields} />
        <DialogButtons does="Save" busy={busy} onCancel={onClose} />
      </Modal.Body>
    </Modal>
  );
}
