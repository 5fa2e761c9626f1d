"""Our own code systems by URN, and the few of others that a bundle names."""

from __future__ import annotations

from typing import Any, Literal

Version = Literal["R4B", "R5"]
Resource = dict[str, Any]

OURS = "urn:north-stride:"
ATHLETE, SCREEN, ENTRY = f"{OURS}athlete", f"{OURS}screen", f"{OURS}entry"
TEST, MEASURE, CHOICE, SEEN, PART = (
    f"{OURS}code:{name}" for name in ("test", "measure", "choice", "seen", "part")
)
BODY_SITE, METHOD, CATEGORY, PURPOSE = (
    f"{OURS}code:{name}" for name in ("body-site", "method", "category", "purpose")
)
FLAG, STRENGTH, URGENCY, PAIN_SITE = (
    f"{OURS}code:{name}" for name in ("flag", "strength", "urgency", "pain-site")
)
PROFILE = f"{OURS}profile:screen"
QUESTIONS = f"{OURS}questions:screen"
DIAL, TRIAL = f"{OURS}extension:dial-reading", f"{OURS}extension:trial"

UCUM = "http://unitsofmeasure.org"
ACT_CODE = "http://terminology.hl7.org/CodeSystem/v3-ActCode"
OBSERVATION_CATEGORY = "http://terminology.hl7.org/CodeSystem/observation-category"

# Ours are UCUM codes already; a count has the unit one.
UNIT_WORDS = {"deg": "°", "mm": "mm", "s": "s", "N": "N", "kg": "kg", "1": ""}


def concept(system: str, code: str, display: str | None = None) -> Resource:
    coding = {"system": system, "code": code, **({"display": display} if display else {})}
    return {"coding": [coding], **({"text": display} if display else {})}


def code_in(found: Resource | None, system: str) -> str | None:
    """The code of this system in a concept, None where there is none."""
    for coding in (found or {}).get("coding", []):
        if coding.get("system") == system:
            return str(coding["code"])
    return None


def site_code(region: str, side: str | None) -> str:
    return f"{region}.{side}" if side else region


def side_of(resource: Resource) -> str | None:
    """The side its body site names, None for the region as a whole."""
    _, _, side = (code_in(resource.get("bodySite"), BODY_SITE) or "").partition(".")
    return side or None


def body_site(region: str, side: str | None) -> Resource:
    """Whose side is the athlete's own."""
    return concept(BODY_SITE, site_code(region, side), f"{side} {region}" if side else region)
