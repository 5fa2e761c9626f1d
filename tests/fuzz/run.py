"""Starts the app on a database of its own, signs in, lets schemathesis loose, and counts.

Fails unless every operation answered 2xx at least once and none ever 5xx.
"""

from __future__ import annotations

import json
import os
import re
import secrets
import subprocess
import sys
import tempfile
from collections import Counter, defaultdict
from pathlib import Path
from typing import Any
from uuid import uuid4

import httpx2

import tests
from northstride.api.unit_of_work import COOKIE, CSRF_HEADER
from northstride.cli.steps import ROOT
from tests.support.api import answer
from tests.support.database import fresh_database
from tests.support.live import LiveApp
from tests.support.records import record, thomas

PASSWORD = "a long enough password"
TABLE = (
    "date,athlete,name,test,side,measure,value\n"
    "2026-09-14,T-77,Bram Holm,hip.modified_thomas,left,thigh_angle,8\n"
)
SETUP = {
    "clinic": "Tarnholt",
    "time_zone": "Europe/Helsinki",
    "login": "aino",
    "name": "Aino V.",
    "password": PASSWORD,
}
# New cases at every run; the seed that brings them back is told.
SEED = os.environ.get(tests.SEED) or str(secrets.randbelow(2**32))
EXAMPLES = "30"
# As it is published, and held to the app by a test.
DESCRIPTION = ROOT / "docs" / "openapi.json"
Statuses = dict[str, Counter[int]]


def sign_in(address: str, login: str = "aino") -> dict[str, str]:
    response = httpx2.post(f"{address}/api/session", json={"login": login, "password": PASSWORD})
    response.raise_for_status()
    return {"Cookie": f"{COOKIE}={response.cookies[COOKIE]}", CSRF_HEADER: response.json()["token"]}


OWN = (
    *("sign_screen", "amend_screen", "move_screen", "merge_athletes", "undo_merge"),
    *("make_calendar", "revoke_calendar"),
)


def own_sessions(address: str, session: dict[str, str]) -> dict[str, dict[str, str]]:
    """Somebody for each operation that asks the password again, or that ends what another needs.

    Wrong passwords slow only whoever guesses; a new calendar ends the one before of its user.
    """
    sessions: dict[str, dict[str, str]] = {"sign_out": sign_in(address)}
    for operation in OWN:
        login = operation.replace("_", "-")
        body = {"login": login, "name": login, "role": "owner", "password": PASSWORD}
        made = {"id": str(uuid4()), **body}
        httpx2.post(f"{address}/api/users", json=made, headers=session).raise_for_status()
        sessions[operation] = sign_in(address, login)
    return sessions


