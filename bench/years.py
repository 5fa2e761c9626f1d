"""Years of a large club: athletes, screens and over a million numbers, written in batches."""

from __future__ import annotations

import psycopg
from rich.progress import BarColumn, MofNCompleteColumn, Progress, TextColumn, TimeRemainingColumn

from northstride.core.catalogue import default_catalogue
from northstride.record.edition import shipped

ATHLETES, SCREENS_EACH = 5_000, 12
AT_ONCE = 100
# Nine numbers a side: what a screen of muscle length, range and reach leaves behind.
MEASURES = (
    ("hip.modified_thomas", "thigh_angle", -8, 3),
    ("hip.modified_thomas", "knee_angle", 94, 4),
    ("hip.modified_thomas", "thigh_angle_knee_straight", -12, 3),
    ("hip.rom.internal_rotation_90", "passive", 35, 4),
    ("hip.rom.external_rotation_90", "passive", 42, 4),
    ("hip.rom.flexion", "passive", 115, 5),
    ("ankle.lunge", "distance", 112, 9),
    ("ankle.rom.plantarflexion", "passive", 48, 4),
    ("ankle.heel_rise", "count", 26, 3),
)
NUMBERS = ATHLETES * SCREENS_EACH * len(MEASURES) * 2

PEOPLE = """
INSERT INTO athletes (clinic_id, id, ref, name)
SELECT %(clinic)s, gen_random_uuid(), 'S-' || lpad(n::text, 5, '0'), 'Athlete ' || lpad(n::text, 5, '0')
FROM generate_series(1, %(athletes)s) n
"""
# A screen every month back from today; the newest is left open.
SCREENS = """
INSERT INTO screens (clinic_id, id, athlete_id, date, purpose, schools, planned, overrides, created_by,
                     created_at)
SELECT %(clinic)s, gen_random_uuid(), a.id, current_date - 30 * (%(each)s - n), 'squad_screen', '{}', '[]',
       '[]', %(user)s, now()
FROM athletes a, generate_series(1, %(each)s) n
WHERE a.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s
"""
ANSWERS = """
INSERT INTO answers (clinic_id, id, screen_id, revision, test, entry_id, entry_side, key, side, field, value,
                     user_id, by_name, device)
SELECT s.clinic_id, gen_random_uuid(), s.id,
       row_number() OVER (PARTITION BY s.id ORDER BY m.test, m.measure, side), m.test,
       md5(s.id::text || m.test || side)::uuid, side, '', side, 'values.' || m.measure,
       to_jsonb(m.usual + round((random() * 2 - 1)::numeric * m.spread)), %(user)s, 'A. Examiner', 'bench'
FROM screens s JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id
CROSS JOIN (VALUES {measures}) AS m (test, measure, usual, spread)
CROSS JOIN unnest(ARRAY['left', 'right']) AS side
WHERE s.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s
"""
NUMBERS_OF = """
INSERT INTO measurements (clinic_id, answer_id, screen_id, athlete_id, date, test, measure, key, side, mean,
                          median, trials, current, validity)
SELECT x.clinic_id, x.id, s.id, s.athlete_id, s.date, x.test, replace(x.field, 'values.', ''), '', x.side,
       (x.value #>> '{{}}')::float, (x.value #>> '{{}}')::float, 1, true, 'valid'
FROM answers x JOIN screens s ON s.clinic_id = x.clinic_id AND s.id = x.screen_id
JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id
WHERE s.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s
"""
# As they are read: two findings a screen, an exercise each; now and then a second look or something urgent
# that somebody saw to, and one in a thousand that nobody did.
SIGNED = """
UPDATE screens s SET revision = {answers}, signed_at = CASE WHEN s.date < current_date THEN now() END,
       signed_by = CASE WHEN s.date < current_date THEN %(user)s::uuid END
FROM athletes a WHERE a.clinic_id = s.clinic_id AND a.id = s.athlete_id AND s.clinic_id = %(clinic)s
  AND a.ref BETWEEN %(first)s AND %(last)s
"""
READ = """
INSERT INTO readings (clinic_id, screen_id, revision, athlete_revision, shipped, signature)
SELECT s.clinic_id, s.id, s.revision, 1, %(shipped)s, CASE WHEN s.signed_at IS NOT NULL THEN 0 END
FROM screens s JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id
WHERE s.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s
"""
FLAGS = """
INSERT INTO reading_flags (clinic_id, screen_id, place, code, side, strength, urgency)
SELECT s.clinic_id, s.id, n, 'tightness.hip_flexors', CASE n WHEN 0 THEN 'left' ELSE 'right' END, 'likely',
       'train'
FROM screens s JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id, generate_series(0, 1) n
WHERE s.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s
"""
ACTIONS = """
INSERT INTO reading_actions (clinic_id, screen_id, place, code, side, urgency, start, "end", tests)
SELECT s.clinic_id, s.id, n,
       CASE WHEN n < 2 THEN 'train.tightness_hip_flexors' WHEN d < 7 THEN 'recheck.instability_atfl'
            WHEN d < 10 THEN 'refer.nerve_sural' ELSE 'same_day.fracture_ankle' END,
       CASE n WHEN 0 THEN 'left' ELSE 'right' END,
       CASE WHEN n < 2 THEN 'train' WHEN d < 7 THEN 'recheck' WHEN d < 10 THEN 'refer' ELSE 'same_day' END,
       CASE WHEN n = 2 AND d < 7 THEN s.date + 2 END, CASE WHEN n = 2 AND d < 10 THEN s.date + 6 END,
       ARRAY['ankle.anterior_drawer']
FROM screens s JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id
CROSS JOIN LATERAL (SELECT ('x' || left(md5(s.id::text), 6))::bit(24)::int %% 1000 AS d) chance
CROSS JOIN generate_series(0, 2) n
WHERE s.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s AND (n < 2 OR d < 20)
"""
SEEN_TO = """
INSERT INTO arrangements (clinic_id, id, screen_id, action, side, does, "on", note, user_id, by_name)
SELECT r.clinic_id, gen_random_uuid(), r.screen_id, r.code, r.side, 'closed', NULL, 'seen', %(user)s,
       'A. Examiner'
FROM reading_actions r JOIN screens s ON s.clinic_id = r.clinic_id AND s.id = r.screen_id
JOIN athletes a ON a.clinic_id = s.clinic_id AND a.id = s.athlete_id
WHERE r.clinic_id = %(clinic)s AND a.ref BETWEEN %(first)s AND %(last)s AND r.urgency <> 'train'
  AND s.date < current_date - 60
"""
LISTED = ", ".join(f"('{test}', '{measure}', {usual}, {spread})" for test, measure, usual, spread in MEASURES)
BATCH = (
    SCREENS,
    ANSWERS.format(measures=LISTED),
    NUMBERS_OF.format(),
    SIGNED.format(answers=len(MEASURES) * 2),
    READ,
    FLAGS,
    ACTIONS,
    SEEN_TO,
)


