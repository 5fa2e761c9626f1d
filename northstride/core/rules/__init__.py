"""Every rule of judgement, in the order it is asked. To add one: write it in its family, list it here."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from northstride.core.examination.case import Case
from northstride.core.findings import (
    Cap,
    Finding,
    GateRaised,
    Next,
    Question,
    Recheck,
    Retake,
    RuledDown,
    Step,
)
from northstride.core.rules import joint_range, onset
from northstride.core.rules.ankle import achilles, laxity, nerve
from northstride.core.rules.ankle import joint as ankle_joint
from northstride.core.rules.ankle import ligaments as ankle_ligaments
from northstride.core.rules.ankle import tendon as ankle_tendon
from northstride.core.rules.danger import blood, bone, bone_stress, fracture_rule, growing_hip
from northstride.core.rules.danger import story as danger
from northstride.core.rules.foot import midfoot
from northstride.core.rules.foot import shape as foot_shape
from northstride.core.rules.foot import sole_and_toes as foot
from northstride.core.rules.hip import function as hip_function
from northstride.core.rules.hip import groin
from northstride.core.rules.hip import joint as hip_joint
from northstride.core.rules.hip import length as hip_length
from northstride.core.rules.hip import length_by_eye as hip_length_by_eye
from northstride.core.rules.hip import length_more as hip_length_more
from northstride.core.rules.hip import length_sides as hip_length_sides
from northstride.core.rules.hip import shape as hip_shape

RULES_VERSION = "2"

FindingRule = Callable[[Case], Iterable[Finding]]
StepRule = Callable[[Case, Sequence[Finding]], Iterable[Step]]

GateRule = Callable[[Case], Iterable[GateRaised | Next]]

# Danger and whatever shuts a gate reads every entry, held or not.
DANGER_RULES: tuple[FindingRule, ...] = (
    danger.chest,
    danger.cauda_equina,
    danger.both_feet_weak,
    danger.infected_joint,
    danger.open_or_displaced,
    danger.femoral_neck_stress,
    growing_hip.growth_plate_unstable,
    growing_hip.growth_plate_hip,
    growing_hip.limping_child,
    danger.serious_illness,
    danger.femoral_head,
    fracture_rule.fracture_rule,
    bone.bone_shaken,
    bone.tender_after_injury,
    bone.unable_after_injury,
    bone.knee_after_injury,
    bone_stress.bone_stress,
    bone_stress.sesamoid_stress,
    bone_stress.shin_inner_edge,
    bone_stress.apophysis_pulled,
    blood.clot,
    blood.no_blood,
    blood.tense_leg,
)

# What is missing before anything is loaded is asked in this order, before all else.
GATE_RULES: tuple[GateRule, ...] = (
    growing_hip.growth_plate_gate,
    blood.clot_gate,
    fracture_rule.fracture_questions,
    bone.bone_not_named,
    blood.skin_and_refill_asked,
    danger.infection_gate,
    achilles.achilles_gate,
    ankle_ligaments.syndesmosis_gate,
    midfoot.midfoot_gate,
)

# These read what danger does not hold, and hold what would load what they found.
LOAD_RULES: tuple[FindingRule, ...] = (
    ankle_ligaments.syndesmosis_by_count,
    achilles.foot_does_not_move,
    achilles.tendon_gives_partly,
    midfoot.midfoot_gives,
)
# The gates that come of them: none holds an entry from the rules above.
LOAD_GATES = frozenset({"achilles_doubt", "unstable_doubt"})

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
    groin.groin_by_structure,
    groin.squeeze_without_a_side,
    groin.hamstring_torn_off,
    ankle_ligaments.lateral_ligaments,
    ankle_ligaments.delayed_examination,
    ankle_ligaments.deltoid,
    ankle_ligaments.keeps_giving_way,
    ankle_joint.subtalar_plays,
    ankle_joint.talus_does_not_glide_back,
    ankle_joint.lunge_short,
    ankle_joint.calf_short,
    ankle_joint.pinched_at_the_end,
    ankle_joint.other_play_is_little,
    achilles.achilles_sore,
    nerve.field_is_numb,
    nerve.tarsal_tunnel,
    nerve.foot_drops,
    ankle_tendon.heel_does_not_turn_in,
    ankle_tendon.rises_less,
    ankle_tendon.peroneal_tendons,
    ankle_tendon.achilles_insertion,
    ankle_tendon.ankle_not_steered,
    foot_shape.heel_leans_out,
    foot_shape.heel_leans_in,
    foot_shape.arch_drops,
    foot_shape.posture_out_of_line,
    foot.metatarsals_shear,
    nerve.web_space,
    foot.plantar_plate_gives,
    foot.toe_joint_grinds,
    foot.sesamoid_sore,
    foot.heel_in_the_morning,
    foot.sinus_tarsi_sore,
    foot.spring_ligament_sore,
    foot.sole_is_open,
)

# Those that may ask for help today: what a held entry already shows them is not lost.
READ_WHILE_HELD: tuple[FindingRule, ...] = (*LOAD_RULES, nerve.foot_drops, foot.sole_is_open)

# Steps see what the findings named: one step more, per rule and flag at most once.
STEP_RULES: tuple[StepRule, ...] = (
    hip_length_sides.rectus_named_twice,
    hip_length_sides.sides_differ,
    joint_range.moves_less_than_other_side,
    ankle_joint.lunges_less_than_other_side,
    ankle_ligaments.soft_stop,
    ankle_ligaments.two_ligaments,
    ankle_ligaments.deltoid_tests_agree,
)

# Caps come last and never take away what is to be done.
CAP_RULES: tuple[Callable[[Case, Sequence[Finding]], Iterable[Cap]], ...] = (
    laxity.same_on_both_sides,
    laxity.early_cap,
    achilles.unchecked_squeeze,
)

# What is looked at again on a date reads every entry, held or not.
RECHECK_RULES: tuple[Callable[[Case], Iterable[Recheck]], ...] = (laxity.second_look,)

RULED_DOWN_RULES: tuple[Callable[[Case], Iterable[RuledDown]], ...] = (
    fracture_rule.fracture_cleared,
    hip_joint.fadir_clears,
    hip_joint.sacroiliac_cleared,
    hip_function.outer_hip_cleared,
)

NEXT_RULES: tuple[Callable[[Case], Iterable[Next]], ...] = (
    hip_shape.knees_squint,
    hip_shape.crests_uneven,
    hip_function.heels_lifted,
    nerve.screen_the_back,
    nerve.toe_joint_instead,
)

# What the story lacks and a rule needs. Reads every entry.
QUESTION_RULES: tuple[Callable[[Case], Iterable[Question]], ...] = (
    onset.kind_decides_the_urgent,
    danger.side_of_the_complaint,
    growing_hip.growing_hip_questions,
    danger.saddle_questions,
    bone_stress.sore_bone_questions,
    bone.injury_questions,
    fracture_rule.small_child_question,
    danger.groin_questions,
    nerve.foot_drop_question,
    achilles.pop_questions,
    foot.numbness_question,
    danger.age_with_night_pain,
)

RETAKE_RULES: tuple[Callable[[Case], Iterable[Retake]], ...] = (
    hip_function.trunk_leaned,
    hip_shape.torsion_external,
    hip_shape.tapes_disagree,
    achilles.check_passive_range,
)
