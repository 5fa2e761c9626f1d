"""Who may do what: one table, by operation. An operation that is not here does not start."""

from __future__ import annotations

from northstride.store.actor import Role

EVERYONE: frozenset[Role] = frozenset({"owner", "practitioner", "assistant", "student"})
STAFF: frozenset[Role] = frozenset({"owner", "practitioner", "assistant"})
LICENSED: frozenset[Role] = frozenset({"owner", "practitioner"})
OWNER: frozenset[Role] = frozenset({"owner"})

PERMISSIONS: dict[str, frozenset[Role]] = {
    "read_description": EVERYONE,
    "sign_out": EVERYONE,
    "list_sessions": EVERYONE,
    "make_pairing": EVERYONE,
    "read_pairing": EVERYONE,
    "read_clinic": EVERYONE,
    "edit_clinic": OWNER,
    "preview_schools": OWNER,
    "read_audit": OWNER,
    "read_catalogue": EVERYONE,
    "read_test": EVERYONE,
    "list_athletes": EVERYONE,
    "read_athlete": EVERYONE,
    "read_course": EVERYONE,
    "read_return_tests": EVERYONE,
    "add_athlete": STAFF,
    "edit_athlete": STAFF,
    "read_day": EVERYONE,
    "count_urgent": EVERYONE,
    "list_squads": EVERYONE,
    "add_squad": STAFF,
    "edit_squad": STAFF,
    "list_screens": EVERYONE,
    "begin_screen": EVERYONE,
    "read_route": EVERYONE,
    "list_clinic_routes": EVERYONE,
    "keep_clinic_route": LICENSED,
    "archive_clinic_route": LICENSED,
    "read_screen": EVERYONE,
    "read_changes": EVERYONE,
    "say_where": EVERYONE,
    "read_history": EVERYONE,
    "write_answers": EVERYONE,
    "preview_reading": EVERYONE,
    "read_reading": EVERYONE,
    "read_evidence": EVERYONE,
    "read_signature": EVERYONE,
    "read_signature_today": EVERYONE,
    "sign_screen": LICENSED,
    "amend_screen": LICENSED,
    "read_sheets": EVERYONE,
    "read_sheet_page": EVERYONE,
    "word_sheet": LICENSED,
    "list_letter_templates": EVERYONE,
    "keep_letter_template": LICENSED,
    "archive_letter_template": LICENSED,
    "fill_letter_template": LICENSED,
    "hand_over_sheet": LICENSED,
    "print_sheet": LICENSED,
    "override_gate": LICENSED,
    "arrange_action": LICENSED,
    "undo_arrangement": LICENSED,
    "export_record": LICENSED,
    "read_calendar": LICENSED,
    "make_calendar": LICENSED,
    "revoke_calendar": LICENSED,
    "export_date": LICENSED,
    "export_line": LICENSED,
    "export_fhir": LICENSED,
    "export_screen_values": LICENSED,
    "export_athlete_values": LICENSED,
    "export_squad_values": LICENSED,
    "export_athlete_archive": LICENSED,
    "export_squad_archive": LICENSED,
    "read_table_columns": LICENSED,
    "check_table": LICENSED,
    "import_values": LICENSED,
    "check_record_file": LICENSED,
    "import_record": LICENSED,
    "move_screen": OWNER,
    "preview_merge": OWNER,
    "list_merges": OWNER,
    "merge_athletes": OWNER,
    "undo_merge": OWNER,
    "list_users": OWNER,
    "add_user": OWNER,
    "edit_user": OWNER,
}

# Asked before anyone is known.
OPEN_OPERATIONS = frozenset(
    {
        "read_health",
        "read_session",
        "sign_in",
        "look_at_pairing",
        "pair_device",
        "set_up",
        "read_calendar_feed",
    }
)

# What a page asks by itself while nobody touches it: no use, so it keeps no session alive.
UNUSED = frozenset({"read_changes", "say_where", "count_urgent", "read_pairing"})