def fill(url: str, clinic: str) -> None:
    """As years leave it: all but the newest screen of each athlete signed. A batch is there whole or not."""
    with psycopg.connect(url) as db:
        user = db.execute("SELECT id FROM users").fetchone()
        values: dict[str, object] = {
            "clinic": clinic,
            "user": user[0] if user else None,
            "athletes": ATHLETES,
            "each": SCREENS_EACH,
            "shipped": shipped(default_catalogue()),
        }
        db.execute(PEOPLE, values)
        db.commit()
        with _bar() as progress:
            task = progress.add_task("athletes", total=ATHLETES)
            for first in range(1, ATHLETES + 1, AT_ONCE):
                last = min(first + AT_ONCE - 1, ATHLETES)
                batch = {**values, "first": f"S-{first:05}", "last": f"S-{last:05}"}
                # One transaction: the worker behind the lists must not find screens before their readings.
                for statement in BATCH:
                    db.execute(statement.encode(), batch)
                db.commit()
                progress.advance(task, last - first + 1)
    with psycopg.connect(url, autocommit=True) as db:
        db.execute("VACUUM ANALYZE")


def _bar() -> Progress:
    return Progress(
        TextColumn("filling"),
        BarColumn(),
        MofNCompleteColumn(),
        TextColumn("{task.description}"),
        TimeRemainingColumn(),
    )