def seed(address: str, session: dict[str, str]) -> dict[str, Any]:
    """A sound call for each operation that needs one."""

    def post(path: str, body: dict[str, Any]) -> None:
        httpx2.post(f"{address}/api{path}", json=body, headers=session).raise_for_status()

    def get(path: str) -> Any:
        return httpx2.get(f"{address}/api{path}", headers=session).raise_for_status().json()

    def begin(athlete: str) -> dict[str, str]:
        body = {"id": str(uuid4()), "athlete_id": athlete, "date": "2026-09-14", "purpose": "follow_up"}
        post("/screens", body)
        post(f"/screens/{body['id']}/answers", {"answers": [answer("left", "values.thigh_angle", 8)]})
        return {"screen_id": str(body["id"])}

    athlete, other, squad, user, route, twice, merged, merge = (str(uuid4()) for _ in range(8))
    post("/athletes", {"id": athlete, "ref": "NS-1", "name": "Ilse Varga"})
    post("/athletes", {"id": other, "ref": "NS-3", "name": "Tuva Lind"})
    for double, ref in ((twice, "NS-4"), (merged, "NS-5")):
        post("/athletes", {"id": double, "ref": ref, "name": "Tuva Lind"})
    post(f"/athletes/{other}/merge", {"id": merge, "gone": merged, "password": PASSWORD})
    post("/squads", {"id": squad, "name": "Seniors"})
    own_route = {"purpose": "teaching", "tests": ["hip.gait"]}
    post("/routes", {"id": route, "name": "First year", **own_route})
    helper = {"login": "helper", "name": "B. Helper", "role": "student", "password": PASSWORD}
    post("/users", {"id": user, **helper})
    screen, to_move, signed, to_sign = begin(athlete), begin(athlete), begin(other), begin(other)

    def shown(of: dict[str, str]) -> dict[str, Any]:
        return {"shown": get(f"/screens/{of['screen_id']}/reading")["identity"], "password": PASSWORD}

    post(f"/screens/{signed['screen_id']}/sign", shown(signed))
    action = {"action": "train.tightness_hip_flexors", "side": "left", "on": "2026-09-20"}
    arranged = {"id": str(uuid4()), **action}
    post(f"/screens/{screen['screen_id']}/arrangements", arranged)
    again = {"id": str(uuid4()), **action, "does": "again", "until": "2026-09-27"}
    post(f"/screens/{screen['screen_id']}/arrangements", again)
    line = {"test": "hip.modified_thomas", "measure": "thigh_angle"}
    dated = {"action": action["action"], "side": action["side"]}
    feed = httpx2.post(f"{address}/api/calendar", json={"id": str(uuid4())}, headers=session).json()
    secret = feed["path"].rpartition("/")[2].removesuffix(".ics")
    pairing = {"id": str(uuid4())}
    post("/pairings", pairing)
    template = {"id": str(uuid4()), "name": "A colleague", "greeting": "Dear colleague,"}
    gone = {"id": str(uuid4()), "name": "Another", "greeting": "Dear colleague,"}
    post("/letter-templates", template)
    post("/letter-templates", gone)
    newest = get(f"/screens/{signed['screen_id']}")["signatures"][-1]["id"]
    amendment = {"reason": "second look", "stands_on": newest, "password": PASSWORD}
    move = {"athlete_id": other, "reason": "mixed up", "password": PASSWORD}
    new = {"id": str(uuid4())}
    draft = {"answers": [answer("left", "values.knee_angle", 84)]}
    a_late_one = answer("left", "values.knee_angle", 80)
    file = record([thomas("left", thigh_angle=8)], id=str(uuid4()))
    field = {"test": "hip.modified_thomas", "side": "left", "field": "values.thigh_angle"}
    return {
        "sign_in": {"body": {"login": "aino", "password": PASSWORD}},
        "add_user": {"body": {**new, **helper, "login": "helper-2"}},
        "edit_user": {"path": {"user_id": user}, "body": {"archived": False}},
        "list_athletes": {"query": {"search": "ilse"}},
        "read_athlete": {"path": {"athlete_id": athlete}},
        "add_athlete": {"body": {**new, "ref": "NS-2", "name": "Bram Holm"}},
        "edit_athlete": {"path": {"athlete_id": athlete}, "body": {"seen": 1, "sport": "skiing"}},
        "preview_merge": {"path": {"athlete_id": other}, "query": {"gone": twice}},
        "merge_athletes": {
            "path": {"athlete_id": other},
            "body": {**new, "gone": twice, "password": PASSWORD},
        },
        "list_merges": {"path": {"athlete_id": other}},
        "undo_merge": {"path": {"athlete_id": other}, "body": {"merge": merge, "password": PASSWORD}},
        "add_squad": {"body": {**new, "name": "Juniors"}},
        "edit_squad": {"path": {"squad_id": squad}, "body": {"name": "Masters"}},
        "list_screens": {"query": {"athlete": athlete}},
        "begin_screen": {
            "body": {**new, "athlete_id": athlete, "date": "2026-09-15", "purpose": "squad_screen"}
        },
        "read_screen": {"path": screen},
        "read_route": {"path": screen},
        "keep_clinic_route": {"body": {**new, "name": "Second year", **own_route}},
        "archive_clinic_route": {"path": {"route_id": route}},
        "read_changes": {"path": screen, "query": {"after": 0}},
        "read_history": {"path": screen, "query": field},
        "write_answers": {"path": screen, "body": draft},
        "preview_reading": {"path": screen, "body": draft},
        "read_reading": {"path": screen},
        "sign_screen": {"path": to_sign, "body": shown(to_sign)},
        "read_signature": {"path": {**signed, "number": 0}},
        "read_signature_today": {"path": {**signed, "number": 0}},
        "amend_screen": {"path": signed, "body": {**new, **amendment, "answers": [a_late_one]}},
        "move_screen": {"path": to_move, "body": move},
        "override_gate": {
            "path": screen,
            "body": {"gate": "fracture_doubt", "side": "left", "reason": "radiograph clear"},
        },
        "arrange_action": {"path": screen, "body": {**new, **action}},
        "undo_arrangement": {"path": {**screen, "arrangement_id": arranged["id"]}, "body": new},
        "read_evidence": {"path": screen},
        "read_sheets": {"path": screen},
        "read_sheet_page": {"path": {**screen, "kind": "letter", "page": 1}},
        "print_sheet": {"path": {**screen, "kind": "report"}},
        "hand_over_sheet": {"path": {**screen, "kind": "athlete"}},
        "word_sheet": {
            "path": screen,
            "body": {**new, "sheet": "letter", "field": "to", "value": "A. Farkas"},
        },
        "make_pairing": {"body": new},
        "keep_letter_template": {"body": {**new, "name": "Dr Farkas", "to": "A. Farkas"}},
        "archive_letter_template": {"path": {"template_id": gone["id"]}},
        "fill_letter_template": {"path": screen, "body": {**new, "template": template["id"]}},
        "export_fhir": {"path": screen, "query": {"version": "R4B"}},
        "export_screen_values": {"path": screen},
        "export_athlete_values": {"path": {"athlete_id": athlete}},
        "export_squad_values": {"path": {"squad_id": squad}, "query": {"form": "wide"}},
        "export_athlete_archive": {"path": {"athlete_id": athlete}},
        "export_squad_archive": {"path": {"squad_id": squad}},
        "export_line": {"path": {"athlete_id": other}, "query": line},
        "export_date": {"path": screen, "query": dated},
        "make_calendar": {"body": {"id": str(uuid4()), "named": True}},
        "read_calendar_feed": {"path": {"secret": secret}},
        "read_table_columns": {"body": {"text": TABLE}},
        "check_table": {"body": {"text": TABLE, "roles": TABLE.splitlines()[0].split(",")}},
        "import_values": {"body": {"text": TABLE, "roles": TABLE.splitlines()[0].split(",")}},
        "read_pairing": {"path": {"pairing_id": pairing["id"]}},
        "say_where": {"path": screen, "body": {"device": "tablet", "step": "bench"}},
        "edit_clinic": {"body": {"idle_minutes": 60}},
        "preview_schools": {"body": {"schools": {"knee_pass": 80}}},
        "read_audit": {"query": {"noun": "screen", "key": screen["screen_id"]}},
        "read_test": {"path": {"code": "hip.fadir"}},
        "read_return_tests": {"path": {"athlete_id": athlete}},
        "read_course": {"path": {"athlete_id": athlete}},
        "export_record": {"path": screen},
        "check_record_file": {"body": file},
        "import_record": {"body": file, "query": {"name": "Oskar Bremer"}},
    }


