"""The words the open format is made of. They are stored, exported and matched: codes never change."""

from __future__ import annotations

from typing import Literal, get_args

# Pydantic reads this one on Python 3.11, not the standard library's.
from typing_extensions import TypedDict

Purpose = Literal[
    "squad_screen",
    "hip_complaint",
    "ankle_injury",
    "foot_complaint",
    "follow_up",
    "return_to_sport",
    "teaching",
]
Region = Literal["hip", "groin", "thigh", "knee", "leg", "ankle", "foot"]
ComplaintRegion = Literal["hip", "groin", "thigh", "knee", "leg", "ankle", "foot", "none"]
SideOrBoth = Literal["left", "right", "both"]
Sex = Literal["female", "male", "other"]
OnsetKind = Literal["sudden", "gradual"]
Mechanism = Literal[
    "inversion",
    "eversion",
    "external_rotation",
    "push_off",
    "landing",
    "direct_blow",
    "overload",
    "none",
]
Symptom = Literal[
    "clicking",
    "clunking",
    "giving_way",
    "locking",
    "catching",
    "limp",
    "numbness",
    "tingling",
    "night_pain",
    "shoes_and_socks",
    "getting_out_of_car",
    "first_step_pain",
    "swelling",
    "cannot_push_off",
    "heard_pop",
    "psoriasis",
    "night_back_stiffness",
    "several_insertions",
    "not_better_after_care",
]
RedFlag = Literal[
    "breathless_or_chest_pain",
    "saddle_numbness",
    "bladder_or_bowel",
    "fever_hot_joint",
    "weight_loss",
    "cancer_history",
    "night_pain_unrelieved",
    "steroid_or_alcohol_history",
    "obvious_deformity",
    "open_fracture",
]
Confounder = Literal[
    "lost_sensation",
    "intoxication",
    "other_painful_injury",
    "cannot_balance",
    "pregnant",
    "uncooperative",
]
HistoryKind = Literal[
    "sprain",
    "fracture",
    "dislocation",
    "surgery",
    "hip_replacement",
    "tendon_rupture",
    "childhood_hip",
    "clot",
]
Gate = Literal[
    "fracture_doubt",
    "clot_doubt",
    "hip_replacement",
    "growth_plate_doubt",
    "recent_surgery",
    "acute_dislocation",
    "infection_doubt",
    "achilles_doubt",
    "unstable_doubt",
]
RetakeReason = Literal[
    "back_not_flat",
    "pelvis_moved",
    "trials_disagree",
    "trunk_lean",
    "second_examiner",
    "passive_range_unchecked",
    "tapes_disagree",
]
ReturnCriterion = Literal[
    "no_urgent_flag",
    "passive_ranges",
    "lunge",
    "muscle_length",
    "resisted_strength",
    "heel_rise",
    "hop",
    "side_hop",
    "reach_anterior",
    "own_baseline",
    "pain_now",
]
# What can be asked of a story, by item.
QUESTIONS: tuple[str, ...] = (
    *("birth_date", "sex", "complaint.side", "complaint.sites", "onset.kind", "onset.date", "load_change"),
    "history",
    *(f"symptoms.{code}" for code in get_args(Symptom)),
    *(f"red_flags.{code}" for code in get_args(RedFlag)),
    *(f"confounders.{code}" for code in get_args(Confounder)),
)
# Of measures; "1" is a bare number.
Unit = Literal["deg", "mm", "s", "N", "kg", "1"]
LengthOrAngle = Literal["deg", "mm"]
# What the return board holds against a limit.
# What follows from values may be in units nothing is measured in.
FollowsUnit = Literal["deg", "N·m", "N·m/kg", "percent", "1"]
HeldUnit = Literal[Unit, "percent", "points"]
ThomasSchool = Literal["degrees", "pass_fail", "edge_grade"]


class Schools(TypedDict, total=False):
    """How a clinic reads what practitioners read differently. A missing key means the default."""

    thomas: ThomasSchool
    knee_pass: Literal[80, 90, 100]
    back_control: Literal["hug", "tilt_10", "hand_check"]
    ober: Literal["use", "skip"]
    pelvis_test: Literal["folds", "crests", "palms", "sensor"]
    faber_first: Literal["hip", "sacroiliac"]
    torsion_normal: Literal["8-15", "10-20"]
    torsion_birth: Literal[30, 40]
    hip_extension_norm: Literal[20, 30]
    leg_length_matters: Literal[5, 10, 20]
    clot_route: Literal["emergency", "same_day"]
    start: Literal["standing", "sitting"]
    first_side: Literal["uninjured", "left"]
    rest_normal: Literal["exception", "each"]
    trial_value: Literal["mean", "median"]


DEFAULT_SCHOOLS = Schools(
    thomas="degrees",
    knee_pass=90,
    back_control="hug",
    ober="skip",
    pelvis_test="folds",
    faber_first="hip",
    torsion_normal="8-15",
    torsion_birth=30,
    hip_extension_norm=20,
    leg_length_matters=10,
    clot_route="emergency",
    start="standing",
    first_side="uninjured",
    rest_normal="exception",
    trial_value="mean",
)

# A complaint or an old injury speaks about the joint it lies at, not only about its own name.
REGION_FAMILY = {
    "hip": "hip",
    "groin": "hip",
    "thigh": "hip",
    "knee": "knee",
    "leg": "ankle",
    "ankle": "ankle",
    "foot": "ankle",
}

# The region a purpose names by itself.
USUAL_REGION: dict[Purpose, Region] = {
    "hip_complaint": "hip",
    "ankle_injury": "ankle",
    "foot_complaint": "foot",
}
