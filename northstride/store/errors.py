"""What the store refuses. Fields, no HTTP."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from uuid import UUID

from northstride.core.terms.errors import Fault


class StoreError(Exception):
    """Anything the store refuses to do."""


class NotFound(StoreError):
    """Nothing of this id in this clinic: unknown and another clinic's look the same."""

    def __init__(self, noun: str, key: UUID | str) -> None:
        super().__init__(f"no {noun} {key}")
        self.noun = noun
        self.key = str(key)


class Refused(StoreError):
    """The input has faults; nothing was written."""

    def __init__(self, faults: Sequence[Fault]) -> None:
        super().__init__("; ".join(map(str, faults)))
        self.faults = list(faults)


class Differs(StoreError):
    """The same id stands already with other content."""

    def __init__(self, noun: str, key: UUID | str, paths: Sequence[str]) -> None:
        super().__init__(f"{noun} {key} stands already and differs")
        self.noun = noun
        self.key = str(key)
        self.paths = list(paths)


class Signed(StoreError):
    """The screen is signed: only an amendment can add to it."""

    def __init__(self, screen: UUID) -> None:
        super().__init__(f"screen {screen} is signed")
        self.screen = str(screen)


class NotSigned(StoreError):
    """Only a signed screen can be amended."""

    def __init__(self, screen: UUID) -> None:
        super().__init__(f"screen {screen} is not signed")
        self.screen = str(screen)


class NewerReading(StoreError):
    """What is to be signed is no longer what was seen: the named parts of it changed."""

    def __init__(self, changed: Sequence[str]) -> None:
        super().__init__(f"changed since it was shown: {', '.join(changed)}")
        self.changed = list(changed)


class NewerSignature(StoreError):
    """What is to be amended was amended since it was seen."""

    def __init__(self, number: int) -> None:
        super().__init__(f"signature {number} is the newest")
        self.number = number


class NotThisPerson(StoreError):
    """A file whose athlete contradicts the clinic's own: `apart` names what the file says and what stands."""

    def __init__(self, name: str, ref: str, apart: Mapping[str, tuple[str, str]]) -> None:
        super().__init__(f"{ref} is another person here")
        self.name = name
        self.ref = ref
        self.apart = dict(apart)


class NewerEdit(StoreError):
    """What is to be edited was edited since it was seen."""

    def __init__(self, noun: str, current: int) -> None:
        super().__init__(f"this {noun} stands at edit {current}")
        self.noun = noun
        self.current = current


class Unreadable(StoreError):
    """A screen that stands here cannot be read as it is."""

    def __init__(self, screen: UUID, faults: Sequence[Fault]) -> None:
        super().__init__(f"screen {screen} cannot be read")
        self.screen = str(screen)
        self.faults = list(faults)


class SignInRefused(StoreError):
    """Name or password is wrong, or the account is closed."""


class PairingRefused(StoreError):
    """The code is unknown, used, too old, or its maker is no longer signed in."""


class Throttled(StoreError):
    """Too many failed sign-ins: wait."""

    def __init__(self, seconds: int) -> None:
        super().__init__(f"wait {seconds} s")
        self.seconds = seconds


class WrongPassword(StoreError):
    """The password asked again did not match."""


class AlreadySetUp(StoreError):
    """The first owner stands already."""


class Incomplete(StoreError):
    """Planned tests are neither done nor declined."""

    def __init__(self, tests: Sequence[str]) -> None:
        super().__init__(f"still open: {', '.join(tests)}")
        self.tests = list(tests)


class TwoValues(StoreError):
    """Two answers to one question stand beside each other, and nobody has decided between them."""

    def __init__(self, tests: Sequence[str]) -> None:
        super().__init__(f"two answers stand: {', '.join(tests)}")
        self.tests = list(tests)


class Unarranged(StoreError):
    """Urgent actions nobody has arranged, and no reason why not."""

    def __init__(self, actions: Sequence[str]) -> None:
        super().__init__(f"not arranged: {', '.join(actions)}")
        self.actions = list(actions)
