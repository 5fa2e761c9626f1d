"""Which way a measure's finding lies: what is worse, and which side a difference speaks of."""

from __future__ import annotations

from typing import Literal

from northstride.core.terms.sides import Side

Polarity = Literal["higher", "lower", "either"]


def for_the_worse(polarity: Polarity, difference: float | None) -> bool | None:
    """Of later − earlier. None where nothing changed, or where no direction is worse."""
    if polarity == "either" or not difference:
        return None
    return (difference > 0) == (polarity == "higher")


def side_spoken_of(polarity: Polarity, difference: float) -> Side | None:
    """Of left − right: the side with the finding, which is the larger value where no direction is worse.

    None where the sides are alike.
    """
    if not difference:
        return None
    return Side.LEFT if (difference < 0) == (polarity == "lower") else Side.RIGHT
