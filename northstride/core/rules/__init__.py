"""Every rule of judgement, in the order it is asked. To add one: write it in its family, list it here."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from northstride.core.case import Case
from northstride.core.findings import Finding, GateRaised, Next, Retake, RuledDown, Step
from northstride.core.rules import (
    blood,
    bone,
    danger,
    hip_function,
    hip_joint,
    hip_length,
    hip_length_by_eye,
    hip_length_more,
    hip_length_sides,
    hip_shape,
    joint_range,
)

RULES_VERSION = "1"

FindingRule = Callable[[Case], Iterable[Finding]]
StepRule = Callable[[Case, Sequence[Finding]], Iterable[Step]]

GateRule = Callable[[Case], Iterable[GateRaised | Next]]

# Danger and whatever shuts a gate reads every entry, held or not.
DANGER_RULES: tuple[FindingRule, ...] = (
    danger.chest,
    danger.cauda_equina,
    danger.infected_joint,
    danger.open_or_displaced,
    danger.femoral_neck_stress,
    danger.growth_plate_hip,
    danger.limping_child,
    danger.serious_illness,
    danger.femoral_head,
    bone.fracture_rule,
    bone.bone_shaken,
    bone.tender_after_injury,
    bone.femur_after_injury,
    bone.bone_stress,
    blood.clot,
    blood.no_blood,
    blood.tense_leg,
)

# What is missing before anything is loaded is asked in this order, before all else.
GATE_RULES: tuple[GateRule, ...] = (
    bone.fracture_questions,
    blood.clot_gate,
    danger.growth_plate_gate,
)

# The others read what is not held.
FINDING_RULES: tuple[FindingRule, ...] = (
    hip_length.back_hurts,
    hip_length.which_hip_flexor_is_short,
    hip_length.knee_bends_short,
    hip_length.thigh_drifts_outwards,
    hip_length.thigh_turns,
    hip_length.thigh_does_not_cross,
    hip_length_by_eye.graded_at_the_edge,
    hip_length_by_eye.failed_by_eye,
    hip_length_more.hip_does_not_straighten,
    hip_length_more.buttock_rises_early,
    hip_length_more.thigh_stays_up_side_lying,
    hip_length_more.hamstrings_short,
    hip_length_more.raised_leg_points_to_the_back,
    hip_length_more.low_back_gives_the_pain,
    joint_range.moves_less_than_usual,
    joint_range.big_toe_moves_less,
    joint_range.moves_less_by_itself,
    hip_joint.faber_by_place,
    hip_joint.faber_stays_high,
    hip_joint.labrum_by_position,
    hip_joint.pinch_in_the_groin,
    hip_joint.sacroiliac_provoked,
    hip_joint.arthritis_criteria,
    hip_joint.arthritis_story,
    hip_function.stance_brings_the_pain,
    hip_function.pelvis_is_not_held,
    hip_function.gait_drops,
    hip_shape.torsion_out_of_line,
    hip_shape.legs_differ,
    hip_function.weak_by_grade,
    hip_function.weak_by_symmetry,
    hip_function.leg_is_not_steered,
    hip_function.groin_by_structure,
    hip_function.squeeze_without_a_side,
)

# Steps see what the findings named: one step more, per rule and flag at most once.
STEP_RULES: tuple[StepRule, ...] = (
    hip_length_sides.rectus_named_twice,
    hip_length_sides.sides_differ,
    joint_range.moves_less_than_other_side,
)

RULED_DOWN_RULES: tuple[Callable[[Case], Iterable[RuledDown]], ...] = (
    bone.fracture_cleared,
    hip_joint.fadir_clears,
    hip_joint.sacroiliac_cleared,
    hip_function.outer_hip_cleared,
)

ASK_RULES: tuple[Callable[[Case], Iterable[Next]], ...] = (
    hip_shape.knees_squint,
    hip_shape.crests_uneven,
    hip_function.heels_lifted,
)

RETAKE_RULES: tuple[Callable[[Case], Iterable[Retake]], ...] = (
    hip_function.trunk_leaned,
    hip_shape.torsion_external,
    hip_shape.tapes_disagree,
)
