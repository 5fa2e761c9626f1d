"""Short ways to write what is found at ankle, leg and foot. The right side is the sore one."""

from __future__ import annotations

import unittest
from typing import Any

from tests.support.records import Reading, read, record, strengths


def done(test: str, side: str = "right", pain: Any = None, **values: Any) -> dict[str, Any]:
    entry = {"test": test, "side": side, "values": values}
    return {**entry, "pain": pain} if pain else entry


def measured(test: str, values: dict[str, Any], side: str = "right") -> dict[str, Any]:
    return {"test": test, "side": side, "values": values}


def steps(then: str, now: str) -> dict[str, Any]:
    return done("ankle.weight_bearing", after_injury=then, now=now)


def tender(*points: str) -> dict[str, Any]:
    return done("ankle.palpation", tender=list(points))


def hurt(
    region: str = "ankle", onset: Any = "2026-09-12", kind: str = "sudden", **intake: Any
) -> dict[str, Any]:
    sites = intake.pop("sites", [])
    begun = {"kind": kind, **({"date": onset} if onset else {})}
    return {
        "intake": {"complaint": {"region": region, "side": "right", "sites": sites}, "onset": begun, **intake}
    }


class CoreCase(unittest.TestCase):
    def reading(self, *entries: dict[str, Any], **parts: Any) -> Reading:
        return read(record(list(entries), **parts))

    def right(self, *entries: dict[str, Any], **parts: Any) -> dict[str, str]:
        found = strengths(self.reading(*entries, **parts))
        return {code: strength for (code, side), strength in found.items() if side == "right"}

    def left(self, *entries: dict[str, Any], **parts: Any) -> dict[str, str]:
        found = strengths(self.reading(*entries, **parts))
        return {code: strength for (code, side), strength in found.items() if side == "left"}

    def flag(self, code: str, *entries: dict[str, Any], side: str = "right", **parts: Any) -> dict[str, Any]:
        """The one flag of this code on a side; fails where it does not stand."""
        flags = self.reading(*entries, **parts)["flags"]
        found = [flag for flag in flags if (flag["code"], flag["side"]) == (code, side)]
        self.assertEqual(len(found), 1, f"{code} {side} among {[flag['code'] for flag in flags]}")
        return dict(found[0])


def pain(site: str | None = None, familiar: bool | None = None) -> dict[str, Any]:
    told: dict[str, Any] = {"present": True}
    if site is not None:
        told["site"] = site
    if familiar is not None:
        told["familiar"] = familiar
    return told
