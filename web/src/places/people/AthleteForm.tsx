import { useMutation } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import {
  type Athlete,
  type AthleteEdit,
  addAthlete,
  editAthlete,
  type Squad,
} from "../../api/athletes";
import { faultAt, ProblemNote } from "../../components/ProblemNote";
import { TextField } from "../../components/TextField";
import { capital } from "../../state/wording";

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
type TextName = (typeof TEXTS)[number][0];
type Texts = Record<TextName, string>;

const CHOICES = [
  ["sex", "Sex, for reference values", ["female", "male", "other"]],
  ["dominant_side", "Dominant side", ["left", "right", "both"]],
] as const;

const textOf = (athlete: Athlete | null, name: TextName): string => String(athlete?.[name] ?? "");
const numberOf = (text: string): number | null =>
  text.trim() ? Number(text.replace(",", ".")) : null;

/** Adding and editing are the same form. Nothing but name and reference has to be known. */
export function AthleteForm({ athlete, squads, inSquad, onClose, onSaved }: Props) {
  const [id] = useState(() => athlete?.id ?? crypto.randomUUID());
  const [texts, setTexts] = useState<Texts>(
    () => Object.fromEntries(TEXTS.map(([name]) => [name, textOf(athlete, name)])) as Texts,
  );
  const [choices, setChoices] = useState<Pick<Athlete, "sex" | "dominant_side">>({
    sex: athlete?.sex ?? null,
    dominant_side: athlete?.dominant_side ?? null,
  });
  const [own, setOwn] = useState<string[]>(athlete?.squads ?? (inSquad ? [inSquad] : []));
  const save = useMutation({
    mutationFn: () => {
      const body = {
        name: texts.name,
        ref: texts.ref,
        birth_date: texts.birth_date || null,
        sport: texts.sport || null,
        body_mass_kg: numberOf(texts.body_mass_kg),
        height_cm: numberOf(texts.height_cm),
        ...choices,
        squads: own,
      };
      return athlete ? editAthlete(id, body satisfies AthleteEdit) : addAthlete({ id, ...body });
    },
    onSuccess: onSaved,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    save.mutate();
  };
  return (
    <Modal show centered onHide={onClose} size="lg" aria-labelledby="athlete-title">
      <Modal.Body as="form" onSubmit={submit}>
        <h2 id="athlete-title" className="fs-4 mb-3">
          {athlete ? `Edit ${athlete.name}` : "Add athlete"}
        </h2>
        <div className="form-two">
          {TEXTS.map(([name, label]) => (
            <TextField
              key={name}
              label={label}
              type={name === "birth_date" ? "date" : "text"}
              value={texts[name]}
              onChange={(value) => setTexts({ ...texts, [name]: value })}
              fault={faultAt(save.error, name)}
              autoFocus={name === "name"}
              required={name === "name" || name === "ref"}
            />
          ))}
          {CHOICES.map(([name, label, codes]) => (
            <Form.Group key={name} controlId={name} className="mb-3">
              <Form.Label>{label}</Form.Label>
              <Form.Select
                value={choices[name] ?? ""}
                onChange={(event) => setChoices({ ...choices, [name]: event.target.value || null })}
              >
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
        <SquadTicks squads={squads} own={own} onChange={setOwn} />
        <ProblemNote error={save.error} known={TEXTS.map(([name]) => name)} />
        <div className="d-flex gap-2 mt-3">
          <Button type="submit" disabled={save.isPending}>
            Save
          </Button>
          <Button variant="quiet" onClick={onClose}>
            Cancel
          </Button>
        </div>
      </Modal.Body>
    </Modal>
  );
}

interface TicksProps {
  squads: Squad[];
  own: string[];
  onChange: (own: string[]) => void;
}

function SquadTicks({ squads, own, onChange }: TicksProps) {
  if (squads.length === 0) return null;
  return (
    <fieldset>
      <legend className="fs-6">Squads</legend>
      {squads.map((squad) => (
        <Form.Check
          key={squad.id}
          inline
          id={`squad-${squad.id}`}
          label={squad.name}
          checked={own.includes(squad.id)}
          onChange={(event) =>
            onChange(
              event.target.checked ? [...own, squad.id] : own.filter((other) => other !== squad.id),
            )
          }
        />
      ))}
    </fieldset>
  );
}