def run_schemathesis(address: str, url: str, known: dict[str, Any], *choose: str) -> tuple[Statuses, str]:
    with tempfile.TemporaryDirectory() as folder:
        har = Path(folder) / "calls.har"
        command = [
            *(str(Path(sys.executable).parent / "schemathesis"), "run", str(DESCRIPTION), "--url", address),
            *("--max-examples", EXAMPLES, "--seed", SEED, "--phases", "examples,coverage,fuzzing"),
            *("--checks", "not_a_server_error", "--continue-on-failure", "--warnings", "off"),
            *("--report", "har", "--report-har-path", str(har), "--workers", "1", *choose),
        ]
        environment = {
            **os.environ,
            "SCHEMATHESIS_HOOKS": "tests.fuzz.hooks",
            "NORTH_STRIDE_FUZZ": json.dumps(known),
            "NORTH_STRIDE_FUZZED": url,
            "PYTHONPATH": str(ROOT),
        }
        done = subprocess.run(
            command, env=environment, cwd=folder, capture_output=True, text=True, check=False
        )
        if not har.exists():
            return {}, done.stdout + done.stderr
        return _statuses(address, json.loads(har.read_text())), done.stdout + done.stderr


def _statuses(address: str, har: dict[str, Any]) -> Statuses:
    paths = json.loads(DESCRIPTION.read_text())["paths"]
    known = [
        (re.compile(re.sub(r"\{[^}]+\}", "[^/]*", path) + r"$"), method.upper(), operation["operationId"])
        for path, item in paths.items()
        for method, operation in item.items()
    ]
    found: Statuses = defaultdict(Counter)
    for entry in har["log"]["entries"]:
        method, url = entry["request"]["method"], entry["request"]["url"]
        path = url.removeprefix(address).split("?")[0]
        for pattern, own_method, name in known:
            if method == own_method and pattern.match(path):
                found[name][entry["response"]["status"]] += 1
                break
    return found


def main() -> int:
    url = fresh_database()
    with LiveApp(url) as app:
        first, said_first = run_schemathesis(
            app.address,
            url,
            {"operations": {"set_up": {"body": SETUP}}, "session": {}, "own": {}},
            "--include-operation-id",
            "set_up",
        )
        session = sign_in(app.address)
        known = {
            "operations": seed(app.address, session),
            "session": session,
            "address": app.address,
            "own": own_sessions(app.address, session),
        }
        rest, said = run_schemathesis(app.address, url, known, "--exclude-operation-id", "set_up")
        operations = {
            operation["operationId"]
            for item in json.loads(DESCRIPTION.read_text())["paths"].values()
            for operation in item.values()
        }
    statuses = {**first, **rest}
    calls = sum(sum(counted.values()) for counted in statuses.values())
    never = sorted(name for name in operations if not any(200 <= s < 300 for s in statuses.get(name, {})))
    broken = sorted(name for name, counted in statuses.items() if any(s >= 500 for s in counted))
    print(f"seed {SEED}: {len(operations)} operations, {calls} calls")
    print(f"never 2xx: {never or 'none'}, 5xx: {broken or 'none'}")
    if never or broken:
        print(said_first, said, sep="\n")
    return 1 if never or broken or not calls else 0


if __name__ == "__main__":
    sys.exit(main())
