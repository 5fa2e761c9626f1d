"""Our own code systems by URN, and the few of others that a bundle names."""

from __future__ import annotations

from typing import Any, Literal, get_args

from northstride.core.terms.vocabulary import Unit
from northstride.core.wording.phrases import unit_after

Version = Literal["R4B", "R5"]
Resource = dict[str, Any]

# Another base can be set for a clinic whose receivers expect their own.
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
UNIT_WORDS = {unit: unit_after(unit).strip() for unit in get_args(Unit)}


def address(key: str) -> str:
    """Of a resource within its bundle: what its references name, so that any receiver can follow them."""
    return f"urn:uuid:{key}"


def reference(resource: Resource) -> Resource:
    return {"reference": address(str(resource["id"]))}


# Where an address of ours may stand in a resource.
ADDRESSED = frozenset({"system", "url", "questionnaire", "profile"})


def addressed(part: Any, base: str, *, back: bool = False, key: str = "") -> Any:
    """The same with our canonical addresses under another base, or `back` from there.

    Under a base that ends with a slash what follows is a path.
    """
    if isinstance(part, dict):
        return {name: addressed(value, base, back=back, key=name) for name, value in part.items()}
    if isinstance(part, list):
        return [addressed(value, base, back=back, key=key) for value in part]
    if not isinstance(part, str) or key not in ADDRESSED or base == OURS:
        return part
    between = "/" if base.endswith("/") else ":"
    if back:
        return OURS + part.removeprefix(base).replace(between, ":") if part.startswith(base) else part
    return base + part.removeprefix(OURS).replace(":", between) if part.startswith(OURS) else part


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
